import { and, eq, gt, isNotNull, isNull, sql, type SQL } from 'drizzle-orm'
import type { Facts, FileItem, PreviewState, ReadingState } from '../../../core/files/fileItem'
import { familyOf, typeTag } from '../../../core/files/mediaType'
import { remarksOn } from '../../../core/files/remarks'
import { Problem, notFound } from '../../../core/problem'
import type { Trouble } from '../../../core/trust/trustReports'
import { filledLooks } from '../uses/filled'
import { among } from '../../db/among'
import type { Queryable } from '../../db/connection'
import { blobs, bundles, downloads, editions, entries, entryFiles, files, pages, signposts, uses } from '../../db/schema'

/** A file with its current edition and that one's bytes, or a bundle, as the database writes it in JSON. */
interface Row {
  id: string
  title: string
  handle: string
  edition: number
  folder: string | null
  position: number
  description: string
  tags: string[]
  picture: string | null
  see: boolean | null
  gate: string | null
  created: string
  changed: string
  deleted: string | null
  file_name: string
  media_type: string
  withdrawn: boolean | null
  size: number
  reading_error: string | null
  trouble: Trouble | null
  /** these are null for a bundle, whose bytes are stored nowhere */
  sha256: string | null
  crc32: number | null
  facts: Facts | null
  preview: PreviewState | null
  reading: ReadingState | null
  /** of the file that is its picture */
  picture_facts: Facts | null
  /** files in a bundle; null for other files */
  members: number | null
  gates: string[] | null
}

/**
 * Files with their current editions. They come as one JSON text: taking apart 50,000 rows field by field takes
 * ten times as long.
 */
async function readRows(db: Queryable, where: SQL, batch?: { behind: string; limit: number }): Promise<Row[]> {
  // Said of both tables: else the join begins at the first edition each time.
  const behind = batch ? sql`and ${editions.fileId} > ${batch.behind}` : sql``
  const {
    rows: [answer],
  } = await db.execute<{ rows: Row[] | null }>(sql`select json_agg(found) as rows from (
    select ${files.id}, ${files.title}, ${files.handle}, ${files.edition}, ${files.folder}, ${files.position}, ${files.description}, ${files.tags}, ${files.picture}, ${files.see}, ${files.gate},
      ${files.created}, ${files.changed}, ${files.deleted},
      coalesce(${editions.fileName}, ${bundles.fileName}) as file_name, coalesce(${editions.mediaType}, 'application/zip') as media_type, ${editions.withdrawn},
      ${blobs.sha256}, coalesce(${blobs.size}, ${bundles.size}) as size, ${blobs.crc32}, ${blobs.facts}, ${blobs.preview}, ${blobs.reading}, ${blobs.readingError}, ${blobs.trouble}, ${bundles.count} as members, ${bundles.gates},
      case when ${files.picture} is null then null else (select shown.facts from ${files} given join ${editions} current on current.file_id = given.id and current.number = given.edition
        join ${blobs} shown on shown.sha256 = current.sha256 where given.id = ${files.picture}) end as picture_facts
    from ${files} left join ${editions} on ${editions.fileId} = ${files.id} and ${editions.number} = ${files.edition} ${behind}
    left join ${blobs} on ${blobs.sha256} = ${editions.sha256} left join ${bundles} on ${bundles.fileId} = ${files.id}
    where ${batch ? sql`${files.id} > ${batch.behind} order by ${files.id} limit ${batch.limit}` : where}) as found`)
  return answer?.rows ?? []
}

/** What is counted for files, each by identity. */
interface Counts {
  uses: Map<string, number>
  downloads: Map<string, number>
  newest: Map<string, number>
}

const toMap = (rows: { fileId: string | null; count: number }[]) =>
  new Map(rows.flatMap(({ fileId, count }) => (fileId ? [[fileId, count] as const] : [])))

/**
 * How many placements lead to each file that is used, straight or by a signpost, signposts point at it, pages are shown with it, looks
 * filled with it and entries hold it; of the files named, or of all.
 */
export async function countUses(db: Queryable, ids?: string[]): Promise<Map<string, number>> {
  const counts = toMap(
    await db
      .select({ fileId: uses.fileId, count: sql<number>`count(distinct (${uses.pageId}, ${uses.placement}))::int` })
      .from(uses)
      .where(ids && among(uses.fileId, ids))
      .groupBy(uses.fileId),
  )
  const shared = await db
    .select({ fileId: pages.picture, count: sql<number>`count(*)::int` })
    .from(pages)
    .where(ids ? among(pages.picture, ids) : isNotNull(pages.picture))
    .groupBy(pages.picture)
  const filled = (await filledLooks(db)).filter(({ fileId }) => !ids || ids.includes(fileId)).map(({ fileId }) => ({ fileId, count: 1 }))
  const pointed = await db
    .select({
      fileId: signposts.fileId,
      count: sql<number>`(count(distinct (${uses.pageId}, ${uses.placement})) filter (where ${uses.pageId} is not null) + count(distinct ${signposts.id}))::int`,
    })
    .from(signposts)
    .leftJoin(uses, eq(uses.signpostId, signposts.id))
    .where(ids ? among(signposts.fileId, ids) : isNotNull(signposts.fileId))
    .groupBy(signposts.fileId)
  // Fields of entries that hold it, written and live alike.
  const held = await db
    .select({ fileId: entryFiles.fileId, count: sql<number>`count(distinct (${entryFiles.entryId}, ${entryFiles.field}))::int` })
    .from(entryFiles)
    .innerJoin(entries, and(eq(entries.id, entryFiles.entryId), isNull(entries.deleted)))
    .where(ids && among(entryFiles.fileId, ids))
    .groupBy(entryFiles.fileId)
  for (const { fileId, count } of [...shared, ...filled, ...pointed, ...held]) counts.set(fileId!, (counts.get(fileId!) ?? 0) + count)
  return counts
}

async function countAll(db: Queryable, ids?: string[]): Promise<Counts> {
  const downloaded = await db
    .select({ fileId: downloads.fileId, count: sql<number>`sum(${downloads.count})::int` })
    .from(downloads)
    .where(ids && among(downloads.fileId, ids))
    .groupBy(downloads.fileId)
  // Few files have more than one edition.
  const newest = await db
    .select({ fileId: editions.fileId, count: sql<number>`max(${editions.number})::int` })
    .from(editions)
    .where(and(gt(editions.number, 1), ids && among(editions.fileId, ids)))
    .groupBy(editions.fileId)
  return { uses: await countUses(db, ids), downloads: toMap(downloaded), newest: toMap(newest) }
}

const iso = (moment: string) => new Date(moment).toISOString()

/** Pixels of what shows a file: itself, or its first page. */
function extentOf({ width, height, cover }: Facts): FileItem['pictureExtent'] {
  return width && height ? { width, height } : (cover ?? null)
}

function toItem(row: Row, counts: Counts): FileItem {
  const { id, title, handle, folder, position, description, tags, picture, see, gate, edition, size } = row
  const [fileName, mediaType] = [row.file_name, row.media_type]
  return {
    id,
    title,
    handle,
    folder,
    position,
    description,
    tags,
    picture,
    see,
    gate,
    gates: row.gates ?? [],
    edition,
    fileName,
    mediaType,
    tag: typeTag(mediaType),
    family: familyOf(mediaType),
    size,
    bundle: row.members !== null,
    sha256: row.sha256 ?? '',
    crc32: (row.crc32 ?? 0).toString(16).padStart(8, '0'),
    facts: row.facts ?? { entries: row.members ?? 0 },
    preview: row.preview ?? 'none',
    pictureExtent: row.picture_facts && extentOf(row.picture_facts),
    reading: row.reading ?? 'done',
    readingError: row.reading_error,
    created: iso(row.created),
    changed: iso(row.changed),
    deleted: row.deleted === null ? null : iso(row.deleted),
    remarks: remarksOn({ fileName, mediaType, size, trouble: row.trouble }),
    uses: counts.uses.get(id) ?? 0,
    downloads: counts.downloads.get(id) ?? 0,
    waits: (counts.newest.get(id) ?? 1) > edition,
    withdrawn: row.withdrawn === true,
  }
}

async function read(db: Queryable, where: SQL): Promise<FileItem[]> {
  const rows = await readRows(db, where)
  const counts = await countAll(
    db,
    rows.map(row => row.id),
  )
  return rows.map(row => toItem(row, counts))
}

/** Files by identity, those in the bin too. */
export const filesById = async (db: Queryable, ids: string[]): Promise<FileItem[]> => (ids.length ? read(db, among(files.id, ids)) : [])

const NOTHING_COUNTED: Counts = { uses: new Map(), downloads: new Map(), newest: new Map() }

/**
 * Files by identity, without what has to be counted for them (uses, downloads, whether an edition waits): one question instead of seven.
 */
export const filesUncounted = async (db: Queryable, ids: string[]): Promise<FileItem[]> =>
  ids.length ? (await readRows(db, among(files.id, ids))).map(row => toItem(row, NOTHING_COUNTED)) : []

/** Files whose current edition holds these bytes, those in the bin too. */
export const filesWithBytes = async (db: Queryable, sha256: string[]): Promise<FileItem[]> =>
  sha256.length ? read(db, among(editions.sha256, sha256)) : []

/** Every file there is, a few at a time in the order of their identities: no batch holds a visitor up for long. */
export async function* allFiles(db: Queryable, batch = 120): AsyncGenerator<FileItem[]> {
  const counts = await countAll(db)
  for (let last = '', more = true; more;) {
    const rows = await readRows(db, sql`true`, { behind: last, limit: batch })
    if (rows.length) yield rows.map(row => toItem(row, counts))
    more = rows.length === batch
    last = rows.at(-1)?.id ?? last
  }
}

/** Whether visitors can have a file. */
export const isOut = ({ deleted, withdrawn }: FileItem): boolean => deleted !== null || withdrawn

/** One file, in the bin or not. */
export async function getFile(db: Queryable, id: string): Promise<FileItem> {
  const [item] = await filesById(db, [id])
  if (!item) throw notFound('file')
  return item
}

/** @throws Problem 422 where a file has no bytes of its own */
export function mustBeStored(file: FileItem): FileItem {
  if (file.bundle)
    throw new Problem(422, `“${file.title}” is a bundle.`, 'It is put together as it is sent: look at the files that are in it.')
  return file
}
