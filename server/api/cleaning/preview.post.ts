import { defineEventHandler } from 'h3'
import { cleaningSchema } from '../../../core/trust/trustReports'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** What cleaning by some rules would free now; nothing is changed. */
export default defineEventHandler(async event => (await useTrough()).cleaner.preview(await parseBody(event, cleaningSchema)))
