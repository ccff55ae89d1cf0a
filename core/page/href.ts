import type { TargetFacts } from './placeholders'
import type { Action } from './schema'

/** The root-relative address of a placement's target; it holds on any domain and scheme. */
export function placementHref(facts: TargetFacts, action: Action, placement: string): string {
  return `/files/${facts.handle}?${action === 'save' ? 'save' : 'open'}&at=${placement}`
}
