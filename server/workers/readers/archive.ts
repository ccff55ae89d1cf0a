import type { Readable } from 'node:stream'
import { getFileNameLowLevel, openPromise, type Entry, type ZipFile } from 'yauzl'
import { Unreadable, type Reader, type Sink } from './reader'

/** A file in a zip. */
export interface ZipEntry {
  /** as it stands in the zip, with `/` between folders; safe or not */
  name: string
  /** bytes, as the zip promises them */
  size: number
  packed: number
  encrypted: boolean
  /** the whole of its contents; fails where they are longer or shorter than promised */
  open: () => Promise<Readable>
}

const damaged = (error: unknown) => new Unreadable(`The zip is damaged or cut off (${(error as Error).message}).`)

/** Name of an entry: UTF-8 where it says so, else code page 437 (APPNOTE.TXT, appendix D). */
function nameOf(entry: Entry): string {
  const raw = entry.fileName as unknown as Buffer
  return getFileNameLowLevel(entry.generalPurposeBitFlag, raw, entry.extraFields, false)
}

async function* filesOf(zip: ZipFile): AsyncGenerator<ZipEntry> {
  for await (const entry of zip.eachEntry()) {
    const name = nameOf(entry)
    if (name.endsWith('/')) continue
    yield {
      name,
      size: entry.uncompressedSize,
      packed: entry.compressedSize,
      encrypted: entry.isEncrypted(),
      open: () => zip.openReadStreamPromise(entry),
    }
  }
}

/**
 * Opens a zip and hands its files to the work, one after another, without unpacking any.
 *
 * @throws Unreadable where it is no whole zip
 */
export async function withZip<T>(path: string, work: (files: AsyncGenerator<ZipEntry>) => Promise<T>): Promise<T> {
  // Names are checked by whoever makes paths of them: one bad name must not hide the rest.
  const zip = await openPromise(path, { decodeStrings: false, lazyEntries: true, autoClose: false, validateEntrySizes: true }).catch(
    (error: unknown) => {
      throw damaged(error)
    },
  )
  const guarded = async function* () {
    try {
      yield* filesOf(zip)
    } catch (error) {
      throw error instanceof Unreadable ? error : damaged(error)
    }
  }
  try {
    return await work(guarded())
  } finally {
    zip.close()
  }
}

const NAMES_A_PART = 200

/** Hands on the names of files in an archive, and counts them. @param list calls `take` for each, as far as that says true */
export async function namesOf(list: (take: (name: string) => boolean) => Promise<void>, sink: Sink): Promise<void> {
  const parts: string[] = []
  let names: string[] = []
  sink.facts.entries = 0
  await list(name => {
    sink.facts.entries!++
    // A packed bag lies in one folder of its name (RFC 8493, section 4.1).
    if (/^[^/]+\/bagit\.txt$/.test(name)) sink.facts.bag = true
    names.push(name)
    if (names.length === NAMES_A_PART) {
      parts.push(names.join('\n'))
      names = []
    }
    return true
  })
  if (names.length) parts.push(names.join('\n'))
  for (const body of parts) if (!(await sink.take('Inside', body))) break
}

/** How many files are in a zip, and their names. */
export const readArchive: Reader = (path, sink) =>
  namesOf(
    take =>
      withZip(path, async files => {
        for await (const { name } of files) take(name)
      }),
    sink,
  )
