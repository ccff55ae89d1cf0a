import { defineEventHandler } from 'h3'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** All that is known of somebody. */
export default defineEventHandler(async event => (await useTrough()).contacts.get(idOf(event)))
