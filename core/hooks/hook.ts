import { z } from 'zod'

/** What other services can be told of. */
export const HOOK_EVENTS = ['contact.left', 'file.downloaded'] as const
export type HookEvent = (typeof HOOK_EVENTS)[number]
/** Told on request alone, so that it can be seen whether anything arrives. */
export const TRIAL = 'trial'

const isWebAddress = (text: string) => URL.canParse(text) && /^https?:$/.test(new URL(text).protocol)
const addressSchema = z.string().trim().max(2000).refine(isWebAddress, 'Give the whole address, such as https://service.example/hook.')

/** Another service that is told, as the desk's API gives it. */
export const hookItemSchema = z.object({
  id: z.string(),
  address: z.string(),
  events: z.array(z.enum(HOOK_EVENTS)),
  /** it is told; a service that says it is gone is not told any more */
  on: z.boolean(),
  /** what is still to be told, and what could not be */
  waiting: z.number(),
  failed: z.number(),
  /** ISO 8601 */
  created: z.string(),
})
export type HookItem = z.infer<typeof hookItemSchema>

/** With the secret its messages are signed with: told when it is made, and not again. */
export const madeHookSchema = hookItemSchema.extend({ secret: z.string() })
export type MadeHook = z.infer<typeof madeHookSchema>

const eventsSchema = z
  .array(z.enum(HOOK_EVENTS))
  .min(1, 'Choose what it is told of.')
  .transform(events => [...new Set(events)])
export const newHookSchema = z.object({ address: addressSchema, events: eventsSchema })
export type NewHook = z.infer<typeof newHookSchema>
export const hookChangeSchema = z.object({ address: addressSchema, events: eventsSchema, on: z.boolean() }).partial()
export type HookChange = z.infer<typeof hookChangeSchema>

export const HOOK_STATES = ['waiting', 'sent', 'failed'] as const
export type HookState = (typeof HOOK_STATES)[number]

/** One thing that was told, or is to be. */
export const hookMessageSchema = z.object({
  id: z.string(),
  event: z.string(),
  body: z.string(),
  state: z.enum(HOOK_STATES),
  tries: z.number(),
  /** what went wrong when it was tried last; null where nothing did */
  error: z.string().nullable(),
  /** ISO 8601 */
  created: z.string(),
  /** when it is tried next; null where it is not */
  next: z.string().nullable(),
})
export type HookMessage = z.infer<typeof hookMessageSchema>
