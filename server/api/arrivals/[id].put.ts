import { defineEventHandler } from 'h3'
import { arrivalChangeSchema } from '../../../core/letterbox/arrival'
import { accessOf } from '../../utils/access'
import { arrivalsFor } from '../../utils/arrivals'
import { idOf, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Somebody has done with it, or has not after all. */
export default defineEventHandler(async event => {
  const { away } = await parseBody(event, arrivalChangeSchema)
  const { by } = await accessOf(event)
  return (await arrivalsFor(event, [await (await useTrough()).arrivals.putAway(idOf(event), away, by)]))[0]
})
