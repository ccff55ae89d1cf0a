import { defineEventHandler } from 'h3'
import { importPlanSchema } from '../../../../core/catalogue/import'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** What would come of a table. */
export default defineEventHandler(async event =>
  (await useTrough()).importing.forecast(idOf(event), await parseBody(event, importPlanSchema)),
)
