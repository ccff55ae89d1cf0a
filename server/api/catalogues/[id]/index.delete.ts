import { defineEventHandler, sendNoContent } from 'h3'
import { despiteQuerySchema } from '../../../../core/page/pageItem'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Takes a catalogue away; with its entries where `?despite=yes`. */
export default defineEventHandler(async event => {
  await (await useTrough()).catalogues.remove(idOf(event), parseQuery(event, despiteQuerySchema))
  return sendNoContent(event)
})
