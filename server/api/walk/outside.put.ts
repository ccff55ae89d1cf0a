import { defineEventHandler, sendNoContent } from 'h3'
import { outsideSchema } from '../../../core/walk/finding'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Whether addresses elsewhere are asked, too; the next walk does it. */
export default defineEventHandler(async event => {
  await (await useTrough()).outside.switch((await parseBody(event, outsideSchema)).on)
  return sendNoContent(event)
})
