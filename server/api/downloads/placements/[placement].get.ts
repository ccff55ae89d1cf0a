import { defineEventHandler, getRouterParam } from 'h3'
import { placementIdSchema } from '../../../../core/page/schema'
import { parse } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A button, link or shelf alone, as visitors see it; null where none of them does. */
export default defineEventHandler(async event => {
  const placement = parse(placementIdSchema, getRouterParam(event, 'placement'))
  return { html: (await (await useTrough()).published.placement(placement)) ?? null }
})
