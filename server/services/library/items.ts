import { and, asc, count, desc, eq, ilike, inArray, isNotNull, isNull, or, sql, type SQL } from 'drizzle-orm'
import type { FileItem, FileQuery, FileUse } from '../../../core/files/item'
import { familyOf, typeTag } from '../../../core/files/mediaType'
import { remarksOn } from '../../../core/files/remarks'
import { notFound } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { blobs, downloads, editions, files, pages, uses } from '../../db/schema'

const useCount = sql<number>`(select count(distinct (${uses.pageId}, ${uses.placement}))::int from ${uses} where ${uses.fileId} = ${files.id})`
const downloadCount = sql<number>`(select count(*)::int from ${downloads} where ${downloads.fileId} = ${files.id})`

const columns = { file: files, edition: editions, blob: blobs, uses: useCount, downloads: downloadCount }

const current = (db: Queryable) => db.select(columns).from(files)
  .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
  .innerJoin(blobs, eq(blobs.sha256, editions.sha256))

type Row = Awaited<ReturnType<typeof current>>[number]

function toItem({ file, edition, blob, uses, downloads }: Row): FileItem {
  const { fileName, mediaType } = edition
  const { size, sha256, preview, previewError, facts } = blob
  return {
    id: file.id,
    title: file.title,
    handle: file.handle,
    folder: null,
    edition: file.edition,
    fileName,
    mediaType,
    tag: typeTag(mediaType),
    family: familyOf(mediaType),
    size,
    sha256,
    crc32: blob.crc32.toString(16).padStart(8, '0'),
    ...facts,
    preview,
    previewError,
    created: file.created.toISOString(),
    changed: file.changed.toISOString(),
    deleted: file.deleted?.toISOString() ?? null,
    remarks: remarksOn({ fileName, mediaType, size }),
    uses,
    downloads,
  }
}

/** `%` and `_` mean themselves in what people type. */
const contains = (text: string) => `%${text.replace(/[\\%_]/g, '\\$&')}%`

const ORDER: Record<FileQuery['sort'], SQL[]> = {
  newest: [desc(files.changed), desc(files.id)],
  oldest: [asc(files.changed), asc(files.id)],
  title: [asc(sql`lower(${files.title})`), asc(files.id)],
  size: [desc(blobs.size), asc(files.id)],
  used: [desc(useCount), desc(files.changed)],
}

const FAMILIES = ['document', 'sheet', 'slides', 'picture', 'sound', 'film', 'archive', 'other']

/** Files by part of their name, of a type, in an order, a stretch at a time. */
export async function listFiles(db: Queryable, query: FileQuery): Promise<{ items: FileItem[], total: number }> {
  // Every file lies at the top of the library: no other folder has anything in it.
  if (query.folder) throw notFound('folder')
  const conditions: (SQL | undefined)[] = [query.bin ? isNotNull(files.deleted) : isNull(files.deleted)]
  if (query.q) {
    const pattern = contains(query.q)
    conditions.push(or(ilike(files.title, pattern), ilike(editions.fileName, pattern), ilike(files.handle, pattern)))
  }
  if (query.type && FAMILIES.includes(query.type)) {
    const known = await db.selectDistinct({ mediaType: editions.mediaType }).from(editions)
    const types = known.map(row => row.mediaType).filter(type => familyOf(type) === query.type)
    conditions.push(types.length ? inArray(editions.mediaType, types) : sql`false`)
  }
  else if (query.type) {
    conditions.push(eq(editions.mediaType, query.type))
  }
  const where = and(...conditions)
  const rows = await current(db).where(where).orderBy(...ORDER[query.sort]).limit(query.limit).offset(query.from)
  const [counted] = await db.select({ total: count() }).from(files)
    .innerJoin(editions, and(eq(editions.fileId, files.id), eq(editions.number, files.edition)))
    .innerJoin(blobs, eq(blobs.sha256, editions.sha256)).where(where)
  return { items: rows.map(toItem), total: counted!.total }
}

/** Files by identity, those in the bin too. */
export async function filesById(db: Queryable, ids: string[]): Promise<FileItem[]> {
  return ids.length ? (await current(db).where(inArray(files.id, ids))).map(toItem) : []
}

/** One file, in the bin or not. */
export async function getFile(db: Queryable, id: string): Promise<FileItem> {
  const [item] = await filesById(db, [id])
  if (!item) throw notFound('file')
  return item
}

/** Other files outside the bin that hold the same bytes. */
export async function twinsOf(db: Queryable, { id, sha256 }: Pick<FileItem, 'id' | 'sha256'>): Promise<FileItem[]> {
  const rows = await current(db).where(and(eq(editions.sha256, sha256), isNull(files.deleted), sql`${files.id} <> ${id}`)).orderBy(asc(files.created))
  return rows.map(toItem)
}

/** Where a file is used, drafts and live pages merged by placement. */
export async function usesOf(db: Queryable, fileId: string): Promise<FileUse[]> {
  const rows = await db.select({
    pageId: pages.id, pageTitle: pages.title, slug: pages.slug,
    placement: uses.placement, kind: uses.kind, label: uses.label, side: uses.side,
  }).from(uses).innerJoin(pages, eq(pages.id, uses.pageId)).where(eq(uses.fileId, fileId)).orderBy(asc(pages.title), asc(uses.label), asc(uses.side))
  const merged = new Map<string, FileUse>()
  for (const { side, ...row } of rows) {
    const known = merged.get(`${row.pageId} ${row.placement}`)
    merged.set(`${row.pageId} ${row.placement}`, {
      ...known ?? row, draft: side === 'draft' || !!known?.draft, live: side === 'live' || !!known?.live,
    })
  }
  return [...merged.values()]
}
