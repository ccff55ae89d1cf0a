import { defineEventHandler } from 'h3'
import { selectionSchema } from '../../../../core/files/selection'
import { accessOf } from '../../../utils/access'
import { MANY, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Lays out a zip of a selection; its address is good for an hour. */
export default defineEventHandler(async event => {
  const selection = await parseBody(event, selectionSchema, { most: MANY })
  await (await accessOf(event)).mustSee(selection)
  return (await useTrough()).zipping.prepare(selection)
})
