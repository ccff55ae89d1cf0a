import { defineEventHandler } from 'h3'
import { importLookQuerySchema } from '../../../core/catalogue/import'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Looks into a table, and brings nothing in. The body is the file as it is. */
export default defineEventHandler(async event => {
  const { name, catalogue } = parseQuery(event, importLookQuerySchema)
  return (await useTrough()).importing.look(event.node.req, name, catalogue || null)
})
