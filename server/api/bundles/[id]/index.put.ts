import { defineEventHandler } from 'h3'
import { broughtInto, bundleChangeSchema } from '../../../../core/bundle/bundleEntry'
import { accessOf } from '../../../utils/access'
import { seenBundle } from '../../../utils/bundle'
import { MANY, idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Composes a bundle anew. */
export default defineEventHandler(async event => {
  const change = await parseBody(event, bundleChangeSchema, { most: MANY })
  await seenBundle(event, idOf(event))
  await (await accessOf(event)).mustSee(broughtInto(change.entries))
  return (await useTrough()).bundles.change(idOf(event), change)
})
