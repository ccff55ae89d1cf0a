import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** What stands behind a gate. */
export default defineEventHandler(async event => (await useTrough()).gates.uses(idOf(event)))
