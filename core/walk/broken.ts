import { placementsOf, type Placement } from '../page/targets'
import type { PageDocument, Target } from '../page/schema'

/** Why a placement gives visitors nothing. */
export type Fault = 'no-target' | 'in-bin'

export interface BrokenPlacement {
  placement: Pick<Placement, 'id' | 'kind' | 'label'>
  fault: Fault
}

/** The placements of a document that lead nowhere, given which targets visitors can reach. */
export function brokenPlacements(document: PageDocument, reachable: (target: Target) => boolean): BrokenPlacement[] {
  return placementsOf(document).flatMap(({ id, kind, label, target }): BrokenPlacement[] => {
    const placement = { id, kind, label }
    if (!target) return [{ placement, fault: 'no-target' }]
    return reachable(target) ? [] : [{ placement, fault: 'in-bin' }]
  })
}
