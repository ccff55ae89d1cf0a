import { and, desc, eq, isNotNull, isNull } from 'drizzle-orm'
import { entrySlug } from '../../../core/catalogue/catalogue'
import { FEED, IN_FEED, type FedEntry } from '../../../core/catalogue/feed'
import { plainText } from '../../../core/catalogue/longText'
import { sayValue, titleOf } from '../../../core/catalogue/values'
import { cut } from '../../../core/cut'
import type { Speech } from '../../../core/language/speech'
import { pageHref } from '../../../core/page/href'
import type { Database } from '../../db/connection'
import { entries, entryVersions } from '../../db/schema'
import type { EntryIndex } from './entryIndex'
import type { CatalogueFilling } from './filling'

type IsOpen = (gate: string | null) => boolean

/** Tells of new entries: catalogues have a feed whose entries have pages that all may see. */
export function createFeeds(db: Database, index: EntryIndex, { layout: layoutOf }: Pick<CatalogueFilling, 'layout'>) {
  async function openLayout(catalogue: string, open: IsOpen) {
    const layout = await layoutOf(catalogue)
    return layout && open(layout.gate) ? layout : undefined
  }

  /** Entries that visitors see, with when they first did, the newest first. */
  async function firstSeen(catalogueId: string): Promise<{ id: string; published: string }[]> {
    const rows = await db
      .select({ id: entries.id, published: entryVersions.published })
      .from(entryVersions)
      .innerJoin(entries, and(eq(entries.id, entryVersions.entryId), isNull(entries.deleted), isNotNull(entries.live)))
      .where(and(eq(entryVersions.number, 1), eq(entries.catalogueId, catalogueId)))
      .orderBy(desc(entryVersions.published), desc(entries.place))
      .limit(IN_FEED)
    return rows.map(({ id, published }) => ({ id, published: published.toISOString() }))
  }

  return {
    /** Feeds of those catalogues among some that have one. */
    async of(ids: string[], open: IsOpen): Promise<{ title: string; href: string }[]> {
      const found: { title: string; href: string }[] = []
      for (const id of ids) {
        const catalogue = await index.catalogue(id)
        if (catalogue && (await openLayout(id, open))) found.push({ title: catalogue.name, href: `${pageHref(catalogue.slug)}/${FEED}` })
      }
      return found
    },

    /** New entries of the catalogue at the first part of an address, of today or before; undefined where none has a feed. */
    async at(first: string, open: IsOpen, speech: Speech) {
      const catalogue = await index.catalogueAt(first)
      const layout = catalogue && (await openLayout(catalogue.id, open))
      if (!layout) return undefined
      const { slug, name, fields } = catalogue
      const { byId } = await index.entriesOf(catalogue.id)
      const words = fields.find(({ kind }) => kind === 'longText')
      const fed = (await firstSeen(catalogue.id)).flatMap(({ id, published }): FedEntry[] => {
        const entry = byId.get(id)
        if (!entry) return []
        const summary = words ? cut(plainText(sayValue(words, entry.values[words.id], speech)), 300) : ''
        return [{ slug: entrySlug(slug, entry.slug), title: titleOf(entry.values), summary, published, updated: entry.published }]
      })
      return { slug, title: name, entries: fed, since: layout.published.toISOString() }
    },
  }
}
export type Feeds = ReturnType<typeof createFeeds>
