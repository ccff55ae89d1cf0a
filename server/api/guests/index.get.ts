import { defineEventHandler } from 'h3'
import { guestQuerySchema } from '../../../core/guests/guest'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).guests.list(parseQuery(event, guestQuerySchema)))
