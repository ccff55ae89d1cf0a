import { defineEventHandler } from 'h3'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).uploads.handle(event.node.req, event.node.res))
