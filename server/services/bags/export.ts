import { createHash } from 'node:crypto'
import { crc32 } from 'node:zlib'
import { asc, eq, isNull } from 'drizzle-orm'
import papa from 'papaparse'
import { DECLARATION, writeBagInfo, writeManifest } from '../../../core/bag/manifest'
import {
  BUNDLES_JSON,
  FILES_CSV,
  FILE_COLUMNS,
  FOLDERS_CSV,
  FOLDER_COLUMNS,
  type BundleRow,
  type FileLine,
  type FolderLine,
} from '../../../core/bag/metadata'
import { groupBy } from '../../../core/group'
import { slugify } from '../../../core/files/handle'
import { gateOf } from '../../../core/gate/standing'
import { Problem } from '../../../core/problem'
import { writeSeveral } from '../../../core/several'
import { ZipLayout, type ZipMember } from '../../../core/zip/layout'
import { distinctPaths } from '../../../core/zip/safePaths'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { blobs, bundles, editions, files, gates, retiredHandles } from '../../db/schema'
import type { LaidOut } from '../bundles/packing'
import { mustHave, readTree } from '../files/readTree'
import type { SiteService } from '../site/site'

const yes = (value: boolean) => (value ? 'yes' : '')
const said = (value: boolean | null) => (value === null ? '' : value ? 'yes' : 'no')
const csv = (rows: (FileLine | FolderLine)[], columns: readonly string[]) =>
  papa.unparse(
    { fields: [...columns], data: rows.map(row => columns.map(column => (row as Record<string, string>)[column])) },
    { newline: '\r\n' },
  ) + '\r\n'
const sha256 = (bytes: Uint8Array) => createHash('sha256').update(bytes).digest('hex')

interface Payload {
  path: string
  sha256: string
  size: number
  crc32: number
  modified: Date
}

/** Lays out the library, or a folder of it, as a BagIt bag (RFC 8493) in a zip. */
export function createBagExport(db: Database, site: SiteService) {
  async function gather(folder: string | null) {
    const tree = await readTree(db)
    const base = mustHave(tree, folder)
    const inside = folder === null ? tree.all : tree.below(folder)
    /** Folders from the bag's own top; the folder that goes out is that top. */
    const pathOf = (id: string | null) =>
      tree
        .pathTo(id)
        .slice(folder === null ? 0 : tree.pathTo(folder).length)
        .map(({ name }) => name)
        .join('/')
    const rows = (await db.select().from(files).where(isNull(files.deleted)).orderBy(asc(files.created), asc(files.id))).filter(
      file => folder === null || (file.folder !== null && inside.some(({ id }) => id === file.folder)),
    )
    const ids = rows.map(row => row.id)
    const all = ids.length
      ? await db
          .select({ edition: editions, blob: blobs })
          .from(editions)
          .innerJoin(blobs, eq(blobs.sha256, editions.sha256))
          .where(among(editions.fileId, ids))
          .orderBy(asc(editions.number))
      : []
    const former = ids.length
      ? await db.select().from(retiredHandles).where(among(retiredHandles.fileId, ids)).orderBy(asc(retiredHandles.handle))
      : []
    const composed = ids.length ? await db.select().from(bundles).where(among(bundles.fileId, ids)) : []
    const names = new Map((await db.select({ id: gates.id, name: gates.name }).from(gates)).map(({ id, name: gate }) => [id, gate]))
    // What stands above the bag's own top holds for what lies there.
    const above = gateOf({ gate: null, folder }, tree)
    return {
      gateNameOf: (gate: string | null, place: string | null) => names.get(gate ?? (place === folder ? above : null) ?? '') ?? '',
      name: base?.name,
      rows,
      pathOf,
      folders: inside.filter(({ id }) => id !== folder),
      editions: groupBy(all, ({ edition }) => edition.fileId),
      former: groupBy(former, ({ fileId }) => fileId),
      bundles: new Map(composed.map(row => [row.fileId, row])),
    }
  }
  type Gathered = Awaited<ReturnType<typeof gather>>

  function filesOf({ rows, pathOf, gateNameOf, editions: byFile, former }: Gathered): { lines: FileLine[]; payload: Payload[] } {
    const handles = new Map(rows.map(row => [row.id, row.handle]))
    const found = rows.flatMap(file =>
      (byFile.get(file.id) ?? []).map(({ edition, blob }) => {
        const current = edition.number === file.edition
        const place = pathOf(file.folder)
        const path = current
          ? ['data/files', place, edition.fileName].filter(Boolean).join('/')
          : `data/editions/${file.handle}/${edition.number}/${edition.fileName}`
        const line: FileLine = {
          path,
          handle: file.handle,
          former_handles: (former.get(file.id) ?? []).map(row => row.handle).join('|'),
          title: file.title,
          description: file.description,
          tags: writeSeveral(file.tags, '|', '|'),
          folder: place,
          position: String(file.position),
          picture: file.picture === null ? '' : (handles.get(file.picture) ?? ''),
          edition: String(edition.number),
          current: yes(current),
          pinned: yes(edition.pinned),
          withdrawn: yes(edition.withdrawn),
          by: edition.by,
          gate: gateNameOf(file.gate, file.folder),
          see: said(file.see),
          note: edition.note,
          file_name: edition.fileName,
          edition_created: edition.created.toISOString(),
          created: file.created.toISOString(),
          changed: file.changed.toISOString(),
        }
        return { line, payload: { path, sha256: blob.sha256, size: blob.size, crc32: blob.crc32, modified: edition.created } }
      }),
    )
    const paths = distinctPaths(found.map(({ line }) => line.path))
    return {
      lines: found.map(({ line }, index) => ({ ...line, path: paths[index]! })),
      payload: found.map(({ payload }, index) => ({ ...payload, path: paths[index]! })),
    }
  }

  function bundlesOf({ rows, pathOf, gateNameOf, former, bundles: composed, folders }: Gathered): BundleRow[] {
    const handles = new Map(rows.map(row => [row.id, row.handle]))
    const inside = new Set(folders.map(({ id }) => id))
    return rows.flatMap((file): BundleRow[] => {
      const bundle = composed.get(file.id)
      if (!bundle) return []
      const entries = bundle.entries.flatMap((entry): BundleRow['entries'] => {
        if (entry.kind === 'file') return handles.has(entry.file) ? [{ ...entry, file: '', handle: handles.get(entry.file)! }] : []
        if (entry.kind === 'folder') return inside.has(entry.folder) ? [{ ...entry, folder: '', path: pathOf(entry.folder) }] : []
        // A bag has no catalogues.
        return entry.kind === 'field' ? [] : [entry]
      })
      return [
        {
          handle: file.handle,
          formerHandles: (former.get(file.id) ?? []).map(row => row.handle),
          title: file.title,
          description: file.description,
          tags: file.tags,
          folder: pathOf(file.folder),
          position: file.position,
          fileName: bundle.fileName,
          created: file.created.toISOString(),
          changed: file.changed.toISOString(),
          composed: bundle.composed.toISOString(),
          gate: gateNameOf(file.gate, file.folder),
          see: file.see,
          gated: bundle.gated,
          entries,
        },
      ]
    })
  }

  return {
    /**
     * Lays out a bag, ready to be sent.
     *
     * @throws Problem 404 where there is no such folder, 422 where nothing is in it
     */
    async layOut(folder: string | null, now = new Date()): Promise<LaidOut> {
      const gathered = await gather(folder)
      const { lines, payload } = filesOf(gathered)
      const made = bundlesOf(gathered)
      if (!payload.length && !made.length) throw new Problem(422, 'There is no file in it.', 'Put files in first.')
      const folderLines = gathered.folders
        .map(({ id, parent, mark, description, ownOrder, created, gate, see, found }): FolderLine => ({
          path: gathered.pathOf(id),
          mark: mark ?? '',
          description,
          own_order: yes(ownOrder),
          created: created.toISOString(),
          gate: gathered.gateNameOf(gate, parent),
          see: said(see),
          found: said(found),
        }))
        .sort((a, b) => (a.path < b.path ? -1 : 1))
      const { name } = await site.get()
      const day = now.toISOString().slice(0, 10)
      const tags = new Map([
        ['bagit.txt', DECLARATION],
        [
          'bag-info.txt',
          writeBagInfo({
            'Source-Organization': name,
            'Bagging-Date': day,
            'External-Description':
              gathered.name === undefined ? 'A whole library of files' : `The folder "${gathered.name}" of a library of files`,
            'Payload-Oxum': `${payload.reduce((sum, { size }) => sum + size, 0)}.${payload.length}`,
            'Bag-Software-Agent': 'Trough',
          }),
        ],
        ['manifest-sha256.txt', writeManifest(payload)],
        [FILES_CSV, csv(lines, FILE_COLUMNS)],
        [FOLDERS_CSV, csv(folderLines, FOLDER_COLUMNS)],
        [BUNDLES_JSON, `${JSON.stringify(made, null, 2)}\n`],
      ])
      const bytes = new Map([...tags].map(([path, text]) => [path, Buffer.from(text)]))
      bytes.set('tagmanifest-sha256.txt', Buffer.from(writeManifest([...bytes].map(([path, text]) => ({ path, sha256: sha256(text) })))))
      // A bag that is packed lies in one folder of its name (RFC 8493, section 4.1).
      const base = `${slugify(gathered.name ?? name) || 'library'}-${day}`
      const members: ZipMember[] = [
        ...[...bytes].map(([path, text]): ZipMember => ({
          name: `${base}/${path}`,
          size: text.length,
          crc32: crc32(text),
          modified: now,
          source: text,
        })),
        ...payload.map(({ path, sha256: source, ...facts }): ZipMember => ({ name: `${base}/${path}`, source, ...facts })),
      ]
      return {
        layout: new ZipLayout(members),
        fileName: `${base}.zip`,
        fingerprint: sha256(bytes.get('tagmanifest-sha256.txt')!).slice(0, 32),
        changed: now,
      }
    },
  }
}
export type BagExport = ReturnType<typeof createBagExport>
