import { defineEventHandler, sendNoContent } from 'h3'
import { dropAddressSchema } from '../../../core/oldAddresses/oldAddressItem'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Forgets an old address. */
export default defineEventHandler(async event => {
  await (await useTrough()).oldAddresses.forget(parseQuery(event, dropAddressSchema).path)
  return sendNoContent(event)
})
