import { defineEventHandler } from 'h3'
import { entryListQuerySchema } from '../../../../../core/catalogue/entry'
import { idOf, parseQuery } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Entries of a catalogue, in their own order. */
export default defineEventHandler(async event => {
  return (await useTrough()).entries.listSince(idOf(event), parseQuery(event, entryListQuerySchema))
})
