import { defineEventHandler } from 'h3'
import { bringAddressesSchema } from '../../../core/oldAddresses/oldAddressItem'
import { TEXT, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Takes in a list of addresses the site had before. */
export default defineEventHandler(async event =>
  (await useTrough()).oldAddresses.bring((await parseBody(event, bringAddressesSchema, { most: TEXT })).text),
)
