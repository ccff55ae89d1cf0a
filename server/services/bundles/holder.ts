import { and, eq, isNull } from 'drizzle-orm'
import { broughtBy } from '../../../core/bundle/bundleEntry'
import { retargetEntries, type BundleUse } from '../../../core/bundle/retarget'
import { Problem } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { bundles, files } from '../../db/schema'
import type { Holder, LeanedOn } from '../uses/holders'
import { rowOf, type BundleRow } from './bundleRows'

/** The bundles that hold files or folders; not those that go with them. */
async function bundlesWith(q: Queryable, on: LeanedOn): Promise<BundleUse[]> {
  const wanted = new Set([...on.files, ...on.folders])
  if (!wanted.size) return []
  const rows = await q
    .select({ id: files.id, title: files.title, entries: bundles.entries })
    .from(bundles)
    .innerJoin(files, eq(files.id, bundles.fileId))
    .where(isNull(files.deleted))
  return rows
    .filter(({ id }) => !wanted.has(id))
    .flatMap(({ id: bundleId, title: bundleTitle, entries }) => {
      const held = new Map(entries.filter(entry => wanted.has(broughtBy(entry) ?? '')).map(entry => [broughtBy(entry)!, entry.kind]))
      return [...held].map(([id, kind]) => ({
        bundleId,
        bundleTitle,
        fileId: kind === 'file' ? id : null,
        folderId: kind === 'folder' ? id : null,
      }))
    })
}

/** What lies in bundles. */
export const bundleHolder: Holder = {
  places: async (q, on) => ({ bundles: await bundlesWith(q, on) }),

  async lead(tx, on, instead) {
    const held = await bundlesWith(tx, on)
    if (instead?.bundle && held.some(use => use.fileId))
      throw new Problem(422, `“${instead.title}” is a bundle, and cannot lie in one.`, 'Choose a file that is stored.')
    const going = new Set(held.flatMap(({ fileId, folderId }) => fileId ?? folderId ?? []))
    const before: BundleRow[] = []
    for (const id of new Set(held.map(use => use.bundleId))) {
      const row = (await rowOf(tx, id))!
      before.push(row)
      await tx
        .update(bundles)
        .set({ entries: retargetEntries(row.entries, going, instead?.id), revision: row.revision + 1, composed: new Date() })
        .where(eq(bundles.fileId, id))
    }
    return async later => {
      for (const { fileId, entries, revision } of before) {
        const back = await later
          .update(bundles)
          .set({ entries, revision: revision + 2, composed: new Date() })
          .where(and(eq(bundles.fileId, fileId), eq(bundles.revision, revision + 1)))
          .returning({ id: bundles.fileId })
        // One that is gone for good has nothing to be led back.
        if (!back.length && (await rowOf(later, fileId)))
          throw new Problem(409, 'A bundle has been composed anew since.', 'Open the bundle to change it there.')
      }
    }
  },
}
