import { newList, type ListAttrs } from '../core/catalogue/listAttrs'
import { isFileKind, newField } from '../core/catalogue/field'
import { firstCard, firstLayout } from '../core/catalogue/ways'
import { newId } from '../core/id'
import type { Block, EntryListBlock, PageDocument } from '../core/page/schema'
import type { Trough } from '../server/trough'
import { CATALOGUES, type DemoCatalogue } from './catalogueRows'
import type { FileIds } from './fileIds'

/** Catalogues of the demo by their names, as pages list them. */
export type CatalogueIds = Map<string, string>

/** A list of a catalogue's entries, with a card as it suits their fields. */
export function listOf(catalogues: CatalogueIds, name: string, attrs: Partial<ListAttrs>): EntryListBlock {
  const { fields } = CATALOGUES.find(each => each.name === name)!
  return {
    type: 'entryList',
    attrs: { ...newList(newId(10), catalogues.get(name) ?? null), ...attrs },
    content: firstCard(fields, true) as EntryListBlock['content'],
  }
}

const h2 = (text: string): Block => ({ type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text }] })

/** The page of each entry; a glaze leads on to those with the same surface. */
function layoutOf({ name, fields }: DemoCatalogue, id: string): PageDocument {
  const alike: Block[] =
    name === 'Glazes'
      ? [
          h2('With the same surface'),
          listOf(new Map([[name, id]]), name, {
            way: 'lines',
            only: [{ field: 'surface', is: 'same' }],
            fields: ['number', 'price'],
            limit: 6,
          }),
        ]
      : []
  return { type: 'doc', content: [...firstLayout(fields), ...alike] }
}

/** Makes the catalogues, before the pages that list them. */
export async function makeCatalogues({ catalogues, entries }: Trough, files: FileIds): Promise<CatalogueIds> {
  const made: CatalogueIds = new Map()
  for (const { name, one, type, key, fields, entries: rows } of CATALOGUES) {
    const { id } = await catalogues.create({ name, one, fields })
    await catalogues.change(id, { type, key })
    const held = fields.filter(({ kind }) => isFileKind(kind))
    await entries.create(
      id,
      rows.map(values => {
        const named = held.flatMap(field =>
          values[field.id] === undefined ? [] : [[field.id, files.get(String(values[field.id]))!] as const],
        )
        return { ...values, ...Object.fromEntries(named) }
      }),
    )
    await entries.publish(id, undefined)
    made.set(name, id)
  }
  return made
}

/** What stands around every page and is kept once, by the identities of its fields. */
const SITE_VALUES = [
  { field: newField('weekdays', 'Open on weekdays'), value: 'Monday to Friday, eight to five' },
  { field: newField('season', 'Season'), value: 'Winter 2026/27' },
]

/** Writes the values of the whole site, before the edges that name them. */
export async function makeSiteValues({ catalogues, entries }: Trough): Promise<void> {
  const { id, fields, revision } = await catalogues.ofSite()
  await catalogues.changeFields(id, { fields: [...fields, ...SITE_VALUES.map(({ field }) => field)], revision, despite: false })
  const [entry] = await entries.list(id)
  const values = Object.fromEntries(SITE_VALUES.map(({ field, value }) => [field.id, value]))
  await entries.change(id, [{ id: entry!.id, revision: entry!.revision, values }])
  await entries.publish(id, undefined)
}

/** Lays out a page for each entry; once the files they lead to are there for visitors. */
export async function makeLayouts({ layingOut, pages }: Trough, made: CatalogueIds): Promise<void> {
  for (const catalogue of CATALOGUES) {
    const id = made.get(catalogue.name)!
    const layout = await layingOut.layout(id)
    const { title, revision } = await pages.get(layout)
    await pages.saveDraft(layout, { title, draft: layoutOf(catalogue, id), revision })
    await pages.publish(layout)
  }
}
