import { defineEventHandler } from 'h3'
import { contactQuerySchema } from '../../../core/contacts/contact'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Everyone who left an address, the newest first. */
export default defineEventHandler(async event => (await useTrough()).contacts.list(parseQuery(event, contactQuerySchema)))
