import { defineEventHandler, sendNoContent } from 'h3'
import { removeEntriesSchema } from '../../../../../core/catalogue/entry'
import { MANY, idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

export default defineEventHandler(async event => {
  const { ids, despite } = await parseBody(event, removeEntriesSchema, { most: MANY })
  await (await useTrough()).entries.remove(idOf(event), ids, { despite })
  return sendNoContent(event)
})
