import { defineEventHandler, sendNoContent } from 'h3'
import { editionChangeSchema } from '../../../../../../core/files/fileItem'
import { editionOf, parseBody } from '../../../../../utils/request'
import { useTrough } from '../../../../../utils/trough'

/** Changes what is said of an edition, and whether visitors get it. */
export default defineEventHandler(async event => {
  const { id, number } = editionOf(event)
  await (await useTrough()).editions.change(id, number, await parseBody(event, editionChangeSchema))
  return sendNoContent(event)
})
