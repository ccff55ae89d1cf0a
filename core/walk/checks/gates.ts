import type { Target } from '../../page/schema'
import { at, type Check } from '../check'
import type { WalkFacts } from '../facts'
import type { Seen } from '../seen'

/** What a button leads to in the end: of a signpost, what that points at. */
function thingOf({ target, file }: Pick<Seen, 'target' | 'file'>): { kind: 'file' | 'page'; id: string } | undefined {
  return file ? { kind: 'file', id: file.id } : target.kind === 'page' ? { kind: 'page', id: target.id } : undefined
}

/** The gate a placement leads behind. */
export const gateBehind = (facts: Pick<WalkFacts, 'gate'>, seen: { target: Target; file: Seen['file'] }) => {
  const thing = thingOf(seen)
  return thing && facts.gate(thing)
}

/** Placements that lead behind a gate nobody gets through, or to what nobody shall know of. */
export const gates: Check = {
  name: 'gates',
  cost: 'blocked',
  title: 'Behind a gate nobody passes',
  why: 'Visitors are asked for something and never get what they came for, or do not see the button at all.',
  look: (facts, seen) =>
    seen.flatMap(one => {
      const gate = gateBehind(facts, one)
      if (!gate) return []
      if (gate.closed) return [at(one, { words: `It leads behind the gate “${gate.name}”. ${gate.closed}`, detail: `${gate.name} closed` })]
      // On the page itself it would be seen by those who have passed the same gate.
      if (gate.hidden && facts.ownGate !== gate.id)
        return [
          at(one, {
            words: `What it leads to is hidden behind the gate “${gate.name}”: visitors do not see this ${one.kind}.`,
            detail: `${gate.name} hidden`,
          }),
        ]
      return []
    }),
}

/** Items of the menu that lead behind a gate. */
export const gatedMenu: Check = {
  name: 'gated-menu',
  cost: 'hard',
  title: 'In the menu, and not for everyone',
  why: 'Whoever presses it on any page is asked for something, mostly without expecting it.',
  look: (facts, seen) =>
    facts.edge
      ? seen.flatMap(one => {
          const gate = one.target.kind === 'page' ? gateBehind(facts, one) : undefined
          return gate && !gate.closed && !gate.hidden
            ? [at(one, { words: `The page “${one.destination.title}” stands behind the gate “${gate.name}”.`, detail: gate.name })]
            : []
        })
      : [],
}
