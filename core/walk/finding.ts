import { z } from 'zod'
import { countedSchema } from '../counted'
import { overridesSchema } from '../look/appearance'
import { TONES } from '../look/palette'
import { pagePartSchema } from '../page/edges'
import { placementIdSchema, targetSchema } from '../page/schema'

/** What a finding costs visitors, the dearest first. */
export const COSTS = ['blocked', 'misled', 'hard', 'tidy'] as const
export const costSchema = z.enum(COSTS)
export type Cost = z.infer<typeof costSchema>

/** The one act that mends a finding. */
const actOfMendSchema = z.discriminatedUnion('kind', [
  /** other words on a button or card, in a link, or for those who do not see a picture */
  z.object({ kind: z.literal('words'), placement: z.string(), words: z.string() }),
  z.object({ kind: z.literal('note'), placement: z.string(), note: z.string() }),
  z.object({ kind: z.literal('alt'), placement: z.string(), alt: z.string() }),
  z.object({ kind: z.literal('target'), placement: z.string(), target: targetSchema }),
  z.object({ kind: z.literal('appearance'), placement: z.string(), change: overridesSchema }),
  /** taken off; or what has this identity taken from it, where it has more */
  z.object({ kind: z.literal('off'), placement: z.string(), id: z.string().optional() }),
  /** the level of the heading that is so many-th on its page */
  z.object({ kind: z.literal('level'), heading: z.number(), level: z.literal([2, 3, 4]) }),
  z.object({ kind: z.literal('rename'), file: z.string(), fileName: z.string() }),
  z.object({ kind: z.literal('restore'), file: z.string() }),
  z.object({ kind: z.literal('edition'), file: z.string(), number: countedSchema }),
  z.object({ kind: z.literal('publish'), page: z.string() }),
])
export type Mend = z.infer<typeof actOfMendSchema>

/** Mends that change a page; the others change the library or the site. */
export type PageMend = Exclude<Mend, { kind: 'rename' | 'restore' | 'edition' | 'publish' }>

/** How a button looks where something was found of it. */
const drawnSchema = z.object({
  look: z.string(),
  own: overridesSchema.nullable().optional(),
  /** the background it stands on */ tone: z.enum(TONES),
})
export type Drawn = z.infer<typeof drawnSchema>

/** What one check found at one place. */
const foundSchema = z.object({
  /** the button, link, card, picture or shelf; none where it is about a heading */
  placement: z.string().optional(),
  /** what visitors read there */
  label: z.string(),
  /** what is wrong, a sentence */
  words: z.string(),
  /** tells it from what the same check finds at the same place when things have changed */
  detail: z.string(),
  mend: actOfMendSchema.optional(),
  /** what the act that mends it is called */
  act: z.string().optional(),
})
export type Found = z.infer<typeof foundSchema>

/** A finding as the checks board shows it. */
const findingSchema = foundSchema.extend({
  /** the same for as long as it is the same fault */
  key: z.string(),
  check: z.string(),
  cost: costSchema,
  /** of a button or card */
  drawn: drawnSchema.optional(),
  page: z.object({ id: z.string(), title: z.string(), edge: pagePartSchema.nullable() }),
  /** only in the draft: visitors do not see it yet */
  draftOnly: z.boolean(),
  /** why the owner leaves it */
  left: z.string().nullable(),
})
export type Finding = z.infer<typeof findingSchema>

/** How a check is shown: what its findings have in common, and why that matters. */
const checkWordsSchema = z.object({
  name: z.string(),
  cost: costSchema,
  title: z.string(),
  why: z.string(),
})
export type CheckWords = z.infer<typeof checkWordsSchema>

/** How a walk went. */
const walkSummarySchema = z.object({
  /** ISO 8601 */
  at: z.string(),
  /** live pages and placements on them */
  pages: z.number(),
  placements: z.number(),
  /** findings that visitors meet and that are not left, by what they cost */
  counts: z.record(costSchema, z.number()),
})
export type WalkSummary = z.infer<typeof walkSummarySchema>

/** All that the checks board shows. */
export const walkStateSchema = walkSummarySchema.extend({
  findings: z.array(findingSchema),
  checks: z.array(checkWordsSchema),
  /** addresses elsewhere are asked, too */
  outside: z.boolean(),
  /** earlier walks, the oldest first */
  earlier: z.array(walkSummarySchema),
})
export type WalkState = z.infer<typeof walkStateSchema>

export const mendSchema = z.object({ keys: z.array(z.string().max(200)).min(1).max(1000) })
/** Buttons and links with the words they shall have from now on. */
export const rewordSchema = z.object({
  labels: z
    .array(z.object({ page: z.string().max(40), placement: placementIdSchema, words: z.string().min(1).max(200) }))
    .min(1)
    .max(1000),
})
export type Reworded = z.infer<typeof rewordSchema>['labels'][number]
export const leaveSchema = z.object({
  key: z.string().max(200),
  because: z.string().trim().min(1, 'Say why it may stay.').max(300, 'Keep the reason to 300 characters.'),
})
export const takeUpSchema = z.object({ key: z.string().max(200) })
export const outsideSchema = z.object({ on: z.boolean() })
export const takeBackSchema = z.object({ undo: z.string().max(40) })
