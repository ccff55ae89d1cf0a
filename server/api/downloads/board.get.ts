import { defineEventHandler } from 'h3'
import { boardQuerySchema } from '../../../core/tally/board'
import { accessOf } from '../../utils/access'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** What was taken in a span of time, in bars and by one list. */
export default defineEventHandler(async event => {
  const people = (await accessOf(event)).may('contacts')
  return (await useTrough()).downloads.board(parseQuery(event, boardQuerySchema), { people })
})
