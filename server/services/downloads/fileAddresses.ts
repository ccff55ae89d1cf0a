import { eq, isNull } from 'drizzle-orm'
import { filePath } from '../../../core/page/href'
import { normalPath } from '../../../core/oldAddresses/path'
import type { KnownFile } from '../../../core/tally/brought/logCount'
import type { Database } from '../../db/connection'
import { blobs, editions, files, oldAddresses, retiredHandles } from '../../db/schema'

/** Every file by all that numbers of before may call it: its addresses of now and before, handle, title and file name. */
export async function fileAddresses(db: Database): Promise<Record<string, KnownFile>> {
  const rows = await db
    .select({ id: files.id, handle: files.handle, title: files.title, fileName: editions.fileName, size: blobs.size })
    .from(files)
    .innerJoin(editions, eq(editions.fileId, files.id))
    .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
    .where(isNull(files.deleted))
  const known = new Map<string, KnownFile & { sizes: number[] }>()
  for (const { id, size } of rows) known.set(id, { id, sizes: [...(known.get(id)?.sizes ?? []), size] })

  const found: Record<string, KnownFile> = Object.create(null) as Record<string, KnownFile>
  const name = (key: string, id: string) => {
    const file = known.get(id)
    // An address of now says more than a title that is the same by chance.
    if (file && key) found[key] ??= file
  }
  for (const { id, handle } of rows) name(normalPath(filePath(handle)), id)
  const retired = await db.select({ handle: retiredHandles.handle, id: retiredHandles.fileId }).from(retiredHandles)
  for (const { handle, id } of retired) if (id) name(normalPath(filePath(handle)), id)
  const before = await db.select({ path: oldAddresses.path, target: oldAddresses.target }).from(oldAddresses)
  for (const { path, target } of before) if (target?.kind === 'file') name(normalPath(path).split('?')[0]!, target.id)
  for (const { id, handle } of rows) name(handle.toLowerCase(), id)
  for (const { id, title, fileName } of rows) {
    name(title.toLowerCase(), id)
    name(fileName.toLowerCase(), id)
  }
  return found
}
