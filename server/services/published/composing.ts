import { entrySlug } from '../../../core/catalogue/catalogue'
import type { EntryFrame } from '../../../core/catalogue/entryFrame'
import { isFileKind } from '../../../core/catalogue/field'
import { entryData } from '../../../core/catalogue/linkedData'
import { titleOf } from '../../../core/catalogue/values'
import { isOpenGate } from '../../../core/gate/gate'
import { renderPage } from '../../../core/page/document'
import { pageHref } from '../../../core/page/href'
import type { PageFacts } from '../../../core/page/html'
import type { PageDocument } from '../../../core/page/schema'
import type { EntryIndex } from '../catalogues/entryIndex'
import type { Feeds } from '../catalogues/feeds'
import type { CatalogueFilling, Filled } from '../catalogues/filling'
import type { PageService } from '../pages/pages'
import type { SiteService } from '../site/site'
import type { Gather } from './gathering'
import { knowledgeBehind, type KnowledgeNeeds } from './knowledge'
import type { Leans } from './remembered'
import type { SeenSite } from './surroundings'

export type Composable = NonNullable<Awaited<ReturnType<PageService['live']>>>
type Entry = NonNullable<Awaited<ReturnType<EntryIndex['at']>>>

export interface ComposingNeeds extends KnowledgeNeeds {
  site: Pick<SiteService, 'speech'>
  entryIndex: EntryIndex
  filling: CatalogueFilling
  feeds: Pick<Feeds, 'of'>
}

/** Writes a page as HTML, and says what it leans on: one of its owner's, or that of an entry. */
export function createComposing({ site, entryIndex, filling, feeds, ...needs }: ComposingNeeds, gather: Gather) {
  const cataloguesOf = async (ids: Set<string>) => [...(await entryIndex.some([...ids])).values()].map(({ catalogue }) => catalogue.id)

  async function frameOf({ catalogue, entry }: Entry, gate: string | null): Promise<EntryFrame> {
    const { mayBeKnown } = await knowledgeBehind(gate, needs)
    return filling.frame(catalogue, entry, other => mayBeKnown({ gate: other, folder: null }))
  }

  /** What programs are told of an entry; undefined where its catalogue says nothing of what its entries are. */
  function dataOf({ catalogue, entry }: Entry, { title, slug }: Composable, facts: SeenSite, known: PageFacts) {
    if (!catalogue.type) return undefined
    return entryData(catalogue.type, title, {
      fields: catalogue.fields,
      values: entry.values,
      properties: catalogue.properties,
      address: facts.address,
      site: facts.name,
      url: facts.address + pageHref(slug),
      file: id => {
        const file = known.file(id)
        return file?.asks ? undefined : file
      },
    })
  }

  /**
   * @param asked what is asked of its lists
   * @param of the entry whose page it is
   */
  async function compose(
    page: Composable,
    facts: SeenSite,
    asked = new URLSearchParams(),
    of?: Entry,
  ): Promise<{ html: string; leans: Leans }> {
    const { titles } = await knowledgeBehind(page.gate, needs)
    const around = { speech: await site.speech(), titles, params: asked, slug: page.slug }
    const filled: Filled = of
      ? await filling.entry(page.document, of.catalogue, of.entry, around)
      : await filling.document(page.document, around)
    const { known, picture, leans } = await gather(facts, { ...page, document: filled.document })
    const ofCatalogue = of ? [of.catalogue.id] : []
    const entry = of && { frame: await frameOf(of, page.gate), about: dataOf(of, page, facts, known) }
    const feedsOf = await feeds.of([...filled.lists, ...ofCatalogue], isOpenGate)
    return {
      html: renderPage(facts, { ...page, document: filled.document, picture, entry, feeds: feedsOf }, known),
      leans: {
        ...leans,
        entries: new Set([...leans.entries, ...(of ? [of.entry.id] : [])]),
        entriesOf: filled.lists,
        catalogues: new Set([...filled.lists, ...ofCatalogue, ...(leans.entries.size ? await cataloguesOf(leans.entries) : [])]),
      },
    }
  }

  return {
    compose,

    /** An entry's page as one that is composed like others. */
    async entryPage(path: string): Promise<{ page: Composable; of: Entry } | undefined> {
      const of = await entryIndex.at(path)
      const layout = of && (await filling.layout(of.catalogue.id))
      if (!layout) return undefined
      const { catalogue, entry } = of
      const pictured = catalogue.fields.find(
        ({ id, kind }) => isFileKind(kind) && kind.startsWith('picture') && entry.values[id] !== undefined,
      )
      const picture = pictured && [entry.values[pictured.id]].flat()[0]
      const { id, gate, description, document } = layout
      return {
        page: {
          id,
          gate,
          description,
          document,
          slug: entrySlug(catalogue.slug, entry.slug),
          title: titleOf(entry.values),
          picture: typeof picture === 'string' ? picture : layout.picture,
        },
        of,
      }
    },

    /** What entries are laid out in, with the first of them as it is written; with nothing where there is none. */
    async previewEntry(
      catalogueId: string,
      { draft, ...layout }: Pick<Composable, 'id' | 'description' | 'picture' | 'gate'> & { draft: PageDocument },
      facts: SeenSite,
    ): Promise<string> {
      const catalogue = (await entryIndex.catalogue(catalogueId))!
      // The one that has most of what is laid out, as on the sheet.
      const [first] = (await entryIndex.entriesOf(catalogueId)).all
        .slice(0, 12)
        .sort((a, b) => Object.keys(b.values).length - Object.keys(a.values).length)
      const entry = { id: first?.id ?? '', slug: first?.slug ?? '', values: first?.values ?? {}, published: '' }
      const page = {
        ...layout,
        document: draft,
        slug: entrySlug(catalogue.slug, entry.slug),
        title: titleOf(entry.values) || catalogue.one,
      }
      return (await compose(page, facts, undefined, { catalogue, entry })).html
    },
  }
}
