import { defineEventHandler } from 'h3'
import { accessOf } from '../../utils/access'
import { useTrough } from '../../utils/trough'

/** One's own; all of them for an owner. */
export default defineEventHandler(async event => {
  const access = await accessOf(event)
  return { items: (await useTrough()).jobs.list().filter(access.isOwn) }
})
