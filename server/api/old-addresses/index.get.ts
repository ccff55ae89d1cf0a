import { defineEventHandler } from 'h3'
import { oldAddressQuerySchema } from '../../../core/oldAddresses/oldAddressItem'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).oldAddresses.list(parseQuery(event, oldAddressQuerySchema)))
