import { defineEventHandler } from 'h3'
import { viewSchema } from '../../../core/tally/board'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** What visitors wanted in a span of time and did not get. */
export default defineEventHandler(async event => (await useTrough()).downloads.misses(parseQuery(event, viewSchema)))
