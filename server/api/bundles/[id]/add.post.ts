import { defineEventHandler } from 'h3'
import { selectionSchema } from '../../../../core/files/selection'
import { MANY, idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Puts files and folders into a bundle. */
export default defineEventHandler(async event =>
  (await useTrough()).bundles.add(idOf(event), await parseBody(event, selectionSchema, { most: MANY })),
)
