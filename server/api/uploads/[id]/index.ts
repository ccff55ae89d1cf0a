import { defineEventHandler } from 'h3'
import { accessOf } from '../../../utils/access'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => (await useTrough()).uploads.handle(event.node.req, event.node.res, await accessOf(event)))
