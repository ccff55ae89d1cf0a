import { defineEventHandler } from 'h3'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Stops a job, or forgets one that has ended. */
export default defineEventHandler(async event => {
  await (await useTrough()).jobs.stop(idOf(event))
  return {}
})
