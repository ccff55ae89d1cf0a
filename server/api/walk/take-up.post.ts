import { defineEventHandler } from 'h3'
import { takeUpSchema } from '../../../core/walk/finding'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Shows a finding again that was left. */
export default defineEventHandler(async event => {
  await (await useTrough()).walk.takeUp((await parseBody(event, takeUpSchema)).key)
  return null
})
