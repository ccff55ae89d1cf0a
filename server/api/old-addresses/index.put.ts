import { defineEventHandler, sendNoContent } from 'h3'
import { leadAddressSchema } from '../../../core/oldAddresses/oldAddressItem'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Leads an old address to something, or to nothing again. */
export default defineEventHandler(async event => {
  const { path, target } = await parseBody(event, leadAddressSchema)
  await (await useTrough()).oldAddresses.lead(path, target)
  return sendNoContent(event)
})
