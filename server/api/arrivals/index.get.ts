import { defineEventHandler } from 'h3'
import { arrivalQuerySchema } from '../../../core/letterbox/arrival'
import { arrivalsFor } from '../../utils/arrivals'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** What came by letterboxes, the newest first. */
export default defineEventHandler(async event => {
  const { arrivals } = await useTrough()
  const { items, total } = await arrivals.list(parseQuery(event, arrivalQuerySchema))
  return { items: await arrivalsFor(event, items), total }
})
