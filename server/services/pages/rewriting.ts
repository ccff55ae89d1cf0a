import { and, eq, isNull, sql } from 'drizzle-orm'
import { canonical } from '../../../core/canonical'
import type { PageDocument, Reference, Target } from '../../../core/page/schema'
import type { LookUse } from '../../../core/look/look'
import { buttonsIn, mapLooks } from '../../../core/page/buttonLooks'
import { ledBack } from '../../../core/page/ledBack'
import { idOf, keyOf, mapTargets, placementsOf } from '../../../core/page/targets'
import { Problem } from '../../../core/problem'
import type { ShelfLook } from '../../../core/shelf/shelfLook'
import { withoutLook } from '../../../core/shelf/wearing'
import type { Database, Queryable } from '../../db/connection'
import { pageVersions, pages, uses, type Side } from '../../db/schema'
import { leadsTo, recordUses } from '../uses/recording'
import { goLive } from './goLive'
import { rowOf, versionOf } from './pageRows'

/** A page's document made into another. */
export type Rewriting = (document: PageDocument, side: Side, pageId: string) => PageDocument
/** A page that was rewritten, and what stood on it before. */
export interface Rewritten {
  pageId: string
  revision: number
  draft: PageDocument
  live: PageDocument | undefined
  /** what was made of them */
  after: { draft: PageDocument; live: PageDocument | undefined }
}

/**
 * Changes drafts and live versions alike, as far as the change concerns them, without putting live what waits in a draft. In the caller's
 * transaction.
 */
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
    rewritten.push({ pageId, revision, draft: page.draft, live: version?.document, after: { draft, live } })
  }
  return rewritten
}

interface Change {
  before: PageDocument
  after: PageDocument
}
/** A document as it was before the change that made it, or, written on since, led back by what each of some changes has led elsewhere. */
const backFrom = (now: PageDocument, changes: Change[]): PageDocument | undefined =>
  changes.find(({ after }) => canonical(after) === canonical(now))?.before ??
  changes.reduce<PageDocument | undefined>((document, { before, after }) => document && ledBack(document, before, after), now)

const changedSince = ({ title }: { title: string }) =>
  new Problem(409, `“${title}” has been changed since.`, 'Open the page to change it there.')

/** What stands on pages is changed from elsewhere: targets, looks, whatever is mended. */
export function createRewriting(db: Database) {
  return {
    /**
     * Gives every placement of a target another one, or takes it off, in drafts and on live pages alike; a folder's
     * shelves can only be taken off. Where a file is shown, only another file can stand. In the caller's transaction.
     *
     * @returns the pages as they were before, and how many places changed
     */
    async retarget(tx: Queryable, from: Reference, to: Target | 'remove'): Promise<{ rewritten: Rewritten[]; places: number }> {
      const rows = await tx.selectDistinct({ pageId: uses.pageId }).from(uses).where(leadsTo(from))
      const [key, staysShown] = [keyOf(from), from.kind === 'file' && to !== 'remove' && to.kind !== 'file']
      const changed = new Set<string>()
      const change: Rewriting = (document, _side, pageId) =>
        mapTargets(
          document,
          (target, placement, shown) => {
            if (!target || keyOf(target) !== key || (shown && staysShown)) return target
            changed.add(`${pageId} ${placement}`)
            return to
          },
          from.kind === 'folder' && to === 'remove' ? from.id : undefined,
        )
      const rewritten = await rewrite(
        tx,
        rows.map(row => row.pageId),
        change,
      )
      if (from.kind === 'file' && !staysShown)
        await tx
          .update(pages)
          .set({ picture: to === 'remove' ? null : idOf(to) })
          .where(eq(pages.picture, from.id))
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
      const before = new Map(rewritten.map(each => [each.pageId, each]))
      await db.transaction(async tx => {
        for (const { pageId, revision } of rewritten) {
          const page = await rowOf(tx, pageId)
          if (page.revision !== revision) throw changedSince(page)
        }
        await rewrite(tx, [...before.keys()], (document, side, pageId) => before.get(pageId)![side] ?? document)
      })
    },

    /**
     * Leads back what `retarget` has led elsewhere; what was written on those pages since stays. In the caller's transaction.
     *
     * @throws Problem 409 where something was taken off a page that has been changed since
     */
    async leadBack(tx: Queryable, rewritten: Rewritten[]): Promise<void> {
      for (const { pageId, draft, live, after } of rewritten.toReversed()) {
        const page = await rowOf(tx, pageId)
        const [onDraft, onLive] = [{ before: draft, after: after.draft }, live && after.live && { before: live, after: after.live }]
        await rewrite(tx, [pageId], (document, side) => {
          // A page that went live since did so with what was made of its draft.
          const back = backFrom(document, side === 'live' && onLive ? [onLive, onDraft] : [onDraft])
          if (!back) throw changedSince(page)
          return back
        })
      }
    },

    /** Writes down anew what stands on pages whose uses an earlier version of Trough wrote down, which knew less of them. */
    async readUsesAnew(): Promise<void> {
      const rows = await db.selectDistinct({ id: uses.pageId }).from(uses).where(isNull(uses.section))
      for (const { id } of rows) {
        await db.transaction(async tx => {
          const page = await rowOf(tx, id)
          await recordUses(tx, id, 'draft', page.draft)
          const version = page.live === null ? undefined : await versionOf(tx, id, page.live)
          if (version) await recordUses(tx, id, 'live', version.document)
        })
      }
    },

    /** Where each look is worn, in drafts and on live pages. */
    async looksWorn(q: Queryable = db): Promise<LookUse[]> {
      const rows = await q
        .select({ id: pages.id, title: pages.title, draft: pages.draft, live: pageVersions.document })
        .from(pages)
        .leftJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
      return rows.flatMap(({ id: pageId, title: pageTitle, draft, live }) => {
        const worn = new Map<string, LookUse>()
        for (const [side, document] of [
          ['draft', draft],
          ['live', live],
        ] as const) {
          const sections = new Map(document ? placementsOf(document).map(({ id, section }) => [id, section]) : [])
          for (const { placement, label, look } of document ? buttonsIn(document) : []) {
            const key = `${placement} ${look}`
            const use = worn.get(key) ?? {
              look,
              pageId,
              pageTitle,
              placement,
              label,
              section: sections.get(placement) ?? '',
              draft: false,
              live: false,
            }
            worn.set(key, { ...use, [side]: true })
          }
        }
        return [...worn.values()]
      })
    },

    /** Gives every button of a look another one, in drafts and on live pages. In the caller's transaction. */
    async changeLook(tx: Queryable, from: string, to: string): Promise<void> {
      const worn = await this.looksWorn(tx)
      const change = (document: PageDocument) => mapLooks(document, look => (look === from ? to : look))
      await rewrite(tx, [...new Set(worn.filter(use => use.look === from).map(use => use.pageId))], change)
    },

    /** Lets the shelves that wear a look keep what it says, in drafts and live. In the caller's transaction. */
    async keepShown(tx: Queryable, look: ShelfLook): Promise<void> {
      const worn = sql`${`lax $.** ? (@.type == "shelf" && @.attrs.look == "${look.id}")`}::jsonpath`
      const rows = await tx
        .select({ id: pages.id })
        .from(pages)
        .leftJoin(pageVersions, and(eq(pageVersions.pageId, pages.id), eq(pageVersions.number, pages.live)))
        .where(sql`jsonb_path_exists(${pages.draft}, ${worn}) or jsonb_path_exists(${pageVersions.document}, ${worn})`)
      await rewrite(
        tx,
        rows.map(({ id }) => id),
        document => withoutLook(document, look),
      )
    },
  }
}
