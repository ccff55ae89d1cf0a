import { z } from 'zod'

/**
 * What is counted by day besides downloads:
 *
 * - `seen`: a page by visitors; `looked`: a file, on the page that shows what is in it
 * - `robot`: a file taken whole by a robot
 * - `bundled`: a file taken as part of a bundle; the detail is the bundle
 * - `broken`: a file of which somebody has had a part and no more for a day; the detail is the tenth they came to
 * - `stopped`: a file or page that somebody came to a gate for; the detail is the gate
 * - `missing`: an address at which there is nothing; the detail is where it was followed
 * - `unfound`: words that visitors looked for in vain
 * - `failed`: an address at which something went wrong here
 */
export const OCCASIONS = ['seen', 'looked', 'robot', 'bundled', 'broken', 'stopped', 'missing', 'unfound', 'failed'] as const
export type Occasion = (typeof OCCASIONS)[number]

/** Of these anybody may write what is counted, so that there may be any number of them. */
export const WRITTEN_BY_VISITORS: ReadonlySet<Occasion> = new Set(['missing', 'unfound', 'failed'])

/** What happened, as it is counted. */
export interface Happened {
  what: Occasion
  /** identity, address or words */
  of: string
  detail: string
}

const LONGEST = 300
/** Text as it may be kept: of a length, and without what no text of a database may hold. */
export const keptText = (text: string): string =>
  text
    .replace(/\p{Cc}+/gu, ' ')
    .trim()
    .slice(0, LONGEST)

/** Words that were looked for, as they are counted: letters are one, however they were typed. */
export const keptWords = (words: string): string => keptText(words.normalize('NFC').toLowerCase().replace(/\s+/g, ' ')).slice(0, 100)

/**
 * The tenth of a whole that a broken download came to, 0 to 9.
 *
 * @param have bytes that were had
 */
export const tenthOf = (have: number, size: number): number => (size > 0 ? Math.min(9, Math.floor((have / size) * 10)) : 0)

const rowSchema = z.object({ key: z.string(), count: z.number() })

export const missesSchema = z.object({
  broken: z.array(rowSchema.extend({ /** how many came to each tenth and no further */ tenths: z.array(z.number()) })),
  stopped: z.array(rowSchema.extend({ /** what was taken of it in the same time */ taken: z.number(), gates: z.array(z.string()) })),
  missing: z.array(rowSchema.extend({ from: z.array(rowSchema) })),
  unfound: z.array(rowSchema),
  failed: z.array(rowSchema),
  /** by identity */
  names: z.record(z.string(), z.object({ title: z.string(), place: z.string().nullable() })),
})
export type Misses = z.infer<typeof missesSchema>
