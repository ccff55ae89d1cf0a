import { defineEventHandler } from 'h3'
import { testMailSchema } from '../../../core/outbox/mailSettings'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

/** Sends somebody a message at once, and tells what the mail service said. */
export default defineEventHandler(async event => {
  const { to } = await parseBody(event, testMailSchema)
  return { refusal: await (await useTrough()).outbox.test(to) }
})
