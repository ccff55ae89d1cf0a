import { defineEventHandler, sendNoContent } from 'h3'
import { takeBackSchema } from '../../../core/walk/finding'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Takes a replacement back. */
export default defineEventHandler(async event => {
  await (await useTrough()).replacing.takeBack((await parseBody(event, takeBackSchema)).undo)
  return sendNoContent(event)
})
