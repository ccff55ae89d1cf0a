import { defineEventHandler } from 'h3'
import { bundleChangeSchema } from '../../../../core/bundle/bundleEntry'
import { MANY, idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Composes a bundle anew. */
export default defineEventHandler(async event =>
  (await useTrough()).bundles.change(idOf(event), await parseBody(event, bundleChangeSchema, { most: MANY })),
)
