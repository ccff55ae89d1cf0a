import { and, asc, eq, exists, inArray, isNotNull, isNull, like, notInArray, or, sql, type SQL } from 'drizzle-orm'
import { OPEN_GATE } from '../../../core/gate/gate'
import type { SiteFacts } from '../../../core/page/document'
import { EDGES, type EdgeDocuments } from '../../../core/page/edges'
import type { PageDocument, ShelfAttrs } from '../../../core/page/schema'
import type { AskedSource } from '../../../core/shelf/shelfSource'
import { everyBlock } from '../../../core/page/blocks'
import type { Condition } from '../../../core/catalogue/listAttrs'
import type { LetterboxAttrs } from '../../../core/letterbox/letterbox'
import { shelvesIn } from '../../../core/page/targets'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { pageVersions, pages, retiredSlugs, uses } from '../../db/schema'
import { catalogueAt, entryAt } from '../uses/recording'
import { differs, type PageRow } from './pageRows'

export type WalkablePage = Pick<PageRow, 'id' | 'slug' | 'title' | 'edge' | 'live' | 'revision'> & {
  /** its draft is not what is live */ waiting: boolean
}

/** A letterbox that visitors see, and the page it stands on. */
export interface LiveLetterbox {
  letterbox: LetterboxAttrs
  pageId: string
  pageTitle: string
  slug: string
  gate: string | null
}

/** A page that stands behind no gate. */
const isOpen = or(isNull(pages.gate), eq(pages.gate, OPEN_GATE))

/** The placements of search fields in a page's document, in PostgreSQL's language for paths (SQL/JSON). */
const SEARCH_FIELDS = 'lax $.** ? (@.type == "search").attrs.placement'

const LETTERBOXES = 'lax $.** ? (@.type == "letterbox")'

/** Many small rows as one JSON text: taking them apart field by field would keep visitors waiting. */
async function inOneText<Row>(db: Queryable, rows: SQL): Promise<Row[]> {
  const {
    rows: [answer],
  } = await db.execute<{ found: Row[] | null }>(sql`select json_agg(found) as found from (${rows}) as found`)
  return answer?.found ?? []
}

/** What visitors and the walk see of pages. */
export function createLiveReads(db: Database) {
  return {
    /** The live version at a slug; undefined where none is. */
    async live(slug: string): Promise<
      | {
          id: string
          slug: string
          title: string
          description: string
          picture: string | null
          gate: string | null
          document: PageDocument
        }
      | undefined
    > {
      const [row] = await db
        .select({
          id: pages.id,
          slug: pages.slug,
          description: pages.description,
          picture: pages.picture,
          gate: pages.gate,
          title: pageVersions.title,
          document: pageVersions.document,
        })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(pages.slug, slug), isNull(pages.edge)))
      return row
    },

    /** What stands on every page, as far as it is live. */
    async edges(): Promise<EdgeDocuments> {
      const rows = await db
        .select({ edge: pages.edge, document: pageVersions.document })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(inArray(pages.edge, [...EDGES]))
      return Object.fromEntries(rows.map(({ edge, document }) => [edge, document]))
    },

    /** What entries of catalogues are laid out in, by the identities of those catalogues, as far as it is live. */
    async liveLayouts(): Promise<
      Map<string, { id: string; gate: string | null; description: string; picture: string | null; document: PageDocument; published: Date }>
    > {
      const rows = await db
        .select({
          catalogue: pages.catalogueId,
          id: pages.id,
          gate: pages.gate,
          description: pages.description,
          picture: pages.picture,
          document: pageVersions.document,
          published: pageVersions.published,
        })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(isNotNull(pages.catalogueId))
      return new Map(rows.map(({ catalogue, ...layout }) => [catalogue!, layout]))
    },

    /** The first live page that lists the entries of each catalogue. */
    async listPages(): Promise<Map<string, { id: string; slug: string; title: string; gate: string | null }>> {
      const rows = await db
        .select({ address: uses.address, id: pages.id, slug: pages.slug, title: pageVersions.title, gate: pages.gate })
        .from(uses)
        .innerJoin(pages, eq(pages.id, uses.pageId))
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(uses.side, 'live'), eq(uses.kind, 'list'), isNull(pages.edge)))
        .orderBy(sql`${pages.slug} = ''`, asc(pages.created))
      const found = new Map<string, { id: string; slug: string; title: string; gate: string | null }>()
      for (const { address, ...page } of rows) {
        const catalogue = catalogueAt(address)
        if (catalogue && !found.has(catalogue)) found.set(catalogue, page)
      }
      return found
    },

    /** What entries must be like to stand in each list of a live page, by catalogues, and entries that live pages lead to. */
    async liveEntryUses(): Promise<{ lists: Map<string, Condition[][]>; led: Set<string> }> {
      const rows = await db
        .select({ address: uses.address, pageId: uses.pageId })
        .from(uses)
        .where(and(eq(uses.side, 'live'), or(like(uses.address, 'catalogue:%'), like(uses.address, 'entry:%'))))
      const led = new Set(rows.flatMap(({ address }) => entryAt(address) ?? []))
      const listing = [...new Set(rows.flatMap(({ address, pageId }) => (catalogueAt(address) && pageId ? [pageId] : [])))]
      const documents = listing.length
        ? await db
            .select({ document: pageVersions.document })
            .from(pages)
            .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
            .where(among(pages.id, listing))
        : []
      const lists = new Map<string, Condition[][]>()
      for (const { document } of documents)
        for (const block of everyBlock(document)) {
          if (block.type !== 'entryList' || block.attrs.catalogue === null) continue
          // One that lists what is like another entry leads from page to page, and from none to the first.
          if (block.attrs.only.some(({ is }) => is === 'same')) continue
          lists.set(block.attrs.catalogue, [...(lists.get(block.attrs.catalogue) ?? []), block.attrs.only])
        }
      return { lists, led }
    },

    /** A shelf of a live page, with that page's title; undefined where no visitor sees it. */
    async liveShelf(placement: string): Promise<{ shelf: ShelfAttrs; pageId: string; pageTitle: string; gate: string | null } | undefined> {
      const [row] = await db
        .select({ document: pageVersions.document, title: pageVersions.title, pageId: pages.id, gate: pages.gate })
        .from(uses)
        .innerJoin(pages, eq(pages.id, uses.pageId))
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(uses.placement, placement), eq(uses.side, 'live'), eq(uses.kind, 'shelf')))
        .limit(1)
      const shelf = row && shelvesIn(row.document).find(one => one.placement === placement)
      return shelf && { shelf, pageTitle: row.title, pageId: row.pageId, gate: row.gate }
    },

    /** The live document that a placement stands on, and the gate that is before it; undefined where no visitor sees it. */
    async livePlaced(placement: string): Promise<{ document: PageDocument; gate: string | null } | undefined> {
      const [row] = await db
        .select({ document: pageVersions.document, gate: pages.gate })
        .from(uses)
        .innerJoin(pages, eq(pages.id, uses.pageId))
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(uses.placement, placement), eq(uses.side, 'live')))
        .limit(1)
      return row
    },

    /** The letterboxes of live pages by their placements, each with its page. */
    async liveLetterboxes(): Promise<Map<string, LiveLetterbox>> {
      const rows = await db
        .select({ document: pageVersions.document, pageTitle: pageVersions.title, pageId: pages.id, slug: pages.slug, gate: pages.gate })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(sql`jsonb_path_exists(${pageVersions.document}, ${LETTERBOXES}::jsonpath)`)
      return new Map(
        rows.flatMap(({ document, ...page }) =>
          [...everyBlock(document)].flatMap(block =>
            block.type === 'letterbox' ? [[block.attrs.placement, { ...page, letterbox: block.attrs }] as const] : [],
          ),
        ),
      )
    },

    /**
     * What live pages that are open to everybody, head and foot give visitors: files by themselves, by signposts, and what shelves ask the
     * library for.
     */
    async liveOffers(): Promise<{ files: string[]; signposts: string[]; shelves: AskedSource[] }> {
      const led = await db
        .selectDistinct({ fileId: uses.fileId, signpostId: uses.signpostId })
        .from(uses)
        .innerJoin(pages, eq(pages.id, uses.pageId))
        // Pictures that adorn a page are no files it gives.
        .where(
          and(
            isOpen,
            eq(uses.side, 'live'),
            notInArray(uses.kind, ['fill', 'picture']),
            or(isNotNull(uses.fileId), isNotNull(uses.signpostId)),
          ),
        )
      const listing = await db
        .select({ document: pageVersions.document })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(
          and(
            isOpen,
            exists(
              db
                .select({ one: sql`1` })
                .from(uses)
                .where(and(eq(uses.pageId, pages.id), eq(uses.side, 'live'), eq(uses.kind, 'shelf'))),
            ),
          ),
        )
      return {
        files: led.flatMap(({ fileId }) => fileId ?? []),
        signposts: led.flatMap(({ signpostId }) => signpostId ?? []),
        shelves: listing.flatMap(({ document }) =>
          shelvesIn(document).flatMap(({ source }) => (source && source.kind !== 'files' ? [source] : [])),
        ),
      }
    },

    /** Those of some pages that are live, with their titles there. */
    async livePages(ids: string[]): Promise<Map<string, { slug: string; title: string; gate: string | null }>> {
      if (!ids.length) return new Map()
      const rows = await db
        .select({ id: pages.id, slug: pages.slug, title: pageVersions.title, gate: pages.gate })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(among(pages.id, ids), isNull(pages.edge)))
      return new Map(rows.map(({ id, ...place }) => [id, place]))
    },

    /** Where pages are live that are open to everybody, with when each was published last. */
    livePlaces: (): Promise<{ slug: string; published: Date }[]> =>
      db
        .select({ slug: pages.slug, published: pageVersions.published })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(isNull(pages.edge), isOpen))
        .orderBy(sql`${pages.slug} <> ''`, asc(pages.created)),

    /** All pages that visitors can ask for, or could. */
    titles: (): Promise<{ id: string; slug: string; title: string; live: boolean; gate: string | null }[]> =>
      inOneText(
        db,
        sql`select ${pages.id}, ${pages.slug}, ${pages.title}, ${pages.live} is not null as live, ${pages.gate} from ${pages} where ${pages.edge} is null`,
      ),

    /** Live pages and edges, with what tells one state of them from another. */
    walkable: (): Promise<WalkablePage[]> =>
      inOneText(
        db,
        sql`
      select ${pages.id}, ${pages.slug}, ${pages.title}, ${pages.edge}, ${pages.live}, ${pages.revision}, ${differs} as waiting from ${pages}
      where ${pages.live} is not null order by ${pages.edge} is not null, ${pages.slug} <> '', ${pages.created}`,
      ),

    /** What stands on live pages, and in their drafts where those wait. */
    async documents(ids: string[]): Promise<Map<string, { draft: PageDocument | null; live: PageDocument }>> {
      if (!ids.length) return new Map()
      const rows = await db
        .select({
          id: pages.id,
          draft: sql<PageDocument | null>`case when ${differs} then ${pages.draft} end`,
          live: pageVersions.document,
        })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(among(pages.id, ids))
      return new Map(rows.map(({ id, ...texts }) => [id, texts]))
    },

    /** The page at a slug, or the one that was there before it moved. */
    async at(slug: string): Promise<{ id: string; title: string } | undefined> {
      const [page] = await db
        .select({ id: pages.id, title: pages.title })
        .from(pages)
        .where(and(eq(pages.slug, slug), isNull(pages.edge)))
      if (page) return page
      const [moved] = await db
        .select({ id: pages.id, title: pages.title })
        .from(retiredSlugs)
        .innerJoin(pages, eq(pages.id, retiredSlugs.pageId))
        .where(eq(retiredSlugs.slug, slug))
      return moved
    },

    /** The live pages, in menu order. */
    async menu(): Promise<(SiteFacts['menu'][number] & { gate: string | null })[]> {
      return db
        .select({ id: pages.id, slug: pages.slug, title: pageVersions.title, gate: pages.gate })
        .from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(pages.inMenu, true), isNull(pages.edge)))
        .orderBy(sql`${pages.slug} <> ''`, asc(pages.created))
    },

    /** Completed downloads of each placement on a page, draft or live. */
    async downloads(id: string): Promise<Record<string, number>> {
      const rows = await db.execute<{ placement: string; count: number }>(sql`
        select d.placement, sum(d.count)::int as count from downloads d
        where d.placement in (
          select placement from uses where page_id = ${id}
          -- A search field leads nowhere by itself.
          union select jsonb_path_query(draft, ${SEARCH_FIELDS}::jsonpath) #>> '{}' from pages where id = ${id}
          union select jsonb_path_query(document, ${SEARCH_FIELDS}::jsonpath) #>> '{}' from page_versions
            where page_id = ${id} and number = (select live from pages where id = ${id})
        ) group by d.placement`)
      return Object.fromEntries(rows.rows.map(row => [row.placement, row.count]))
    },
  }
}
