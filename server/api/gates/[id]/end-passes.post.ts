import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Everyone who has passed the gate is asked again. */
export default defineEventHandler(async event => (await useTrough()).gates.endPasses(idOf(event)))
