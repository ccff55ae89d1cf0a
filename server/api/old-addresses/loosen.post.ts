import { defineEventHandler, sendNoContent } from 'h3'
import { loosenAddressesSchema } from '../../../core/oldAddresses/oldAddressItem'
import { MANY, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Leads some old addresses to nothing again. */
export default defineEventHandler(async event => {
  await (await useTrough()).oldAddresses.loosen((await parseBody(event, loosenAddressesSchema, { most: MANY })).paths)
  return sendNoContent(event)
})
