import { defineEventHandler, sendNoContent } from 'h3'
import { restoreFieldSchema } from '../../../../../core/catalogue/catalogue'
import { idOf, parseBody } from '../../../../utils/request'
import { useTrough } from '../../../../utils/trough'

/** Takes a field out of the bin, with what entries had in it. */
export default defineEventHandler(async event => {
  const { field } = await parseBody(event, restoreFieldSchema)
  await (await useTrough()).fieldBin.restore(idOf(event), field)
  return sendNoContent(event)
})
