import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A zip that was prepared, with ranges: a download that broke off goes on. */
export default defineEventHandler(async event => {
  const { zipping, delivery } = await useTrough()
  await delivery.showZip(event.node.req, event.node.res, zipping.open(idOf(event)))
})
