import { z } from 'zod'
import { MOST_ADDRESS_DAYS } from '../site/siteForm'

/** What this site keeps of its visitors, as it is set up. */
export const keptSchema = z.object({
  /** from which countries files are taken */
  countries: z.boolean(),
  /** days for which addresses of networks are kept with downloads; 0 for not at all */
  addressDays: z.number().int().min(0).max(MOST_ADDRESS_DAYS),
  /** some files or pages ask before they are given */
  gates: z.boolean(),
  /** some of them ask who it is */
  people: z.boolean(),
  /** visitors hand files in */
  letterbox: z.boolean(),
  /** days after which whoever was not heard of is erased; null for never by itself */
  peopleDays: z.number().int().nullable(),
})
export type Kept = z.infer<typeof keptSchema>

/** A site that keeps as little as any. */
export const KEEPS_LITTLE: Kept = { countries: false, addressDays: 0, gates: false, people: false, letterbox: false, peopleDays: null }
