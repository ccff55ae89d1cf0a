import { eq, isNull } from 'drizzle-orm'
import { broughtBy } from '../../../core/bundle/bundleEntry'
import { retargetEntries, type BundleUse } from '../../../core/bundle/retarget'
import type { FileItem } from '../../../core/files/fileItem'
import { Problem } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { bundles, files } from '../../db/schema'

/** The bundles that hold one of these files or folders; not those that go with them. */
export async function bundlesWith(tx: Queryable, fileIds: string[], folderIds: string[]): Promise<BundleUse[]> {
  const wanted = new Set([...fileIds, ...folderIds])
  if (!wanted.size) return []
  const rows = await tx.select({ id: files.id, title: files.title, entries: bundles.entries }).from(bundles).innerJoin(files, eq(files.id, bundles.fileId)).where(isNull(files.deleted))
  return rows.filter(({ id }) => !wanted.has(id)).flatMap(({ id: bundleId, title: bundleTitle, entries }) => {
    const held = new Map(entries.filter(entry => wanted.has(broughtBy(entry) ?? '')).map(entry => [broughtBy(entry)!, entry.kind]))
    return [...held].map(([id, kind]) => ({ bundleId, bundleTitle, fileId: kind === 'file' ? id : null, folderId: kind === 'folder' ? id : null }))
  })
}

/**
 * Puts another file in the place of those that go, or leaves them out.
 *
 * @throws Problem 422 where the other file is a bundle itself
 */
export async function retargetInBundles(tx: Queryable, held: BundleUse[], instead?: FileItem): Promise<void> {
  if (instead?.bundle && held.some(use => use.fileId)) throw new Problem(422, `“${instead.title}” is a bundle, and cannot lie in one.`, 'Choose a file that is stored.')
  const going = new Set(held.flatMap(({ fileId, folderId }) => fileId ?? folderId ?? []))
  for (const bundleId of new Set(held.map(use => use.bundleId))) {
    const [row] = await tx.select().from(bundles).where(eq(bundles.fileId, bundleId))
    await tx.update(bundles).set({ entries: retargetEntries(row!.entries, going, instead?.id), revision: row!.revision + 1, composed: new Date() }).where(eq(bundles.fileId, bundleId))
  }
}
