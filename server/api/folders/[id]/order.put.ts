import { defineEventHandler } from 'h3'
import { orderSchema } from '../../../../core/files/selection'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** The order of a folder's files, as its owner wants it. */
export default defineEventHandler(async (event) => {
  await (await useTrough()).library.order(idOf(event), (await parseBody(event, orderSchema)).files)
  return {}
})
