import { and, desc, eq, isNotNull, isNull, sql } from 'drizzle-orm'
import { changesBetween, type PageText } from '../../../core/page/changes'
import type { PageDetails, PageItem, PageVersion } from '../../../core/page/pageItem'
import type { PageDocument, Reference } from '../../../core/page/schema'
import { fileIds, folderIds, pageIds, referencesIn, signpostIds } from '../../../core/page/targets'
import { Problem, notFound } from '../../../core/problem'
import { brokenPlacements } from '../../../core/walk/broken'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { editions, files, folders, pageVersions, pages, signposts, uses } from '../../db/schema'
import { goLive } from './goLive'
import { refuseWhileLed } from './refuseWhileLed'
import { rowOf, versionOf } from './pageRows'

/** Visitors can have a file: it is not in the bin, and its current edition was not withdrawn. */
export const isGivenOut = sql`${files.deleted} is null and not exists (select 1 from ${editions} where ${editions.fileId} = ${files.id} and ${editions.number} = ${files.edition} and ${editions.withdrawn})`

/** Versions that are told at once. */
const MOST_VERSIONS = 50

/** Which of the things the document of a page leans on visitors can reach once it is live. */
async function reachableIn(db: Queryable, pageId: string, document: PageDocument): Promise<(reference: Reference) => boolean> {
  const references = referencesIn(document)
  const [fileRefs, folderRefs] = [fileIds(references), folderIds(references)]
  const filesThere = fileRefs.length
    ? await db
        .select({ id: files.id })
        .from(files)
        .where(and(among(files.id, fileRefs), isGivenOut))
    : []
  const foldersThere = folderRefs.length
    ? await db
        .select({ id: folders.id })
        .from(folders)
        .where(and(among(folders.id, folderRefs), isNull(folders.deleted)))
    : []
  const there = { file: new Set(filesThere.map(row => row.id)), folder: new Set(foldersThere.map(row => row.id)) }
  const posts = signpostIds(references)
  const pointing = posts.length
    ? await db
        .select({ id: signposts.id })
        .from(signposts)
        .innerJoin(files, eq(files.id, signposts.fileId))
        .where(and(among(signposts.id, posts), isGivenOut))
    : []
  const turned = new Set(pointing.map(row => row.id))
  const led = pageIds(references)
  const live = led.length
    ? await db
        .select({ id: pages.id })
        .from(pages)
        .where(and(among(pages.id, led), isNotNull(pages.live), isNull(pages.edge)))
    : []
  const livePages = new Set([pageId, ...live.map(row => row.id)])
  return reference => {
    switch (reference.kind) {
      case 'file':
      case 'folder':
        return there[reference.kind].has(reference.id)
      case 'page':
        return livePages.has(reference.id)
      case 'signpost':
        return turned.has(reference.id)
      default:
        return true
    }
  }
}

/** Pages go live, are taken from visitors, and keep the versions that were live. */
export function createPublishing(db: Database, get: (id: string) => Promise<PageDetails>) {
  return {
    /**
     * Puts the draft live, in one step.
     *
     * @throws Problem 409 with the placements in `broken` where some lead nowhere and `despite` is not set
     */
    async publish(id: string, { despite = false, by = '' } = {}): Promise<PageItem> {
      await db.transaction(async tx => {
        const page = await rowOf(tx, id)
        const broken = brokenPlacements(page.draft, await reachableIn(tx, id, page.draft))
        if (broken.length && !despite) {
          const count = broken.length === 1 ? '1 button, link or shelf leads' : `${broken.length} buttons, links or shelves lead`
          throw new Problem(409, `${count} nowhere.`, 'Give each its file, or publish all the same: visitors will not see them.', {
            broken,
          })
        }
        await goLive(tx, page, page.title, page.draft, page.revision, by)
      })
      return get(id)
    },

    /**
     * Takes a page from visitors; its draft and earlier versions stay.
     *
     * @throws Problem 409 with the places in `uses` where other pages lead to it and `despite` is not set
     */
    async unpublish(id: string, { despite = false } = {}): Promise<PageDetails> {
      await db.transaction(async tx => {
        await refuseWhileLed(tx, id, despite)
        const page = await rowOf(tx, id)
        if (page.slug === '') throw new Problem(409, 'The home page stays live.', 'Change what is on it instead.')
        await tx.update(pages).set({ live: null, liveRevision: null }).where(eq(pages.id, id))
        await tx.delete(uses).where(and(eq(uses.pageId, id), eq(uses.side, 'live')))
      })
      return get(id)
    },

    /** The versions that were live, the newest first, each with what it changed. */
    async versions(id: string): Promise<PageVersion[]> {
      const page = await rowOf(db, id)
      const rows = await db
        .select()
        .from(pageVersions)
        .where(eq(pageVersions.pageId, id))
        .orderBy(desc(pageVersions.number))
        .limit(MOST_VERSIONS + 1)
      return rows.slice(0, MOST_VERSIONS).map(({ number, title, document, published, by }, index) => ({
        number,
        title,
        published: published.toISOString(),
        by,
        live: number === page.live,
        changes: changesBetween(rows[index + 1], { title, document }),
      }))
    },

    /** @throws Problem 404 */
    async version(id: string, number: number): Promise<PageText> {
      const version = await versionOf(db, id, number)
      if (!version) throw notFound('version')
      return version
    },
  }
}
