import { z } from 'zod'
import { targetSchema, type Target } from '../page/schema'
import type { Suggestion } from './suggest'

/** An address the site had before, as the desk's API gives it. */
export interface OldAddress {
  path: string
  /** what took its place; null as long as nothing has */
  target: Target | null
  /** what that is called; empty where it is gone */
  title: string
  /** how often it was asked for while nothing had taken its place */
  missed: number
  /** ISO 8601; null where it was not */
  lastMissed: string | null
  suggestion: Suggestion | null
}

export interface OldAddressList {
  items: OldAddress[]
  total: number
  /** of all */ open: number
  /** open ones that were asked for */ missed: number
  led: number
}

export const oldAddressQuerySchema = z.object({
  show: z.enum(['open', 'led']).default('open'),
  q: z.string().max(200).default(''),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(100),
})
export type OldAddressQuery = z.infer<typeof oldAddressQuerySchema>

/** More would not come in with one request. */
export const bringAddressesSchema = z.object({
  text: z.string().min(1, 'The list is empty.').max(8_000_000, 'Keep a list to 8 MB; bring in several.'),
})
const pathSchema = z.string().startsWith('/').max(2000)
/** Old addresses lead to what has an identity here: what is elsewhere could not be followed when it moves. */
export const leadAddressSchema = z.object({
  path: pathSchema,
  target: targetSchema.refine(target => 'id' in target, 'Choose a file, a page or a signpost.').nullable(),
})
export const loosenAddressesSchema = z.object({ paths: z.array(pathSchema).max(100_000) })
export const dropAddressSchema = z.object({ path: pathSchema })
