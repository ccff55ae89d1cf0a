import { defineEventHandler } from 'h3'
import { logQuerySchema } from '../../../core/tally/board'
import { accessOf } from '../../utils/access'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Single downloads of a span of time, the newest first. */
export default defineEventHandler(async event => {
  const people = (await accessOf(event)).may('contacts')
  return (await useTrough()).downloads.log(parseQuery(event, logQuerySchema), { people })
})
