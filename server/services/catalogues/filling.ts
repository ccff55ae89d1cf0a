import { fillBlocks, fillSiteValues, namesSiteValues, type Filling } from '../../../core/catalogue/bind'
import { entrySlug, type Catalogue } from '../../../core/catalogue/catalogue'
import type { LiveEntry } from '../../../core/catalogue/entry'
import type { EntryFrame } from '../../../core/catalogue/entryFrame'
import { listEntries, readListQuestion } from '../../../core/catalogue/list'
import { fillList } from '../../../core/catalogue/fillList'
import type { Shown } from '../../../core/catalogue/shown'
import { filesIn, titleOf } from '../../../core/catalogue/values'
import type { Speech } from '../../../core/language/speech'
import { everyBlock, mapBlocks } from '../../../core/page/blocks'
import { pageHref } from '../../../core/page/href'
import type { Block, EntryListBlock, PageDocument } from '../../../core/page/schema'
import type { WalkedCatalogue } from '../../../core/walk/facts'
import type { Events } from '../events'
import { kept } from '../kept'
import type { PageService } from '../pages/pages'
import type { EntryIndex } from './entryIndex'

/** What a filled document leans on. */
export interface Filled {
  document: PageDocument
  /** catalogues whose entries it lists, and that of the values of the site where it names some */
  lists: Set<string>
}

export interface FillingAround {
  speech: Speech
  /** titles of those files that visitors may know of */
  titles: (ids: string[]) => Promise<Map<string, string>>
  /** what is asked of its lists */
  params: URLSearchParams
  /** address of the page */
  slug: string
}

/** Pages and lists are filled with what is live of catalogues. */
export function createFilling(index: EntryIndex, pages: PageService, events: Events) {
  /** What entries are laid out in, where that is live, and the page that lists them. */
  const placed = kept(async () => ({ layouts: await pages.liveLayouts(), lists: await pages.listPages() }))
  events.on('live', placed.forget)

  const paged = async (catalogue: string) => (await placed.get()).layouts.has(catalogue)

  async function shownOf(
    block: EntryListBlock,
    catalogue: Catalogue,
    { speech, titles, params, slug }: FillingAround,
  ): Promise<Shown<Block>> {
    const { attrs, but } = block
    const { fields } = catalogue
    const { live } = await index.entriesOf(catalogue.id)
    const listed = listEntries(attrs, live, fields, readListQuestion(params, attrs, fields), speech, but)
    const entries = listed.groups.flatMap(group => group.entries)
    const there = await titles([...new Set(entries.flatMap(({ values }) => filesIn(fields, values)))])
    return fillList(block, listed, {
      catalogue,
      paged: await paged(catalogue.id),
      fileTitle: id => there.get(id),
      path: pageHref(slug),
      speech,
    })
  }

  /** A document with the values of the whole site, and the catalogue they are kept in where it names any. */
  async function withSiteValues(
    document: PageDocument,
    { titles, speech }: Pick<FillingAround, 'titles' | 'speech'>,
  ): Promise<{ document: PageDocument; of: string[]; files: string[] }> {
    if (!namesSiteValues(document)) return { document, of: [], files: [] }
    const catalogue = (await index.catalogues()).find(({ ofSite }) => ofSite)
    const fields = catalogue?.fields ?? []
    const [entry = { id: '', slug: '', values: {}, published: '' }] = catalogue ? (await index.entriesOf(catalogue.id)).live : []
    const files = filesIn(fields, entry.values)
    const there = await titles(files)
    const filling: Filling = { fields, entry, paged: false, fileTitle: id => there.get(id), speech }
    const content = fillSiteValues(document.content, filling)
    return {
      document: { type: 'doc', content: content.length ? content : [{ type: 'paragraph' }] },
      of: catalogue ? [catalogue.id] : [],
      files,
    }
  }

  async function fillLists(laidOut: PageDocument, around: FillingAround): Promise<Filled> {
    const { document, of } = await withSiteValues(laidOut, around)
    const shown = new Map<EntryListBlock, Shown<Block>>()
    const lists = new Set(of)
    for (const block of everyBlock(document)) {
      if (block.type !== 'entryList' || !block.attrs.catalogue) continue
      lists.add(block.attrs.catalogue)
      const catalogue = await index.catalogue(block.attrs.catalogue)
      if (catalogue) shown.set(block, await shownOf(block, catalogue, around))
    }
    if (!shown.size) return { document, lists }
    const content = mapBlocks(
      document.content,
      block => [block.type === 'entryList' ? { ...block, shown: shown.get(block) } : block],
      block => block.type !== 'entryList',
    )
    return { document: { type: 'doc', content }, lists }
  }

  return {
    /** The document of a page with its lists filled. */
    document: fillLists,

    /** What stands around pages, with the values of the whole site. */
    edge: withSiteValues,

    /** What is laid out for a catalogue's entries, filled with one of them, its lists filled as well. */
    async entry(document: PageDocument, catalogue: Catalogue, entry: LiveEntry, around: FillingAround): Promise<Filled> {
      const there = await around.titles(filesIn(catalogue.fields, entry.values))
      const filling: Filling = { fields: catalogue.fields, entry, paged: true, fileTitle: id => there.get(id), speech: around.speech }
      const content = fillBlocks(document.content, filling)
      return fillLists({ type: 'doc', content: content.length ? content : [{ type: 'paragraph' }] }, around)
    },

    /** What the entries of a catalogue are laid out in, where that is live. */
    layout: async (catalogue: string) => (await placed.get()).layouts.get(catalogue),

    /** Entries that have pages of their own by where those are, with the gate before them. */
    async entryPages(ids: string[]): Promise<Map<string, { slug: string; title: string; gate: string | null }>> {
      const { layouts } = await placed.get()
      return new Map(
        [...(await index.some(ids))].flatMap(([id, { catalogue, entry }]) => {
          const layout = layouts.get(catalogue.id)
          return layout
            ? [[id, { slug: entrySlug(catalogue.slug, entry.slug), title: titleOf(entry.values), gate: layout.gate }] as const]
            : []
        }),
      )
    },

    /** All catalogues, with the entries that are live and what leads to them. */
    async walked(): Promise<Map<string, WalkedCatalogue>> {
      const found = new Map<string, WalkedCatalogue>()
      const { lists, led } = await pages.liveEntryUses()
      for (const { id, one, layout, type, fields } of await index.catalogues()) {
        const { live } = await index.entriesOf(id)
        found.set(id, { id, one, layout, type, fields, entries: live, lists: lists.get(id) ?? [], led })
      }
      return found
    },

    /** The page at an address of an entry; undefined where none is. */
    async place(path: string): Promise<{ slug: string; id: string; title: string; gate: string | null; folder: null } | undefined> {
      const found = await index.at(path)
      const layout = found && (await placed.get()).layouts.get(found.catalogue.id)
      return (
        layout && {
          slug: entrySlug(found.catalogue.slug, found.entry.slug),
          id: layout.id,
          title: titleOf(found.entry.values),
          gate: layout.gate,
          folder: null,
        }
      )
    },

    /** All entries that have pages, with the days they went live. */
    async places(open: (gate: string | null) => boolean): Promise<{ slug: string; published: Date }[]> {
      const { layouts } = await placed.get()
      const all: { slug: string; published: Date }[] = []
      for (const catalogue of await index.catalogues()) {
        const layout = layouts.get(catalogue.id)
        if (!layout || !open(layout.gate)) continue
        const { live } = await index.entriesOf(catalogue.id)
        for (const entry of live)
          all.push({
            slug: entrySlug(catalogue.slug, entry.slug),
            published: entry.published > layout.published.toISOString() ? new Date(entry.published) : layout.published,
          })
      }
      return all
    },

    /** What stands around an entry on its page. */
    async frame(catalogue: Catalogue, entry: LiveEntry, mayBeKnown: (gate: string | null) => boolean): Promise<EntryFrame> {
      const { live } = await index.entriesOf(catalogue.id)
      const at = live.findIndex(({ id }) => id === entry.id)
      const led = (other: LiveEntry | undefined) => other && { title: titleOf(other.values), slug: entrySlug(catalogue.slug, other.slug) }
      const list = (await placed.get()).lists.get(catalogue.id)
      return {
        list: list && mayBeKnown(list.gate) ? list : undefined,
        before: at > 0 ? led(live[at - 1]) : undefined,
        after: led(live[at + 1]),
      }
    },
  }
}
export type CatalogueFilling = ReturnType<typeof createFilling>
