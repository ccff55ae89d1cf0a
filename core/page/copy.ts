import { newPlacementId } from './insert'
import type { PageDocument } from './schema'

/** A copy whose buttons, links and shelves have identities of their own, so that they are counted by themselves. */
export function withFreshPlacements(document: PageDocument): PageDocument {
  const fresh = new Map<string, string>()
  const renew = (old: string) => fresh.get(old) ?? fresh.set(old, newPlacementId()).get(old)!
  // A link over several pieces of text stays one.
  return JSON.parse(JSON.stringify(document), (key, value: unknown) =>
    key === 'placement' && typeof value === 'string' ? renew(value) : value,
  ) as PageDocument
}
