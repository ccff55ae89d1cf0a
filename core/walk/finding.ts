import { z } from 'zod'
import type { Overrides } from '../look/appearance'
import type { Tone } from '../look/palette'
import type { Edge } from '../page/edges'
import type { Target } from '../page/schema'

/** What a finding costs visitors, the dearest first. */
export const COSTS = ['blocked', 'misled', 'hard', 'tidy'] as const
export type Cost = (typeof COSTS)[number]

/** The one act that mends a finding. */
export type Mend =
  /** other words on a button or card, in a link, or for those who do not see a picture */
  | { kind: 'words'; placement: string; words: string }
  | { kind: 'note'; placement: string; note: string }
  | { kind: 'alt'; placement: string; alt: string }
  | { kind: 'target'; placement: string; target: Target }
  | { kind: 'appearance'; placement: string; change: Overrides }
  /** taken off; or what has this identity taken from it, where it has more */
  | { kind: 'off'; placement: string; id?: string }
  /** the level of the heading that is so many-th on its page */
  | { kind: 'level'; heading: number; level: 2 | 3 | 4 }
  | { kind: 'rename'; file: string; fileName: string }
  | { kind: 'restore'; file: string }
  | { kind: 'edition'; file: string; number: number }
  | { kind: 'publish'; page: string }

/** Mends that change a page; the others change the library or the site. */
export type PageMend = Exclude<Mend, { kind: 'rename' | 'restore' | 'edition' | 'publish' }>

/** How a button looks where something was found of it. */
export interface Drawn {
  look: string
  own?: Overrides | null
  /** the background it stands on */ tone: Tone
}

/** What one check found at one place. */
export interface Found {
  /** the button, link, card, picture or shelf; none where it is about a heading */
  placement?: string
  /** what visitors read there */
  label: string
  /** what is wrong, a sentence */
  words: string
  /** tells it from what the same check finds at the same place when things have changed */
  detail: string
  mend?: Mend
  /** what the act that mends it is called */
  act?: string
}

/** A finding as the checks board shows it. */
export interface Finding extends Found {
  /** the same for as long as it is the same fault */
  key: string
  check: string
  cost: Cost
  /** of a button or card */
  drawn?: Drawn
  page: { id: string; title: string; edge: Edge | null }
  /** only in the draft: visitors do not see it yet */
  draftOnly: boolean
  /** why the owner leaves it */
  left: string | null
}

/** How a check is shown: what its findings have in common, and why that matters. */
export interface CheckWords {
  name: string
  cost: Cost
  title: string
  why: string
}

/** How a walk went. */
export interface WalkSummary {
  /** ISO 8601 */
  at: string
  /** live pages and placements on them */
  pages: number
  placements: number
  /** findings that visitors meet and that are not left, by what they cost */
  counts: Record<Cost, number>
}

/** All that the checks board shows. */
export interface WalkState extends WalkSummary {
  findings: Finding[]
  checks: CheckWords[]
  /** addresses elsewhere are asked, too */
  outside: boolean
  /** earlier walks, the oldest first */
  earlier: WalkSummary[]
}

export const mendSchema = z.object({ keys: z.array(z.string().max(200)).min(1).max(1000) })
export const leaveSchema = z.object({
  key: z.string().max(200),
  because: z.string().trim().min(1, 'Say why it may stay.').max(300, 'Keep the reason to 300 characters.'),
})
export const takeUpSchema = z.object({ key: z.string().max(200) })
export const outsideSchema = z.object({ on: z.boolean() })
export const takeBackSchema = z.object({ undo: z.string().max(40) })
