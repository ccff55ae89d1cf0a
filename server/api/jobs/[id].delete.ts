import { defineEventHandler } from 'h3'
import { notFound } from '../../../core/problem'
import { accessOf } from '../../utils/access'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Stops a job, or forgets one that has ended. */
export default defineEventHandler(async event => {
  const { jobs } = await useTrough()
  if (!(await accessOf(event)).isOwn(jobs.get(idOf(event)))) throw notFound('job')
  await jobs.stop(idOf(event))
  return {}
})
