import { defineEventHandler } from 'h3'
import { saveDraftSchema } from '../../../../core/page/pageItem'
import { DOCUMENT, idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).pages.saveDraft(idOf(event), await parseBody(event, saveDraftSchema, { most: DOCUMENT })),
)
