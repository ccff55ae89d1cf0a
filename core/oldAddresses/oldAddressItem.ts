import { z } from 'zod'
import { targetSchema } from '../page/schema'
import { suggestionSchema } from './suggest'

/** An address the site had before, as the desk's API gives it. */
export const oldAddressSchema = z.object({
  path: z.string(),
  /** what took its place; null as long as nothing has */
  target: targetSchema.nullable(),
  /** what that is called; empty where it is gone */
  title: z.string(),
  /** how often it was asked for while nothing had taken its place */
  missed: z.number(),
  /** ISO 8601; null where it was not */
  lastMissed: z.string().nullable(),
  suggestion: suggestionSchema.nullable(),
})
export type OldAddress = z.infer<typeof oldAddressSchema>

export const oldAddressListSchema = z.object({
  items: z.array(oldAddressSchema),
  total: z.number(),
  /** of all */ open: z.number(),
  /** open ones that were asked for */ missed: z.number(),
  led: z.number(),
})
export type OldAddressList = z.infer<typeof oldAddressListSchema>

export const oldAddressQuerySchema = z.object({
  show: z.enum(['open', 'led']).default('open'),
  q: z.string().max(200).default(''),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
})
export type OldAddressQuery = z.infer<typeof oldAddressQuerySchema>

/** More would not come in with one request. */
export const bringAddressesSchema = z.object({
  text: z.string().regex(/\S/, 'The list is empty.').max(8_000_000, 'Keep a list to 8 MB; bring in several.'),
})
const pathSchema = z.string().startsWith('/').max(2000)
/** Old addresses lead to what has an identity here: what is elsewhere could not be followed when it moves. */
export const leadAddressSchema = z.object({
  path: pathSchema,
  target: targetSchema.refine(target => 'id' in target, 'Choose a file, a page or a signpost.').nullable(),
})
export const loosenAddressesSchema = z.object({ paths: z.array(pathSchema).max(100_000) })
export const dropAddressSchema = z.object({ path: pathSchema })
