import { defineEventHandler } from 'h3'
import { orderSchema } from '../../../../core/files/selection'
import { MANY, idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The order of a folder's files, as its owner wants it. */
export default defineEventHandler(async event => {
  await (await useTrough()).library.order(idOf(event), (await parseBody(event, orderSchema, { most: MANY })).files)
  return {}
})
