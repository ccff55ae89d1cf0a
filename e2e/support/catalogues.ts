import type { CatalogueItem } from '../../core/catalogue/catalogue'
import type { EntryItem } from '../../core/catalogue/entry'
import type { ownerApi } from './owner'

type Api = Awaited<ReturnType<typeof ownerApi>>

/** The catalogue of a name, as the desk's API gives it. */
export const catalogueNamed = async (api: Api, name: string): Promise<CatalogueItem> =>
  (await api<{ items: CatalogueItem[] }>('/catalogues')).items.find(each => each.name === name)!

/** All entries of a catalogue. */
export const entriesIn = async (api: Api, id: string): Promise<EntryItem[]> =>
  (await api<{ items: EntryItem[] }>(`/catalogues/${id}/entries`)).items
