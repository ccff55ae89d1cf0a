import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A file's bytes for its owner: counted as nobody's download. */
export default defineEventHandler(async event => {
  const { library, delivery } = await useTrough()
  await delivery.show(event.node.req, event.node.res, (await library.get(idOf(event))).id)
})
