import { defineEventHandler } from 'h3'
import { selectionSchema } from '../../../../core/files/selection'
import { accessOf } from '../../../utils/access'
import { seenBundle } from '../../../utils/bundle'
import { MANY, idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Puts files and folders into a bundle. */
export default defineEventHandler(async event => {
  const selection = await parseBody(event, selectionSchema, { most: MANY })
  await seenBundle(event, idOf(event))
  await (await accessOf(event)).mustSee(selection)
  return (await useTrough()).bundles.add(idOf(event), selection)
})
