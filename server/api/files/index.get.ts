import { defineEventHandler } from 'h3'
import { fileQuerySchema } from '../../../core/files/query'
import { accessOf } from '../../utils/access'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const access = await accessOf(event)
  const found = await (await useTrough()).library.list(access.filter(parseQuery(event, fileQuerySchema)), access.sight)
  return { ...found, items: access.shown(found.items) }
})
