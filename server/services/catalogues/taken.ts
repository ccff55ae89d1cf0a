import type { EntryTaken } from '../../../core/catalogue/entry'
import { filesIn } from '../../../core/catalogue/values'
import type { EntryIndex } from './entryIndex'

/** How often the files of each entry were taken in the last thirty days, by what is counted of files; those of none are left out. */
export function createEntryTaken(index: EntryIndex, takenIn: (days: '30') => Promise<ReadonlyMap<string, number>>) {
  return async (catalogueId: string): Promise<EntryTaken[]> => {
    const catalogue = await index.catalogue(catalogueId)
    if (!catalogue) return []
    const [counts, { all }] = [await takenIn('30'), await index.entriesOf(catalogueId)]
    const papers = catalogue.fields.filter(({ kind }) => kind === 'file' || kind === 'files')
    return all.flatMap(({ id, values }): EntryTaken[] => {
      const count = [...new Set(filesIn(papers, values))].reduce((sum, file) => sum + (counts.get(file) ?? 0), 0)
      return count ? [{ entry: id, count }] : []
    })
  }
}
