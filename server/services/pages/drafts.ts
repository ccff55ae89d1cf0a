import { and, asc, eq, sql } from 'drizzle-orm'
import { firstFree } from '../../../core/files/handle'
import { newId } from '../../../core/id'
import { withFreshPlacements } from '../../../core/page/copy'
import type { NewPage, PageDetails, PageItem, PageSettings, SaveDraft } from '../../../core/page/pageItem'
import { emptyDocument, type PageDocument } from '../../../core/page/schema'
import { slugFromTitle } from '../../../core/page/slug'
import { STARTS, listsItself } from '../../../core/page/starts'
import { Problem, notFound } from '../../../core/problem'
import type { Database, Queryable } from '../../db/connection'
import { anyGiven } from '../../db/given'
import { files, folders, pageVersions, pages, retiredSlugs, signposts, uses } from '../../db/schema'
import { getFile } from '../files/items'
import { mustBeGate } from '../gates/gates'
import { recordUses } from '../uses/recording'
import { pageRowOf, rowOf, versionOf, type PageRow } from './pageRows'
import { isGivenOut } from './publishing'

const brokenCount = sql<number>`(select count(distinct ${uses.placement})::int from ${uses}
  left join ${signposts} on ${signposts.id} = ${uses.signpostId}
  left join ${files} on ${files.id} = coalesce(${uses.fileId}, ${signposts.fileId}) and ${isGivenOut}
  left join ${folders} on ${folders.id} = ${uses.folderId} and ${folders.deleted} is null
  left join ${pages} as led on led.id = ${uses.toPage} and (led.live is not null or led.id = ${uses.pageId})
  where ${uses.pageId} = ${pages.id} and ${uses.side} = 'draft' and ${uses.kind} <> 'fill' and ${uses.address} is null and ${files.id} is null and ${folders.id} is null and led.id is null)`

function toItem({ page, published, broken }: { page: PageRow; published: Date | null; broken: number }): PageItem {
  return {
    id: page.id,
    slug: page.slug,
    edge: page.edge,
    catalogue: page.catalogueId,
    title: page.title,
    description: page.description,
    inMenu: page.inMenu,
    picture: page.picture,
    gate: page.gate,
    published: published?.toISOString() ?? null,
    waiting: page.liveRevision !== page.revision,
    broken,
    changed: page.changed.toISOString(),
  }
}

async function mustBePicture(tx: Queryable, id: string): Promise<void> {
  const file = await getFile(tx, id)
  if (file.deleted || file.family !== 'picture')
    throw new Problem(422, `“${file.title}” is no picture of the library.`, 'Choose a picture.', { field: 'picture' })
}

const taken = (slug: string, holder: string) =>
  new Problem(409, `“${holder}” is at /${slug} already.`, 'Choose another address for this one.', { field: 'slug' })

/** Gives a page another address in the caller's transaction; the one it had redirects from then on. */
async function moveTo(tx: Queryable, page: PageRow, slug: string): Promise<void> {
  if (page.slug === '') throw new Problem(409, 'The home page stays at /.', 'Make another page for the new address.', { field: 'slug' })
  const [holder] = await tx.select({ title: pages.title }).from(pages).where(eq(pages.slug, slug))
  if (holder) throw taken(slug, holder.title)
  await tx.delete(retiredSlugs).where(eq(retiredSlugs.slug, slug))
  await tx.update(pages).set({ slug }).where(eq(pages.id, page.id))
  await tx.insert(retiredSlugs).values({ slug: page.slug, pageId: page.id })
}

/** What the page of every entry is called on the desk. */
const layoutTitle = ({ one }: { one: string }) => `Page of each ${one}`

/** Pages as they are worked on: made, written, set. */
export function createDrafts(db: Database) {
  const selectItems = (q: Queryable) =>
    q
      .select({ page: pages, published: pageVersions.published, broken: brokenCount })
      .from(pages)
      .leftJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))

  return {
    async list(): Promise<PageItem[]> {
      // The home page first, then in the order they were made.
      const rows = await selectItems(db).orderBy(sql`${pages.slug} <> ''`, asc(pages.created))
      return rows.map(toItem)
    },

    async get(id: string): Promise<PageDetails> {
      const [row] = await selectItems(db).where(eq(pages.id, id))
      if (!row) throw notFound('page')
      const { draft, revision, live } = row.page
      return { ...toItem(row), draft, revision, live: live === null ? null : ((await versionOf(db, id, live)) ?? null) }
    },

    /** @throws Problem 409 where another page has the address */
    async create(
      { title, slug: asked, start }: NewPage,
      {
        home = false,
        draft = start ? STARTS[start].make() : emptyDocument(),
        gate = null,
      }: { home?: boolean; draft?: PageDocument; gate?: string | null } = {},
    ): Promise<PageDetails> {
      const id = newId()
      await db.transaction(async tx => {
        const holders = new Map((await tx.select({ slug: pages.slug, title: pages.title }).from(pages)).map(row => [row.slug, row.title]))
        const slug = home ? '' : (asked ?? firstFree(slugFromTitle(title), candidate => holders.has(candidate)))
        if (holders.has(slug)) throw taken(slug, holders.get(slug)!)
        // A page that is there comes before the memory of one that was.
        await tx.delete(retiredSlugs).where(eq(retiredSlugs.slug, slug))
        await tx.insert(pages).values({ id, title, slug, draft, gate, inMenu: home || listsItself(start) })
        await recordUses(tx, id, 'draft', draft)
      })
      return this.get(id)
    },

    /** Makes what the entries of a catalogue are laid out in; gives its identity. In the caller's transaction. */
    async createLayout(tx: Queryable, catalogue: { id: string; one: string }, draft: PageDocument): Promise<string> {
      const id = newId()
      // No visitor can ask for it by itself.
      await tx
        .insert(pages)
        .values({ id, title: layoutTitle(catalogue), slug: `* ${id}`, edge: 'entry', catalogueId: catalogue.id, draft, inMenu: false })
      await recordUses(tx, id, 'draft', draft)
      return id
    },

    /**
     * Saves the draft if nobody has changed it since `revision`.
     *
     * @throws Problem 409 where another tab or person has; nothing is overwritten
     */
    async saveDraft(
      id: string,
      { title, draft, revision }: SaveDraft,
    ): Promise<{ revision: number; /** it is not what is live */ waiting: boolean }> {
      return db.transaction(async tx => {
        // Not the draft: it may be long, and is not asked for.
        const [page] = await tx.select({ edge: pages.edge, revision: pages.revision }).from(pages).where(eq(pages.id, id))
        if (!page) throw notFound('page')
        if (page.revision !== revision) {
          throw new Problem(409, 'This page was changed somewhere else.', 'Load that version, or keep yours and replace it.', {
            revision: page.revision,
          })
        }
        await tx
          .update(pages)
          .set({ ...(!page.edge && { title }), draft, revision: revision + 1, changed: new Date() })
          .where(eq(pages.id, id))
        await recordUses(tx, id, 'draft', draft)
        // What was undone waits no more: whoever looks at the list and whoever looks at the page sees the same. The database
        // compares: long documents would keep visitors waiting.
        const asLive = await tx
          .update(pages)
          .set({ liveRevision: revision + 1 })
          .where(
            and(
              eq(pages.id, id),
              sql`exists (select 1 from ${pageVersions}
          where ${pageVersions.pageId} = ${id} and ${pageVersions.number} = ${pages.live} and ${pageVersions.title} = ${pages.title} and ${pageVersions.document} = ${pages.draft})`,
            ),
          )
          .returning({ id: pages.id })
        return { revision: revision + 1, waiting: !asLive.length }
      })
    },

    /** Makes a page like another, as it is drafted, behind the same gate; its buttons are counted by themselves. */
    async duplicate(id: string): Promise<PageDetails> {
      const { title, draft, gate } = await pageRowOf(db, id)
      return this.create({ title: `${title.slice(0, 190)}, copy` }, { draft: withFreshPlacements(draft), gate })
    },

    /**
     * Changes what holds of draft and live page alike, at once.
     *
     * @throws Problem 409 where another page has the address, 422 where what shall be shown is no picture
     */
    async change(id: string, { slug, ...said }: PageSettings): Promise<PageDetails> {
      await db.transaction(async tx => {
        // Entries have addresses and words of their own; a gate and a picture stand for all of them.
        const ofAll = slug === undefined && said.description === undefined && said.inMenu === undefined
        const row = ofAll ? await rowOf(tx, id) : undefined
        const page = row?.edge === 'entry' ? row : await pageRowOf(tx, id)
        if (slug !== undefined && slug !== page.slug) await moveTo(tx, page, slug)
        if (said.picture) await mustBePicture(tx, said.picture)
        await mustBeGate(tx, said.gate)
        if (anyGiven(said)) await tx.update(pages).set(said).where(eq(pages.id, id))
      })
      return this.get(id)
    },
  }
}
