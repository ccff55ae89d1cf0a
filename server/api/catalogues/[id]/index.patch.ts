import { defineEventHandler } from 'h3'
import { catalogueChangeSchema } from '../../../../core/catalogue/catalogue'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).catalogues.change(idOf(event), await parseBody(event, catalogueChangeSchema)),
)
