import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Pages on which something leads to an entry. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).entries.places(idOf(event)) }))
