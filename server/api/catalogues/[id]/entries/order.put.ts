import { defineEventHandler, sendNoContent } from 'h3'
import { entryOrderSchema } from '../../../../../core/catalogue/entry'
import { MANY, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

export default defineEventHandler(async event => {
  const { ids } = await parseBody(event, entryOrderSchema, { most: MANY })
  await (await useTrough()).entries.order(idOf(event), ids)
  return sendNoContent(event)
})
