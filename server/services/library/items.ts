import { and, asc, eq, gt, inArray, sql, type SQL } from 'drizzle-orm'
import type { FileItem, FileUse } from '../../../core/files/item'
import { familyOf, typeTag } from '../../../core/files/mediaType'
import { remarksOn } from '../../../core/files/remarks'
import { notFound } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { blobs, downloads, editions, files, pages, uses } from '../../db/schema'

const useCount = sql<number>`(select count(distinct (${uses.pageId}, ${uses.placement}))::int from ${uses} where ${uses.fileId} = ${files.id})`
const downloadCount = sql<number>`(select count(*)::int from ${downloads} where ${downloads.fileId} = ${files.id})`
const hasNewer = sql<boolean>`exists (select 1 from ${editions} as newer where newer.file_id = ${files.id} and newer.number > ${files.edition})`
const columns = { file: files, edition: editions, blob: blobs, uses: useCount, downloads: downloadCount, waits: hasNewer }

const current = (db: Queryable) => db.select(columns).from(files)
  .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
  .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
type Row = Awaited<ReturnType<typeof current>>[number]

function toItem({ file, edition, blob, uses, downloads, waits }: Row): FileItem {
  const { fileName, mediaType } = edition
  const { size, sha256, preview, reading, readingError, facts } = blob
  const { id, title, handle, folder, position, description, tags, picture } = file
  return {
    id,
    title,
    handle,
    folder,
    position,
    description,
    tags,
    picture,
    edition: file.edition,
    fileName,
    mediaType,
    tag: typeTag(mediaType),
    family: familyOf(mediaType),
    size,
    sha256,
    crc32: blob.crc32.toString(16).padStart(8, '0'),
    facts,
    preview,
    reading,
    readingError,
    created: file.created.toISOString(),
    changed: file.changed.toISOString(),
    deleted: file.deleted?.toISOString() ?? null,
    remarks: remarksOn({ fileName, mediaType, size }),
    uses,
    downloads,
    waits,
  }
}

async function read(db: Queryable, where: SQL | undefined): Promise<FileItem[]> {
  return (await current(db).where(where)).map(toItem)
}

/** Files by identity, those in the bin too. */
export const filesById = async (db: Queryable, ids: string[]): Promise<FileItem[]> =>
  ids.length ? read(db, inArray(files.id, ids)) : []

/** Files whose current edition holds these bytes, those in the bin too. */
export const filesWithBytes = async (db: Queryable, sha256: string[]): Promise<FileItem[]> =>
  sha256.length ? read(db, inArray(editions.sha256, sha256)) : []

/** Every file there is, `count` at a time in the order of their identities. */
export async function* allFiles(db: Queryable, count = 1000): AsyncGenerator<FileItem[]> {
  for (let last = '', more = true; more;) {
    const items = (await current(db).where(gt(files.id, last)).orderBy(asc(files.id)).limit(count)).map(toItem)
    if (items.length) yield items
    more = items.length === count
    last = items.at(-1)?.id ?? last
  }
}

/** One file, in the bin or not. */
export async function getFile(db: Queryable, id: string): Promise<FileItem> {
  const [item] = await filesById(db, [id])
  if (!item) throw notFound('file')
  return item
}

/** How many placements lead to each file that is used. */
export async function countUses(db: Queryable): Promise<Map<string, number>> {
  const rows = await db.select({ fileId: uses.fileId, count: sql<number>`count(distinct (${uses.pageId}, ${uses.placement}))::int` })
    .from(uses).groupBy(uses.fileId)
  return new Map(rows.flatMap(({ fileId, count }) => fileId ? [[fileId, count]] : []))
}

/** Where files are used, drafts and live pages merged by placement. */
export async function usesOf(db: Queryable, fileIds: string[]): Promise<FileUse[]> {
  if (!fileIds.length) return []
  const rows = await db.select({
    fileId: sql<string>`${uses.fileId}`, pageId: pages.id, pageTitle: pages.title, slug: pages.slug,
    placement: uses.placement, kind: uses.kind, label: uses.label, side: uses.side,
  }).from(uses).innerJoin(pages, eq(pages.id, uses.pageId)).where(inArray(uses.fileId, fileIds)).orderBy(asc(pages.title), asc(uses.label), asc(uses.side))
  const merged = new Map<string, FileUse>()
  for (const { side, ...row } of rows) {
    const key = `${row.pageId} ${row.placement} ${row.fileId}`
    const known = merged.get(key)
    merged.set(key, { ...known ?? row, draft: side === 'draft' || !!known?.draft, live: side === 'live' || !!known?.live })
  }
  return [...merged.values()]
}
