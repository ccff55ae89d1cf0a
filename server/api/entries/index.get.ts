import { defineEventHandler } from 'h3'
import { ledEntriesQuerySchema } from '../../../core/catalogue/entry'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Entries of all catalogues by part of their names, or by their identities: what buttons and links can lead to. */
export default defineEventHandler(async event => ({
  items: await (await useTrough()).entries.led(parseQuery(event, ledEntriesQuerySchema)),
}))
