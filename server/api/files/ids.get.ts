import { defineEventHandler } from 'h3'
import { fileFilterSchema } from '../../../core/files/query'
import { accessOf } from '../../utils/access'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Identities of all files a filter lets through. */
export default defineEventHandler(async event => {
  const access = await accessOf(event)
  return { ids: await (await useTrough()).library.ids(access.filter(parseQuery(event, fileFilterSchema)), access.sight) }
})
