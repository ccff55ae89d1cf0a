import { defineEventHandler, sendNoContent } from 'h3'
import { entryIdsSchema } from '../../../../../core/catalogue/entry'
import { MANY, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

export default defineEventHandler(async event => {
  const { ids } = await parseBody(event, entryIdsSchema, { most: MANY })
  await (await useTrough()).entries.remove(idOf(event), ids)
  return sendNoContent(event)
})
