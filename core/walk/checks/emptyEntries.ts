import { everyBlock, mapBlocks } from '../../page/blocks'
import type { PageDocument } from '../../page/schema'
import { placementsOf } from '../../page/targets'
import type { Check } from '../check'
import type { Found } from '../finding'
import type { WalkedCatalogue } from '../facts'

/** Entries that are named; the others are counted. */
const NAMED = 3

function named(entries: string[]): string {
  const all = entries.slice(0, NAMED).map(name => `“${name}”`)
  const more = entries.length - all.length
  return more ? `${all.join(', ')} and ${more} more` : all.join(', ')
}

/** Buttons and links of what is laid out for the entries of a catalogue that few of them, or all, have nothing for. */
const emptyIn = (content: PageDocument['content'], { one, live, without }: WalkedCatalogue): Found[] =>
  placementsOf({ type: 'doc', content }).flatMap(({ id, kind, label, targets }) =>
    targets.flatMap((target): Found[] => {
      const lacking = target.kind === 'field' && !target.without && kind !== 'picture' ? without(target.field) : undefined
      const count = lacking?.entries.length ?? 0
      // What most do not have is not missed.
      if (!lacking || !count || (count > live / 2 && count < live)) return []
      const { field, entries } = lacking
      const words =
        entries.length === live
          ? `No ${one} has a “${field}”: nobody sees this.`
          : `${entries.length} of ${live} have no “${field}”, and nothing in its place: ${named(entries)}.`
      return [{ placement: id, label: label || field, words, detail: `${field} ${entries.length}` }]
    }),
  )

/** What visitors look for with an entry, and that only others have. */
export const emptyEntries: Check = {
  name: 'empty-entries',
  cost: 'tidy',
  title: 'Entries without their file',
  why: 'Visitors who have seen it with other entries look for it there. Add the file to the entry, or say with the button what stands in its place.',
  look({ document, catalogue, ownCatalogue }) {
    const found: Found[] = []
    for (const block of everyBlock(document)) {
      const listed = block.type === 'entryList' && block.attrs.catalogue !== null ? catalogue(block.attrs.catalogue) : undefined
      // Where entries have pages it is said of those.
      if (block.type === 'entryList' && listed && !listed.layout) found.push(...emptyIn(block.content, listed))
    }
    const own = mapBlocks(document.content, block => (block.type === 'entryList' ? [] : [block]))
    return ownCatalogue ? [...found, ...emptyIn(own, ownCatalogue)] : found
  },
}
