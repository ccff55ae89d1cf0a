import { defineEventHandler } from 'h3'
import { entryListQuerySchema } from '../../../../../core/catalogue/entry'
import { idOf, parseQuery } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Entries of a catalogue, in their own order. */
export default defineEventHandler(async event => {
  const { first } = parseQuery(event, entryListQuerySchema)
  return { items: (await (await useTrough()).entries.list(idOf(event))).slice(0, first) }
})
