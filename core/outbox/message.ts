import { z } from 'zod'

/**
 * Where a message is: `waiting` to be sent, `sending` just now, `sent`, `failed` for good; `unsure` where the process ended while it
 * was on its way, so that nobody knows and it is not sent twice.
 */
export const messageStateSchema = z.enum(['waiting', 'sending', 'sent', 'failed', 'unsure'])
export type MessageState = z.infer<typeof messageStateSchema>

/** A message as the desk's API lists it. */
export const messageItemSchema = z.object({
  id: z.string(),
  to: z.string(),
  subject: z.string(),
  state: messageStateSchema,
  tries: z.number(),
  /** what the mail service said */
  error: z.string().nullable(),
  /** ISO 8601 */
  created: z.string(),
  /** when it is tried next, where it waits */
  next: z.string().nullable(),
  sent: z.string().nullable(),
})
export type MessageItem = z.infer<typeof messageItemSchema>

export const messageQuerySchema = z.object({
  state: messageStateSchema.optional(),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})

/** The same with what its receiver reads. */
export const messageSchema = messageItemSchema.extend({ text: z.string(), html: z.string(), headers: z.record(z.string(), z.string()) })
export type Message = z.infer<typeof messageSchema>
