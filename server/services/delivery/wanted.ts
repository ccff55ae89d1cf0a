import type { Bundles } from '../bundles/bundles'
import type { Wanted } from '../gates/guard'
import type { Entry } from './directory'

/** What has to be known to say who may have what an address leads to; a bundle stands behind the gates of its contents, too. */
export async function wantedAt(entry: Entry, bundles: Pick<Bundles, 'laidOut'>): Promise<Wanted | undefined> {
  if (entry.kind !== 'bundle') return 'wanted' in entry ? entry.wanted : undefined
  return { ...entry.wanted, gates: (await bundles.laidOut(entry.id)).gates }
}
