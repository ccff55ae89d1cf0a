import { defineEventHandler } from 'h3'
import { cleaningSchema } from '../../../core/trust/trustReports'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).cleaner.setRules(await parseBody(event, cleaningSchema)))
