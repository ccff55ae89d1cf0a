import type { CheckWords, Found } from './finding'
import type { WalkFacts } from './facts'
import type { Seen } from './seen'

/** One thing the walk looks for; pure, over facts that were gathered once. */
export interface Check extends CheckWords {
  /** @param seen all buttons, cards and links that lead somewhere */
  look: (facts: WalkFacts, seen: Seen[]) => Found[]
}

/** What a finding says of a button, card or link. */
export const at = ({ placement, words }: Seen, found: Omit<Found, 'placement' | 'label'>): Found => ({ placement, label: words, ...found })
