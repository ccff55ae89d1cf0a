import { defineEventHandler } from 'h3'
import { mailSettingsSchema } from '../../../core/outbox/mailSettings'
import { SECRET, parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { outbox } = await useTrough()
  await outbox.set(await parseBody(event, mailSettingsSchema, { most: SECRET }))
  return outbox.state()
})
