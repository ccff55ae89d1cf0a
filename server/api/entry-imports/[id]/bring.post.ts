import { defineEventHandler } from 'h3'
import { importPlanSchema } from '../../../../core/catalogue/import'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Brings a table in; goes on after the request. */
export default defineEventHandler(async event =>
  (await useTrough()).importing.bring(idOf(event), await parseBody(event, importPlanSchema), (await accessOf(event)).by),
)
