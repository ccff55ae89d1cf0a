import { defineEventHandler } from 'h3'
import { messageQuerySchema } from '../../../core/outbox/message'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Every message, the newest first. */
export default defineEventHandler(async event => (await useTrough()).outbox.list(parseQuery(event, messageQuerySchema)))
