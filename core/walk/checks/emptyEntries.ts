import { fieldOf } from '../../catalogue/catalogue'
import { everyBlock, mapBlocks } from '../../page/blocks'
import type { PageDocument } from '../../page/schema'
import { placementsOf } from '../../page/targets'
import type { Check } from '../check'
import type { Found } from '../finding'
import type { WalkedCatalogue } from '../facts'
import { namesOf } from './entries'

/** Buttons and links of what is laid out for the entries of a catalogue that few of them, or all, have nothing for. */
const emptyIn = (content: PageDocument['content'], { one, fields, entries }: WalkedCatalogue): Found[] =>
  placementsOf({ type: 'doc', content }).flatMap(({ id, kind, label, targets }) =>
    targets.flatMap((target): Found[] => {
      const field = target.kind === 'field' && !target.without && kind !== 'picture' ? fieldOf(fields, target.field) : undefined
      const lacking = field ? entries.filter(({ values }) => values[field.id] === undefined) : []
      // What most do not have is not missed.
      if (!field || !lacking.length || (lacking.length > entries.length / 2 && lacking.length < entries.length)) return []
      const words =
        lacking.length === entries.length
          ? `No ${one} has a “${field.name}”: nobody sees this.`
          : `${lacking.length} of ${entries.length} have no “${field.name}”, and nothing in its place: ${namesOf(lacking)}.`
      return [{ placement: id, label: label || field.name, words, detail: `${field.name} ${lacking.length}` }]
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
