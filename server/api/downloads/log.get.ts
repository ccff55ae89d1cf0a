import { defineEventHandler } from 'h3'
import { logQuerySchema } from '../../../core/tally/board'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Single downloads of a span of time, the newest first. */
export default defineEventHandler(async event => (await useTrough()).downloads.log(parseQuery(event, logQuerySchema)))
