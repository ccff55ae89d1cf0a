import { rm } from 'node:fs/promises'
import { text as readText } from 'node:stream/consumers'
import { and, eq } from 'drizzle-orm'
import papa from 'papaparse'
import type { z } from 'zod'
import { readManifest } from '../../../core/bag/manifest'
import {
  BUNDLES_JSON,
  FILES_CSV,
  FOLDERS_CSV,
  bundlesSchema,
  fileRowSchema,
  folderRowSchema,
  type BundleRow,
  type FileRow,
} from '../../../core/bag/metadata'
import type { BundleEntry } from '../../../core/bundle/bundleEntry'
import { cleanFileName, titleFromFileName } from '../../../core/files/fileName'
import { innerPath } from '../../../core/files/innerPath'
import { CLOSED_GATE } from '../../../core/gate/gate'
import { groupBy } from '../../../core/group'
import { newId } from '../../../core/id'
import type { JobItem } from '../../../core/jobs/jobItem'
import { wellFormed } from '../../../core/http/nesting'
import { Problem } from '../../../core/problem'
import type { Queryable } from '../../db/connection'
import { bundles, editions, files, folders, gates, retiredHandles } from '../../db/schema'
import { withZip } from '../../workers/readers/archive'
import { Unreadable } from '../../workers/readers/reader'
import { refuseBombs } from '../jobs/bombs'
import type { Arriving } from '../jobs/arriving'
import { ensurePath } from '../files/readTree'
import { freeHandle } from '../files/handles'
import { mustBeStored } from '../files/items'
import { keep, type Kept } from '../uploads/keep'

/** The tag files that are looked into, and the most bytes each may have: they are read into memory. */
const TAG_FILES: Record<string, number> = {
  'bagit.txt': 10_000,
  'manifest-sha256.txt': 50_000_000,
  [FILES_CSV]: 50_000_000,
  [FOLDERS_CSV]: 20_000_000,
  [BUNDLES_JSON]: 20_000_000,
}

const unfit = (what: string) =>
  new Problem(422, `The bag cannot be brought in: ${what}`, 'Nothing was changed. Take another copy of the bag.')

interface Opened {
  tags: Map<string, string>
  payload: Map<string, Kept>
}

/** Rows of a CSV by a schema. */
function parseRows<Schema extends z.ZodType>(text: string | undefined, schema: Schema, name: string): z.output<Schema>[] {
  if (text === undefined) return []
  const { data, errors } = papa.parse<Record<string, string>>(text, { header: true, skipEmptyLines: true })
  if (errors.length) throw unfit(`${name}, row ${(errors[0]!.row ?? 0) + 2}: ${errors[0]!.message}.`)
  return data.map((row, index) => {
    const result = schema.safeParse(row)
    if (!result.success)
      throw unfit(`${name}, row ${index + 2}: ${result.error.issues[0]!.path.join('.')}: ${result.error.issues[0]!.message}`)
    return result.data
  })
}

interface Needs extends Arriving {
  /** waits until it is known what lies in the bundles that came */
  bundlesSettled: () => Promise<void>
}

/**
 * Brings BagIt bags (RFC 8493) into the library: ours with all that was said of their files, others by their paths.
 */
export function createBagImport({ db, library, store, jobs, incoming, bundlesSettled }: Needs) {
  /** Unpacks a bag beside the store and holds every byte against its checksums. */
  async function open(path: string, job: JobItem, signal: AbortSignal): Promise<Opened> {
    const opened: Opened = { tags: new Map(), payload: new Map() }
    try {
      await withZip(path, async entries => {
        let base: string | undefined
        for await (const entry of entries) {
          signal.throwIfAborted()
          const slash = entry.name.indexOf('/')
          base ??= entry.name.slice(0, slash + 1)
          if (slash < 0 || !entry.name.startsWith(base)) throw unfit('it does not lie in one folder.')
          const name = entry.name.slice(base.length)
          const inner = innerPath(name)
          if ('refused' in inner) throw unfit(`${name}: ${inner.refused}`)
          if (entry.encrypted) throw unfit(`${name} is locked with a password.`)
          if (name.startsWith('data/')) {
            opened.payload.set(name, await keep(await entry.open(), incoming(newId()), count => (job.done += count)))
            continue
          }
          const most = TAG_FILES[name]
          if (most === undefined) continue
          if (entry.size > most) throw unfit(`${name} is too large.`)
          opened.tags.set(name, await readText(await entry.open()))
        }
      })
      check(opened)
      return opened
    } catch (error) {
      await drop(opened)
      throw error instanceof Unreadable ? unfit(error.message) : error
    }
  }

  /** A bag is valid when it is complete and every checksum holds (RFC 8493, section 3). */
  function check({ tags, payload }: Opened): void {
    if (!tags.get('bagit.txt')?.startsWith('BagIt-Version:')) throw unfit('it has no bagit.txt.')
    const manifest = tags.get('manifest-sha256.txt')
    if (manifest === undefined) throw unfit('it has no manifest of SHA-256 checksums.')
    let checksums: Map<string, string>
    try {
      checksums = readManifest(manifest)
    } catch (error) {
      throw unfit((error as Error).message)
    }
    for (const [path, sha256] of checksums) {
      const kept = payload.get(path)
      if (!kept) throw unfit(`${path} is missing.`)
      if (kept.sha256 !== sha256) throw unfit(`${path} is not what its checksum says.`)
    }
    for (const path of payload.keys()) if (!checksums.has(path)) throw unfit(`${path} stands in no manifest.`)
  }

  async function drop({ payload }: Opened): Promise<void> {
    for (const { path } of payload.values()) await rm(path, { force: true })
  }

  /** The folders of a path that somebody else wrote, cleaned like those in a zip. */
  function foldersOf(path: string): string[] {
    if (!path) return []
    const inner = innerPath(`${path}/file`)
    if ('refused' in inner) throw unfit(`the folder “${path.slice(0, 80)}”: ${inner.refused}`)
    return inner.folders
  }

  /** Rows for files of which the bag says nothing but where they lie. */
  function rowsOfOthers(payload: Map<string, Kept>, told: FileRow[]): FileRow[] {
    const known = new Set(told.map(row => row.path))
    const now = new Date().toISOString()
    return [...payload.keys()]
      .filter(path => !known.has(path))
      .map((path): FileRow => {
        const parts = path.split('/').filter(Boolean).slice(1)
        const name = cleanFileName(parts.pop()!)
        return {
          path,
          handle: '',
          former_handles: [],
          title: titleFromFileName(name).slice(0, 200),
          description: '',
          tags: [],
          folder: parts.join('/'),
          position: 0,
          picture: '',
          edition: 1,
          current: true,
          pinned: false,
          withdrawn: false,
          by: '',
          gate: '',
          see: null,
          note: '',
          file_name: name,
          edition_created: now,
          created: now,
          changed: now,
        }
      })
  }

  /** The wanted handle, where it is free; a redirect of the library's own keeps it. */
  async function handleFor(tx: Queryable, wanted: string, fileName: string): Promise<string> {
    if (!wanted) return freeHandle(tx, fileName)
    const [used] = await tx.select({ id: files.id }).from(files).where(eq(files.handle, wanted))
    const [retired] = await tx.select().from(retiredHandles).where(eq(retiredHandles.handle, wanted))
    return used || retired ? freeHandle(tx, wanted) : wanted
  }

  async function insertFile(
    tx: Queryable,
    rows: FileRow[],
    sniffed: Map<string, { sha256: string; mediaType: string }>,
    place: string | null,
    gate: string | null,
  ): Promise<{ id: string; renamed: [string, string] | undefined }> {
    const current = rows.find(row => row.current) ?? rows.at(-1)!
    const [id, handle] = [newId(), await handleFor(tx, current.handle, current.file_name)]
    await tx.insert(files).values({
      id,
      handle,
      title: current.title,
      description: current.description,
      tags: current.tags,
      folder: place,
      position: current.position,
      gate,
      see: current.see,
      edition: current.edition,
      created: new Date(current.created),
      changed: new Date(current.changed),
    })
    await tx.insert(editions).values(
      rows.map(row => ({
        fileId: id,
        number: row.edition,
        fileName: cleanFileName(row.file_name),
        note: row.note,
        pinned: row.pinned,
        withdrawn: row.withdrawn,
        by: row.by,
        created: new Date(row.edition_created),
        ...sniffed.get(row.path)!,
      })),
    )
    await keepFormer(tx, id, current.former_handles)
    return { id, renamed: current.handle && handle !== current.handle ? [current.handle, handle] : undefined }
  }

  async function keepFormer(tx: Queryable, fileId: string, former: string[]): Promise<void> {
    for (const handle of former) {
      const [used] = await tx.select({ id: files.id }).from(files).where(eq(files.handle, handle))
      if (!used) await tx.insert(retiredHandles).values({ handle, fileId }).onConflictDoNothing()
    }
  }

  async function insertBundle(
    tx: Queryable,
    row: BundleRow,
    place: string | null,
    gate: string | null,
    fileIds: Map<string, string>,
    folderOf: (path: string) => Promise<string | null>,
  ): Promise<string> {
    const id = newId()
    await tx.insert(files).values({
      id,
      handle: await handleFor(tx, row.handle, row.fileName),
      title: row.title,
      description: row.description,
      tags: row.tags,
      folder: place,
      position: row.position,
      gate,
      see: row.see,
      edition: 1,
      created: new Date(row.created),
      changed: new Date(row.changed),
    })
    const entries: BundleEntry[] = []
    for (const { handle, path, ...entry } of row.entries) {
      if (entry.kind === 'file') entries.push({ ...entry, file: fileIds.get(handle ?? '') ?? '' })
      else if (entry.kind === 'folder') entries.push({ ...entry, folder: (await folderOf(path ?? '')) ?? '' })
      else entries.push(entry)
    }
    await tx.insert(bundles).values({
      fileId: id,
      fileName: cleanFileName(row.fileName),
      entries,
      composed: new Date(row.composed),
      gated: row.gated,
      size: 0,
      count: 0,
      fingerprint: '',
    })
    await keepFormer(tx, id, row.formerHandles)
    return id
  }

  /** Gates by the names that a bag calls them; nobody passes where there is none of that name. */
  async function gatesByName(tx: Queryable): Promise<(name: string) => { gate: string | null; why?: string }> {
    const rows = await tx.select({ id: gates.id, name: gates.name }).from(gates)
    const known = new Map(rows.map(({ id, name }) => [name.toLowerCase(), id]))
    return name => {
      const gate = name ? known.get(name.toLowerCase()) : null
      return gate === undefined
        ? { gate: CLOSED_GATE, why: `It stood behind “${name}”, and there is no such gate here: nobody has it until you say who may.` }
        : { gate }
    }
  }

  async function bringIn({ tags, payload }: Opened, folder: string | null, job: JobItem): Promise<void> {
    const told = parseRows(tags.get(FILES_CSV), fileRowSchema, FILES_CSV)
    for (const { path } of told) if (!payload.has(path)) throw unfit(`${FILES_CSV} names ${path}, which is missing.`)
    const rows = [...told, ...rowsOfOthers(payload, told)]
    const folderRows = parseRows(tags.get(FOLDERS_CSV), folderRowSchema, FOLDERS_CSV)
    let composed: BundleRow[]
    try {
      composed = bundlesSchema.parse(wellFormed(JSON.parse(tags.get(BUNDLES_JSON) ?? '[]')))
    } catch {
      throw unfit(`${BUNDLES_JSON} cannot be read.`)
    }
    const nameAt = new Map(rows.map(row => [row.path, row.file_name]))
    await library.adoptAll(
      [...payload].map(([path, kept]) => ({ key: path, fileName: nameAt.get(path)!, ...kept })),
      async found => {
        const made = await db.transaction(async tx => {
          const places = new Map<string, Promise<string | null>>()
          const folderOf = (path: string) => {
            const known = places.get(path) ?? ensurePath(tx, folder, foldersOf(path))
            places.set(path, known)
            return known
          }
          const gateNamed = await gatesByName(tx)
          const report: JobItem['report'] = []
          const tell = (name: string, ...why: (string | undefined)[]) => {
            const told = why.filter(Boolean).join(' ')
            report.push({ name, outcome: 'made', ...(told && { why: told }) })
          }
          for (const { path, mark, description, own_order: ownOrder, created, gate, see, found: isFound } of folderRows) {
            const id = await folderOf(path)
            if (id === null) continue
            const behind = gateNamed(gate)
            await tx
              .update(folders)
              .set({ mark, description, ownOrder, created: new Date(created), gate: behind.gate, see, found: isFound })
              .where(eq(folders.id, id))
            if (behind.why) tell(path, behind.why)
          }
          const fileIds = new Map<string, string>()
          const ids: string[] = []
          for (const group of groupBy(rows, row => row.handle || row.path).values()) {
            const [first] = group as [FileRow]
            const behind = gateNamed(first.gate)
            const { id, renamed } = await insertFile(tx, group, found, await folderOf(first.folder), behind.gate)
            fileIds.set(first.handle, id)
            ids.push(id)
            tell(first.title, renamed && `${renamed[0]} is taken here: its address is ${renamed[1]}.`, behind.why)
          }
          for (const { handle, picture } of rows) {
            if (picture && fileIds.has(picture))
              await tx
                .update(files)
                .set({ picture: fileIds.get(picture)! })
                .where(and(eq(files.id, fileIds.get(handle)!)))
          }
          for (const row of composed) {
            const behind = gateNamed(row.gate)
            ids.push(await insertBundle(tx, row, await folderOf(row.folder), behind.gate, fileIds, folderOf))
            tell(row.title, behind.why)
          }
          return { ids, report }
        })
        job.files.push(...made.ids)
        job.report.push(...made.report)
      },
    )
  }

  return {
    /**
     * Begins to bring in a bag that lies in the library as a zip; all of it, or nothing.
     *
     * @param folder where it goes; null: the top of the library
     */
    async bringIn(fileId: string, folder: string | null, by = ''): Promise<JobItem> {
      const file = mustBeStored(await library.get(fileId))
      return jobs.start({ kind: 'bag', name: file.title, unit: 'bytes', by }, (job, signal) =>
        store.withFile(file.sha256, async path => {
          job.total = file.size
          await withZip(path, async files => refuseBombs(files, file.size, await store.free())).catch((error: unknown) => {
            throw error instanceof Unreadable ? unfit(error.message) : error
          })
          const opened = await open(path, job, signal)
          try {
            await bringIn(opened, folder, job)
            await bundlesSettled()
          } finally {
            await drop(opened)
          }
          job.done = job.total
        }),
      )
    },
  }
}
export type BagImport = ReturnType<typeof createBagImport>
