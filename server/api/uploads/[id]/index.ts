import { defineEventHandler } from 'h3'
import { accountOf } from '../../../utils/session'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event =>
  (await useTrough()).uploads.handle(event.node.req, event.node.res, (await accountOf(event))?.email),
)
