import { defineEventHandler, getRequestURL } from 'h3'
import { summaryFormSchema } from '../../../../core/tally/summary'
import { parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).summaries.set(await parseBody(event, summaryFormSchema), getRequestURL(event).origin),
)
