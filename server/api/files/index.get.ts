import { defineEventHandler } from 'h3'
import { fileQuerySchema, takenDays } from '../../../core/files/query'
import { accessOf } from '../../utils/access'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const access = await accessOf(event)
  const { library, downloads } = await useTrough()
  const filter = access.filter(parseQuery(event, fileQuerySchema))
  const days = takenDays(filter.sort)
  const taken = days ? await downloads.takenIn(days) : undefined
  const found = await library.list(filter, access.sight, undefined, taken)
  return { ...found, items: access.shown(found.items) }
})
