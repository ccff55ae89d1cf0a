import { placementsOf, type Placement } from '../page/targets'
import type { PageDocument, Reference } from '../page/schema'

/** Why a placement gives visitors nothing. */
export type Fault = 'no-target' | 'in-bin' | 'not-live' | 'points-nowhere'

export interface BrokenPlacement {
  placement: Pick<Placement, 'id' | 'kind' | 'label'>
  fault: Fault
}

const FAULTS: Partial<Record<Reference['kind'], Fault>> = { page: 'not-live', signpost: 'points-nowhere' }

/** The placements of a document that lead nowhere, given what of the library visitors can reach. */
export function brokenPlacements(document: PageDocument, reachable: (reference: Reference) => boolean): BrokenPlacement[] {
  return placementsOf(document).flatMap(({ id, kind, label, targets }): BrokenPlacement[] => {
    const placement = { id, kind, label }
    if (!targets.length) return [{ placement, fault: 'no-target' }]
    const missing = targets.find(target => !reachable(target))
    return missing ? [{ placement, fault: FAULTS[missing.kind] ?? 'in-bin' }] : []
  })
}
