import type { FileItem } from '../../../core/files/fileItem'
import type { ClashWay } from '../../../core/files/clash'
import { isZip } from '../../../core/files/mediaType'
import { splitExtension } from '../../../core/files/fileName'
import { innerPath } from '../../../core/files/innerPath'
import { cleanFolderName } from '../../../core/folders/folderItem'
import { newId } from '../../../core/id'
import type { JobItem } from '../../../core/jobs/jobItem'
import { Problem } from '../../../core/problem'
import type { Store } from '../../store/store'
import { Unreadable } from '../../workers/readers/reader'
import { withZip, type ZipEntry } from '../../workers/readers/archive'
import { mustBeStored } from '../files/items'
import type { LibraryService } from '../library/library'
import { keep, type Kept } from '../uploads/keep'
import { refuseBombs } from './bombs'
import type { Jobs } from './jobs'

/** Unpacks zips of the library into the library. */
export function createUnpacking(library: LibraryService, store: Store, jobs: Jobs, incoming: (id: string) => string) {
  async function unpackEntry(
    entry: ZipEntry,
    job: JobItem,
    { folder, gate }: Pick<FileItem, 'folder' | 'gate'>,
    base: string,
    clash: ClashWay,
    signal: AbortSignal,
  ): Promise<void> {
    const say = (outcome: JobItem['report'][number]['outcome'], why?: string) => void job.report.push({ name: entry.name, outcome, why })
    const path = innerPath(entry.name)
    if ('refused' in path) return say('refused', path.refused)
    if (entry.encrypted) return say('refused', 'It is locked with a password.')
    const within = [base, ...path.folders].filter(Boolean)
    if (clash === 'skip' && (await library.clashes({ folder, names: [[...within, path.fileName].join('/')] })).length) {
      return say('skipped', 'A file of that name is there already.')
    }
    let kept: Kept
    try {
      const stream = await entry.open()
      signal.addEventListener('abort', () => stream.destroy(), { once: true })
      kept = await keep(stream, incoming(newId()))
    } catch (error) {
      signal.throwIfAborted()
      if (error instanceof Problem) throw error
      return say('refused', `Its contents are damaged (${(error as Error).message}).`)
    }
    // What came out of something behind a gate stands behind it, too.
    const file = await library.ingest({
      ...kept,
      fileName: path.fileName,
      folder,
      within,
      asEdition: clash === 'edition',
      gate,
      by: job.by,
    })
    job.files.push(file.id)
    say(file.edition > 1 ? 'edition' : 'made')
  }

  return {
    /**
     * Begins to unpack a zip beside itself, into a folder of its name.
     *
     * @throws Problem 422 where the file is no zip
     */
    async unpack(fileId: string, clash: ClashWay, by = ''): Promise<JobItem> {
      const file = mustBeStored(await library.get(fileId))
      if (!isZip(file.mediaType)) throw new Problem(422, `"${file.title}" is no zip.`, 'Only zips can be unpacked.')
      const base = cleanFolderName(splitExtension(file.fileName)[0]) || 'Unpacked'
      return jobs.start({ kind: 'unpack', name: file.title, unit: 'files', by }, (job, signal) =>
        store.withFile(file.sha256, async path => {
          try {
            job.total = await withZip(path, async files => refuseBombs(files, file.size, await store.free()))
            await withZip(path, async files => {
              for await (const entry of files) {
                signal.throwIfAborted()
                await unpackEntry(entry, job, file, base, clash, signal)
                job.done++
              }
            })
          } catch (error) {
            if (error instanceof Unreadable) throw new Problem(422, error.message, 'Make the zip again on your computer and put it in.')
            throw error
          }
        }),
      )
    },
  }
}
export type Unpacking = ReturnType<typeof createUnpacking>
