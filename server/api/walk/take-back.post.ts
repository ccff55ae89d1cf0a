import { defineEventHandler } from 'h3'
import { takeBackSchema } from '../../../core/walk/finding'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Takes a mending back. */
export default defineEventHandler(async event => {
  await (await useTrough()).mending.takeBack((await parseBody(event, takeBackSchema)).undo)
  return null
})
