import { and, asc, desc, eq, inArray, isNotNull, isNull, sql, type SQL } from 'drizzle-orm'
import { canonical } from '../../../core/canonical'
import { firstFree } from '../../../core/files/handle'
import { newId } from '../../../core/id'
import { changesBetween, type PageText } from '../../../core/page/changes'
import type { SiteFacts } from '../../../core/page/document'
import type { EdgeDocuments } from '../../../core/page/edges'
import { withFreshPlacements } from '../../../core/page/copy'
import type { NewPage, PageDetails, PageItem, PageSettings, PageVersion, SaveDraft } from '../../../core/page/pageItem'
import { emptyDocument, type PageDocument, type Reference, type ShelfAttrs, type Target } from '../../../core/page/schema'
import { slugFromTitle } from '../../../core/page/slug'
import { STARTS } from '../../../core/page/starts'
import type { LookUse } from '../../../core/look/look'
import { buttonsIn, mapLooks } from '../../../core/page/buttonLooks'
import { fileIds, folderIds, idOf, keyOf, mapTargets, pageIds, placementsOf, referencesIn, shelvesIn, signpostIds } from '../../../core/page/targets'
import { Problem, notFound } from '../../../core/problem'
import { brokenPlacements } from '../../../core/walk/broken'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { editions, files, folders, pageVersions, pages, retiredSlugs, signposts, uses, type Side } from '../../db/schema'
import { getFile } from '../files/items'
import { usesOfTarget } from '../uses/usesOf'
import { leadsTo, recordUses } from '../uses/recording'

type PageRow = typeof pages.$inferSelect

export type WalkablePage = Pick<PageRow, 'id' | 'slug' | 'title' | 'edge' | 'live' | 'revision'> & { /** its draft is not what is live */ waiting: boolean }

/** A page's document made into another. */
export type Rewriting = (document: PageDocument, side: Side, pageId: string) => PageDocument
/** A page that was rewritten, and what stood on it before. */
export interface Rewritten { pageId: string, revision: number, draft: PageDocument, live: PageDocument | undefined }

/** Versions that are told at once. */
const MOST_VERSIONS = 50

/** A page's draft is not what is live. */
const differs = sql<boolean>`${pages.liveRevision} is distinct from ${pages.revision}`

/** Visitors can have a file: it is not in the bin, and its current edition was not withdrawn. */
const isGivenOut = sql`${files.deleted} is null and not exists (select 1 from ${editions} where ${editions.fileId} = ${files.id} and ${editions.number} = ${files.edition} and ${editions.withdrawn})`

const brokenCount = sql<number>`(select count(distinct ${uses.placement})::int from ${uses}
  left join ${signposts} on ${signposts.id} = ${uses.signpostId}
  left join ${files} on ${files.id} = coalesce(${uses.fileId}, ${signposts.fileId}) and ${isGivenOut}
  left join ${folders} on ${folders.id} = ${uses.folderId} and ${folders.deleted} is null
  left join ${pages} as led on led.id = ${uses.toPage} and (led.live is not null or led.id = ${uses.pageId})
  where ${uses.pageId} = ${pages.id} and ${uses.side} = 'draft' and ${uses.kind} <> 'fill' and ${uses.address} is null and ${files.id} is null and ${folders.id} is null and led.id is null)`

/** Which of the things the document of a page leans on visitors can reach once it is live. */
async function reachableIn(db: Queryable, pageId: string, document: PageDocument): Promise<(reference: Reference) => boolean> {
  const references = referencesIn(document)
  const [fileRefs, folderRefs] = [fileIds(references), folderIds(references)]
  const filesThere = fileRefs.length ? await db.select({ id: files.id }).from(files).where(and(inArray(files.id, fileRefs), isGivenOut)) : []
  const foldersThere = folderRefs.length ? await db.select({ id: folders.id }).from(folders).where(and(inArray(folders.id, folderRefs), isNull(folders.deleted))) : []
  const there = { file: new Set(filesThere.map(row => row.id)), folder: new Set(foldersThere.map(row => row.id)) }
  const posts = signpostIds(references)
  const pointing = posts.length ? await db.select({ id: signposts.id }).from(signposts).innerJoin(files, eq(files.id, signposts.fileId)).where(and(inArray(signposts.id, posts), isGivenOut)) : []
  const turned = new Set(pointing.map(row => row.id))
  const led = pageIds(references)
  const live = led.length ? await db.select({ id: pages.id }).from(pages).where(and(inArray(pages.id, led), isNotNull(pages.live), isNull(pages.edge))) : []
  const livePages = new Set([pageId, ...live.map(row => row.id)])
  return (reference) => {
    switch (reference.kind) {
      case 'file':
      case 'folder': return there[reference.kind].has(reference.id)
      case 'page': return livePages.has(reference.id)
      case 'signpost': return turned.has(reference.id)
      default: return true
    }
  }
}

/** Many small rows as one JSON text: taking them apart field by field would keep visitors waiting. */
async function inOneText<Row>(db: Queryable, rows: SQL): Promise<Row[]> {
  const { rows: [answer] } = await db.execute<{ found: Row[] | null }>(sql`select json_agg(found) as found from (${rows}) as found`)
  return answer?.found ?? []
}

/** Pages: their drafts, and the live versions made from them. */
export function createPageService(db: Database) {
  const selectItems = (q: Queryable) => q.select({ page: pages, published: pageVersions.published, broken: brokenCount }).from(pages)
    .leftJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))

  function toItem({ page, published, broken }: { page: PageRow, published: Date | null, broken: number }): PageItem {
    return {
      id: page.id, slug: page.slug, edge: page.edge, title: page.title, description: page.description, inMenu: page.inMenu, picture: page.picture, published: published?.toISOString() ?? null,
      waiting: page.liveRevision !== page.revision, broken, changed: page.changed.toISOString(),
    }
  }

  async function rowOf(q: Queryable, id: string): Promise<PageRow> {
    const [row] = await q.select().from(pages).where(eq(pages.id, id))
    if (!row) throw notFound('page')
    return row
  }

  async function pageRowOf(q: Queryable, id: string): Promise<PageRow> {
    const row = await rowOf(q, id)
    if (row.edge) throw new Problem(409, `“${row.title}” is no page of its own: it stands on each of them.`, 'Change what is on it instead.')
    return row
  }

  async function mustBePicture(tx: Queryable, id: string): Promise<void> {
    const file = await getFile(tx, id)
    if (file.deleted || file.family !== 'picture') throw new Problem(422, `“${file.title}” is no picture of the library.`, 'Choose a picture.', { field: 'picture' })
  }

  const taken = (slug: string, holder: string) =>
    new Problem(409, `“${holder}” is at /${slug} already.`, 'Choose another address for this one.', { field: 'slug' })

  async function versionOf(q: Queryable, id: string, number: number): Promise<PageText | undefined> {
    const [row] = await q.select({ title: pageVersions.title, document: pageVersions.document }).from(pageVersions)
      .where(and(eq(pageVersions.pageId, id), eq(pageVersions.number, number)))
    return row
  }

  /** Gives a page another address in the caller's transaction; the one it had redirects from then on. */
  async function moveTo(tx: Queryable, page: PageRow, slug: string): Promise<void> {
    if (page.slug === '') throw new Problem(409, 'The home page stays at /.', 'Make another page for the new address.', { field: 'slug' })
    const [holder] = await tx.select({ title: pages.title }).from(pages).where(eq(pages.slug, slug))
    if (holder) throw taken(slug, holder.title)
    await tx.delete(retiredSlugs).where(eq(retiredSlugs.slug, slug))
    await tx.update(pages).set({ slug }).where(eq(pages.id, page.id))
    await tx.insert(retiredSlugs).values({ slug: page.slug, pageId: page.id })
  }

  /** Makes a document the live version, in the caller's transaction. */
  async function goLive(tx: Queryable, page: PageRow, title: string, document: PageDocument, liveRevision: number | null) {
    const [last] = await tx.select({ number: sql<number>`coalesce(max(${pageVersions.number}), 0)::int` })
      .from(pageVersions).where(eq(pageVersions.pageId, page.id))
    const number = last!.number + 1
    await tx.insert(pageVersions).values({ pageId: page.id, number, title, document })
    await tx.update(pages).set({ live: number, liveRevision }).where(eq(pages.id, page.id))
    await recordUses(tx, page.id, 'live', document)
  }

  /** Changes drafts and live versions alike, as far as the change concerns them, without putting live what waits in a draft. In the caller's transaction. */
  async function rewrite(tx: Queryable, pageIds: string[], change: Rewriting): Promise<Rewritten[]> {
    const rewritten: Rewritten[] = []
    for (const pageId of pageIds) {
      const page = await rowOf(tx, pageId)
      const version = page.live === null ? undefined : await versionOf(tx, pageId, page.live)
      const draft = change(page.draft, 'draft', pageId)
      const live = version && change(version.document, 'live', pageId)
      const draftChanged = canonical(draft) !== canonical(page.draft)
      const revision = page.revision + (draftChanged ? 1 : 0)
      if (draftChanged) {
        await tx.update(pages).set({ draft, revision, changed: new Date() }).where(eq(pages.id, pageId))
        await recordUses(tx, pageId, 'draft', draft)
      }
      if (live && canonical(live) !== canonical(version.document)) {
        // A page that was up to date stays so; one with other changes waiting still has them.
        await goLive(tx, page, version.title, live, page.liveRevision === page.revision ? revision : page.liveRevision)
      }
      rewritten.push({ pageId, revision, draft: page.draft, live: version?.document })
    }
    return rewritten
  }

  async function refuseWhileLed(id: string, despite: boolean): Promise<void> {
    const places = despite ? [] : (await usesOfTarget(db, { kind: 'page', id })).filter(({ pageId }) => pageId !== id)
    if (places.length) throw new Problem(409, 'Other pages lead to this one.', 'Lead their buttons and links elsewhere, take them off, or go on all the same: visitors will not see them.', { uses: places })
  }

  const service = {
    async list(): Promise<PageItem[]> {
      // The home page first, then in the order they were made.
      const rows = await selectItems(db).orderBy(sql`${pages.slug} <> ''`, asc(pages.created))
      return rows.map(toItem)
    },

    async get(id: string): Promise<PageDetails> {
      const [row] = await selectItems(db).where(eq(pages.id, id))
      if (!row) throw notFound('page')
      const { draft, revision, live } = row.page
      return { ...toItem(row), draft, revision, live: live === null ? null : await versionOf(db, id, live) ?? null }
    },

    /** @throws Problem 409 where another page has the address */
    async create({ title, slug: asked, start }: NewPage, { home = false, draft = start ? STARTS[start].make() : emptyDocument() } = {}): Promise<PageDetails> {
      const id = newId()
      await db.transaction(async (tx) => {
        const holders = new Map((await tx.select({ slug: pages.slug, title: pages.title }).from(pages)).map(row => [row.slug, row.title]))
        const slug = home ? '' : asked ?? firstFree(slugFromTitle(title), candidate => holders.has(candidate))
        if (holders.has(slug)) throw taken(slug, holders.get(slug)!)
        // A page that is there comes before the memory of one that was.
        await tx.delete(retiredSlugs).where(eq(retiredSlugs.slug, slug))
        await tx.insert(pages).values({ id, title, slug, draft })
        await recordUses(tx, id, 'draft', draft)
      })
      return this.get(id)
    },

    /**
     * Saves the draft if nobody has changed it since `revision`.
     *
     * @throws Problem 409 where another tab or person has; nothing is overwritten
     */
    async saveDraft(id: string, { title, draft, revision }: SaveDraft): Promise<{ revision: number, /** it is not what is live */ waiting: boolean }> {
      return db.transaction(async (tx) => {
        const page = await rowOf(tx, id)
        if (page.revision !== revision) {
          throw new Problem(409, 'This page was changed somewhere else.', 'Load that version, or keep yours and replace it.', { revision: page.revision })
        }
        await tx.update(pages).set({ ...!page.edge && { title }, draft, revision: revision + 1, changed: new Date() }).where(eq(pages.id, id))
        await recordUses(tx, id, 'draft', draft)
        // What was undone waits no more: whoever looks at the list and whoever looks at the page sees the same. The database
        // compares: long documents would keep visitors waiting.
        const asLive = await tx.update(pages).set({ liveRevision: revision + 1 }).where(and(eq(pages.id, id), sql`exists (select 1 from ${pageVersions}
          where ${pageVersions.pageId} = ${id} and ${pageVersions.number} = ${pages.live} and ${pageVersions.title} = ${pages.title} and ${pageVersions.document} = ${pages.draft})`)).returning({ id: pages.id })
        return { revision: revision + 1, waiting: !asLive.length }
      })
    },

    /**
     * Puts the draft live, in one step.
     *
     * @throws Problem 409 with the placements in `broken` where some lead nowhere and `despite` is not set
     */
    async publish(id: string, { despite = false } = {}): Promise<PageItem> {
      await db.transaction(async (tx) => {
        const page = await rowOf(tx, id)
        const broken = brokenPlacements(page.draft, await reachableIn(tx, id, page.draft))
        if (broken.length && !despite) {
          const count = broken.length === 1 ? '1 button, link or shelf leads' : `${broken.length} buttons, links or shelves lead`
          throw new Problem(409, `${count} nowhere.`, 'Give each its file, or publish all the same: visitors will not see them.', { broken })
        }
        await goLive(tx, page, page.title, page.draft, page.revision)
      })
      return this.get(id)
    },

    /** Makes a page like another, as it is drafted; its buttons are counted by themselves. */
    async duplicate(id: string): Promise<PageDetails> {
      const { title, draft } = await pageRowOf(db, id)
      return this.create({ title: `${title.slice(0, 190)}, copy` }, { draft: withFreshPlacements(draft) })
    },

    /**
     * Changes what holds of draft and live page alike, at once.
     *
     * @throws Problem 409 where another page has the address, 422 where what shall be shown is no picture
     */
    async change(id: string, { slug, ...said }: PageSettings): Promise<PageDetails> {
      await db.transaction(async (tx) => {
        const page = await pageRowOf(tx, id)
        if (slug !== undefined && slug !== page.slug) await moveTo(tx, page, slug)
        if (said.picture) await mustBePicture(tx, said.picture)
        if (anyGiven(said)) await tx.update(pages).set(said).where(eq(pages.id, id))
      })
      return this.get(id)
    },

    /**
     * Takes a page from visitors; its draft and earlier versions stay.
     *
     * @throws Problem 409 with the places in `uses` where other pages lead to it and `despite` is not set
     */
    async unpublish(id: string, { despite = false } = {}): Promise<PageDetails> {
      await refuseWhileLed(id, despite)
      await db.transaction(async (tx) => {
        const page = await rowOf(tx, id)
        if (page.slug === '') throw new Problem(409, 'The home page stays live.', 'Change what is on it instead.')
        await tx.update(pages).set({ live: null, liveRevision: null }).where(eq(pages.id, id))
        await tx.delete(uses).where(and(eq(uses.pageId, id), eq(uses.side, 'live')))
      })
      return this.get(id)
    },

    /** The versions that were live, the newest first, each with what it changed. */
    async versions(id: string): Promise<PageVersion[]> {
      const page = await rowOf(db, id)
      const rows = await db.select().from(pageVersions).where(eq(pageVersions.pageId, id)).orderBy(desc(pageVersions.number)).limit(MOST_VERSIONS + 1)
      return rows.slice(0, MOST_VERSIONS).map(({ number, title, document, published }, index) => ({
        number, title, published: published.toISOString(), live: number === page.live, changes: changesBetween(rows[index + 1], { title, document }),
      }))
    },

    /** @throws Problem 404 */
    async version(id: string, number: number): Promise<PageText> {
      const version = await versionOf(db, id, number)
      if (!version) throw notFound('version')
      return version
    },

    /** Where pages are live, with when each was published last. */
    livePlaces: (): Promise<{ slug: string, published: Date }[]> => db.select({ slug: pages.slug, published: pageVersions.published }).from(pages)
      .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live))).where(isNull(pages.edge)).orderBy(sql`${pages.slug} <> ''`, asc(pages.created)),

    /**
     * Removes a page, its draft and its live versions.
     *
     * @throws Problem 409 with the places in `uses` where other pages lead to it and `despite` is not set
     */
    async remove(id: string, { despite = false } = {}): Promise<void> {
      const page = await pageRowOf(db, id)
      if (page.slug === '') throw new Problem(409, 'The home page stays.', 'Change what is on it instead.')
      await refuseWhileLed(id, despite)
      await db.delete(pages).where(eq(pages.id, id))
    },

    /**
     * Gives every placement of a target another one, or takes it off, in drafts and on live pages alike; a folder's
     * shelves can only be taken off. Where a file is shown, only another file can stand. In the caller's transaction.
     *
     * @returns the pages as they were before, and how many places changed
     */
    async retarget(tx: Queryable, from: Reference, to: Target | 'remove'): Promise<{ rewritten: Rewritten[], places: number }> {
      const rows = await tx.selectDistinct({ pageId: uses.pageId }).from(uses).where(leadsTo(from))
      const [key, staysShown] = [keyOf(from), from.kind === 'file' && to !== 'remove' && to.kind !== 'file']
      const changed = new Set<string>()
      const change: Rewriting = (document, _side, pageId) => mapTargets(document, (target, placement, shown) => {
        if (!target || keyOf(target) !== key || (shown && staysShown)) return target
        changed.add(`${pageId} ${placement}`)
        return to
      }, from.kind === 'folder' && to === 'remove' ? from.id : undefined)
      const rewritten = await rewrite(tx, rows.map(row => row.pageId), change)
      if (from.kind === 'file' && !staysShown) await tx.update(pages).set({ picture: to === 'remove' ? null : idOf(to) }).where(eq(pages.picture, from.id))
      return { rewritten, places: changed.size }
    },

    /** Changes pages, drafts and live versions alike, all or none. */
    edit(ids: string[], change: Rewriting): Promise<Rewritten[]> {
      return db.transaction(tx => rewrite(tx, ids, change))
    },

    /**
     * Puts pages back as they were before they were rewritten, all or none.
     *
     * @throws Problem 409 where one has been changed since
     */
    async takeBack(rewritten: Rewritten[]): Promise<void> {
      await db.transaction(tx => this.takeBackIn(tx, rewritten))
    },

    /** The same in the caller's transaction. */
    async takeBackIn(tx: Queryable, rewritten: Rewritten[]): Promise<void> {
      const before = new Map(rewritten.map(each => [each.pageId, each]))
      for (const { pageId, revision } of rewritten) {
        const page = await rowOf(tx, pageId)
        if (page.revision !== revision) throw new Problem(409, `“${page.title}” has been changed since.`, 'Open the page to change it there.')
      }
      await rewrite(tx, [...before.keys()], (document, side, pageId) => before.get(pageId)![side] ?? document)
    },

    /** Writes down anew what stands on pages whose uses an earlier version of Trough wrote down, which knew less of them. */
    async readUsesAnew(): Promise<void> {
      const rows = await db.selectDistinct({ id: uses.pageId }).from(uses).where(isNull(uses.section))
      for (const { id } of rows) {
        await db.transaction(async (tx) => {
          const page = await rowOf(tx, id)
          await recordUses(tx, id, 'draft', page.draft)
          const version = page.live === null ? undefined : await versionOf(tx, id, page.live)
          if (version) await recordUses(tx, id, 'live', version.document)
        })
      }
    },

    /** Where each look is worn, in drafts and on live pages. */
    async looksWorn(q: Queryable = db): Promise<LookUse[]> {
      const rows = await q.select({ id: pages.id, title: pages.title, draft: pages.draft, live: pageVersions.document }).from(pages)
        .leftJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
      return rows.flatMap(({ id: pageId, title: pageTitle, draft, live }) => {
        const worn = new Map<string, LookUse>()
        for (const [side, document] of [['draft', draft], ['live', live]] as const) {
          const sections = new Map(document ? placementsOf(document).map(({ id, section }) => [id, section]) : [])
          for (const { placement, label, look } of document ? buttonsIn(document) : []) {
            const key = `${placement} ${look}`
            const use = worn.get(key) ?? { look, pageId, pageTitle, placement, label, section: sections.get(placement) ?? '', draft: false, live: false }
            worn.set(key, { ...use, [side]: true })
          }
        }
        return [...worn.values()]
      })
    },

    /** Gives every button of a look another one, in drafts and on live pages. In the caller's transaction. */
    async changeLook(tx: Queryable, from: string, to: string): Promise<void> {
      const worn = await this.looksWorn(tx)
      const change = (document: PageDocument) => mapLooks(document, look => look === from ? to : look)
      await rewrite(tx, [...new Set(worn.filter(use => use.look === from).map(use => use.pageId))], change)
    },

    /** The live version at a slug; undefined where none is. */
    async live(slug: string): Promise<{ slug: string, title: string, description: string, picture: string | null, document: PageDocument } | undefined> {
      const [row] = await db.select({ slug: pages.slug, description: pages.description, picture: pages.picture, title: pageVersions.title, document: pageVersions.document }).from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(pages.slug, slug), isNull(pages.edge)))
      return row
    },

    /** What stands on every page, as far as it is live. */
    async edges(): Promise<EdgeDocuments> {
      const rows = await db.select({ edge: pages.edge, document: pageVersions.document }).from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live))).where(isNotNull(pages.edge))
      return Object.fromEntries(rows.map(({ edge, document }) => [edge, document]))
    },

    /** A shelf of a live page, with that page's title; undefined where no visitor sees it. */
    async liveShelf(placement: string): Promise<{ shelf: ShelfAttrs, pageTitle: string } | undefined> {
      const [row] = await db.select({ document: pageVersions.document, title: pageVersions.title }).from(uses).innerJoin(pages, eq(pages.id, uses.pageId))
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(uses.placement, placement), eq(uses.side, 'live'), eq(uses.kind, 'shelf'))).limit(1)
      const shelf = row && shelvesIn(row.document).find(one => one.placement === placement)
      return shelf && { shelf, pageTitle: row.title }
    },

    /** Those of some pages that are live, with their titles there. */
    async livePages(ids: string[]): Promise<Map<string, { slug: string, title: string }>> {
      if (!ids.length) return new Map()
      const rows = await db.select({ id: pages.id, slug: pages.slug, title: pageVersions.title }).from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live))).where(and(inArray(pages.id, ids), isNull(pages.edge)))
      return new Map(rows.map(({ id, slug, title }) => [id, { slug, title }]))
    },

    /** All pages that visitors can ask for, or could. */
    titles: (): Promise<{ id: string, slug: string, title: string, live: boolean }[]> =>
      inOneText(db, sql`select ${pages.id}, ${pages.slug}, ${pages.title}, ${pages.live} is not null as live from ${pages} where ${pages.edge} is null`),

    /** Live pages and edges, with what tells one state of them from another. */
    walkable: (): Promise<WalkablePage[]> => inOneText(db, sql`
      select ${pages.id}, ${pages.slug}, ${pages.title}, ${pages.edge}, ${pages.live}, ${pages.revision}, ${differs} as waiting from ${pages}
      where ${pages.live} is not null order by ${pages.edge} is not null, ${pages.slug} <> '', ${pages.created}`),

    /** What stands on live pages, and in their drafts where those wait. */
    async documents(ids: string[]): Promise<Map<string, { draft: PageDocument | null, live: PageDocument }>> {
      if (!ids.length) return new Map()
      const rows = await db.select({ id: pages.id, draft: sql<PageDocument | null>`case when ${differs} then ${pages.draft} end`, live: pageVersions.document }).from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live))).where(inArray(pages.id, ids))
      return new Map(rows.map(({ id, ...texts }) => [id, texts]))
    },

    /** The page at a slug, or the one that was there before it moved. */
    async at(slug: string): Promise<{ id: string, title: string } | undefined> {
      const [page] = await db.select({ id: pages.id, title: pages.title }).from(pages).where(and(eq(pages.slug, slug), isNull(pages.edge)))
      if (page) return page
      const [moved] = await db.select({ id: pages.id, title: pages.title }).from(retiredSlugs).innerJoin(pages, eq(pages.id, retiredSlugs.pageId)).where(eq(retiredSlugs.slug, slug))
      return moved
    },

    /** The live pages, in menu order. */
    async menu(): Promise<SiteFacts['menu']> {
      return db.select({ id: pages.id, slug: pages.slug, title: pageVersions.title }).from(pages)
        .innerJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(and(eq(pages.inMenu, true), isNull(pages.edge))).orderBy(sql`${pages.slug} <> ''`, asc(pages.created))
    },

    /** Completed downloads of each placement on a page, draft or live. */
    async downloads(id: string): Promise<Record<string, number>> {
      const rows = await db.execute<{ placement: string, count: number }>(sql`
        select d.placement, sum(d.count)::int as count from downloads d
        where d.placement in (select placement from uses where page_id = ${id}) group by d.placement`)
      return Object.fromEntries(rows.rows.map(row => [row.placement, row.count]))
    },
  }
  return service
}
export type PageService = ReturnType<typeof createPageService>
