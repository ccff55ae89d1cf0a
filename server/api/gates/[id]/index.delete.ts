import { defineEventHandler, sendNoContent } from 'h3'
import { removeGateSchema } from '../../../../core/gate/gate'
import { idOf, parseQuery } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Takes a gate away; what stands behind it holds that back, unless it shall be open. */
export default defineEventHandler(async event => {
  const { open } = parseQuery(event, removeGateSchema)
  await (await useTrough()).gates.remove(idOf(event), open)
  return sendNoContent(event)
})
