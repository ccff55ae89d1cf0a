import { idOf, placementsOf } from '../../page/targets'
import type { Reference } from '../../page/schema'
import { brokenPlacements } from '../broken'
import type { Check } from '../check'
import type { Found, Mend } from '../finding'
import type { WalkFacts } from '../facts'

const KIND_WORDS = { button: 'button', link: 'link', shelf: 'shelf', card: 'card', picture: 'picture', list: 'list' }

function mendOf(
  missing: Reference | undefined,
  placement: string,
  words: string,
  { away, fallback, namesake }: WalkFacts,
): { mend: Mend; act: string } {
  if (missing?.kind === 'catalogue') return { mend: { kind: 'off', placement }, act: 'Take it off' }
  const name = missing && away(missing)
  const earlier = missing?.kind === 'file' ? fallback(missing.id) : undefined
  if (missing?.kind === 'file' && earlier !== undefined)
    return { mend: { kind: 'edition', file: missing.id, number: earlier }, act: `Give out edition ${earlier} instead` }
  if (missing?.kind === 'file' && name) return { mend: { kind: 'restore', file: missing.id }, act: `Bring “${name}” back` }
  if (missing?.kind === 'page' && name) return { mend: { kind: 'publish', page: missing.id }, act: `Publish “${name}”` }
  const file = missing?.kind === 'folder' ? undefined : namesake(words)
  if (file) return { mend: { kind: 'target', placement, target: { kind: 'file', id: file.id } }, act: `Lead it to “${file.title}”` }
  return { mend: { kind: 'off', placement, ...(missing && { id: idOf(missing) }) }, act: 'Take it off' }
}

const FAULT_WORDS = {
  'no-target': 'leads nowhere',
  'in-bin': 'leads to a file or folder that is withdrawn, in the bin or gone',
  'not-live': 'leads to a page that is not live',
  'points-nowhere': 'leads to a signpost that points at nothing',
}

/** Placements without a target, or with one that visitors cannot reach. */
export const leadsNowhere: Check = {
  name: 'nowhere',
  cost: 'blocked',
  title: 'Leads nowhere',
  why: 'Visitors do not see it at all, and what they came for is not there.',
  look(facts) {
    const placements = new Map(placementsOf(facts.document).map(placement => [placement.id, placement]))
    return brokenPlacements(facts.document, facts.reachable).map(({ placement, fault }): Found => {
      const missing = placements.get(placement.id)!.targets.find(target => !facts.reachable(target))
      return {
        placement: placement.id,
        label: placement.label,
        words:
          placement.kind === 'list'
            ? `This list is of ${missing ? 'a catalogue that is gone' : 'no catalogue yet'}.`
            : `This ${KIND_WORDS[placement.kind]} ${FAULT_WORDS[fault]}.`,
        detail: `${fault} ${idOf(missing) ?? ''}`,
        ...mendOf(missing, placement.id, placement.label, facts),
      }
    })
  },
}
