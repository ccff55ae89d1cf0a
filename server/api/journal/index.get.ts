import { defineEventHandler } from 'h3'
import { journalQuerySchema } from '../../services/account/journal'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Who signed in, and who changed what; the newest first. */
export default defineEventHandler(async event => (await useTrough()).journal.list(parseQuery(event, journalQuerySchema)))
