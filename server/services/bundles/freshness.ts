import { eq } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { notFound } from '../../../core/problem'
import { createQueue } from '../../../core/queue'
import { ZipLayout } from '../../../core/zip/layout'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { bundles, files } from '../../db/schema'
import { laterTrouble } from '../../log'
import type { Events } from '../events'
import { rowOf } from './bundleRows'
import type { Composing, Reach } from './composing'
import type { LaidOut } from './packing'
import { unpackMembers } from './zipMembers'

/** A zip is laid out for the first who has it; most bundles change more often than they are downloaded. */
function layOutWhenAsked(packed: string, facts: Omit<LaidOut, 'layout'>): LaidOut {
  let layout: ZipLayout | undefined
  return {
    ...facts,
    get layout() {
      return (layout ??= new ZipLayout(unpackMembers(packed)))
    },
  }
}

const meet = (large: ReadonlySet<string>, small: ReadonlySet<string>) => [...small].some(id => large.has(id))

/** Keeps true what is known of bundles: which files lie in each, and how its zip is laid out. */
export function createFreshness(db: Database, events: Events, composing: Composing) {
  const laid = new LRUCache<string, LaidOut>({ max: 200 })
  const reaches = new Map<string, Reach>()
  const oneAtATime = createQueue()
  let suspects = new Set<string>()
  let suspectCatalogues = new Set<string>()
  let allSuspect = true
  /** what was in doubt is being looked at: what is laid out may be out of date until that has ended */
  let looking = false

  const isInDoubt = () => allSuspect || suspects.size > 0 || suspectCatalogues.size > 0
  const soon = () => void setImmediate(() => freshen().catch(laterTrouble('bundles could not be brought up to date yet')))
  events.on('library', ids => {
    ids.forEach(id => suspects.add(id))
    soon()
  })
  events.on('folders', () => {
    allSuspect = true
    soon()
  })
  for (const event of ['entries', 'catalogues'] as const)
    events.on(event, ids => {
      ids.forEach(id => suspectCatalogues.add(id.split('/')[0]!))
      soon()
    })

  /** Brings what is said of a bundle up to date. */
  async function layOut(id: string): Promise<void> {
    const row = await rowOf(db, id)
    if (!row) {
      reaches.delete(id)
      laid.delete(id)
      return
    }
    const { packed, fingerprint, size, total, reach, fileIds, gates } = await composing.compose(row)
    const same = fingerprint === row.fingerprint
    const changed = same ? row.changed : new Date()
    // Pages say what is asked for it.
    if (gates.join() !== row.gates.join()) await db.update(bundles).set({ gates }).where(eq(bundles.fileId, id))
    if (!same) await db.update(bundles).set({ fingerprint, changed, size, count: total }).where(eq(bundles.fileId, id))
    reaches.set(id, reach)
    laid.set(id, layOutWhenAsked(packed, { fileName: row.fileName, fingerprint, changed, gates, members: fileIds }))
  }

  /** Of the files that changed, the bundles they are in, were in, or are. */
  async function affected(ids: Set<string>): Promise<Set<string>> {
    const found = new Set<string>()
    const rows = await db
      .select({ id: files.id, folder: files.folder, bundle: bundles.fileId })
      .from(files)
      .leftJoin(bundles, eq(bundles.fileId, files.id))
      .where(among(files.id, ids))
    const folders = new Set(rows.flatMap(({ folder }) => folder ?? []))
    for (const { bundle } of rows) if (bundle) found.add(bundle)
    for (const [bundle, reach] of reaches) {
      if (meet(reach.files, ids) || meet(reach.folders, folders)) found.add(bundle)
    }
    return found
  }

  async function refresh(): Promise<void> {
    const [ids, all, ofCatalogues] = [suspects, allSuspect, suspectCatalogues]
    suspects = new Set()
    suspectCatalogues = new Set()
    allSuspect = false
    looking = true
    try {
      const stale = all
        ? new Set((await db.select({ id: bundles.fileId }).from(bundles)).map(row => row.id))
        : ids.size
          ? await affected(ids)
          : new Set<string>()
      for (const [bundle, { catalogues }] of reaches) if (meet(catalogues, ofCatalogues)) stale.add(bundle)
      for (const id of stale) await layOut(id)
    } catch (error) {
      // What could not be looked at is still in doubt.
      ids.forEach(id => suspects.add(id))
      ofCatalogues.forEach(id => suspectCatalogues.add(id))
      allSuspect ||= all
      throw error
    } finally {
      looking = false
    }
  }

  const freshen = () =>
    oneAtATime(async () => {
      if (isInDoubt()) await refresh()
    })

  /** @throws Problem 404 where it is no bundle */
  async function laidOut(id: string): Promise<LaidOut> {
    if (isInDoubt() || looking) await freshen()
    const known = laid.get(id)
    if (known) return known
    await oneAtATime(() => layOut(id))
    const made = laid.get(id)
    if (!made) throw notFound('bundle')
    return made
  }

  return {
    laidOut,
    freshen,

    /** The bundles a file lies in, as it was known last. */
    holding: (fileId: string): string[] => [...reaches].flatMap(([id, reach]) => (reach.files.has(fileId) ? [id] : [])),
  }
}
