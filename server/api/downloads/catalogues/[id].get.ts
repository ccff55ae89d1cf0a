import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** How often the files of entries were taken in the last thirty days. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).entryTaken(idOf(event)) }))
