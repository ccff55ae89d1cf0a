import { existsSync } from 'node:fs'
import { mkdir } from 'node:fs/promises'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { and, count, desc, eq, ne } from 'drizzle-orm'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { blobs, editions } from '../../db/schema'
import type { Programs } from '../../../core/files/programs'
import type { Store } from '../../store/store'
import type { ReadMessage, ReadPart, ReadTask } from '../../workers/read'
import type { Events } from '../events'
import type { Traffic } from '../traffic'
import { createWorkerHost, workerScript } from '../workerHost'
import { pagesPath } from './looking'
import { readAnewWith } from './programs'
import type { SearchIndex } from './searchIndex'
import { laterTrouble } from '../../log'

/** Milliseconds a reader may be silent before it is given up. */
const PATIENCE = 60_000
/** Milliseconds between two writes. */
const PAUSE = 1
/**
 * While visitors come, a rest takes this many times what the writing before it took, so that few of them meet one; at most these
 * milliseconds.
 */
const REST = 60
const LONGEST_REST = 1000
/** While visitors come, the rest after a file: this many times what work on it took, between these milliseconds. */
const REST_AFTER_FILE = 2
const SHORTEST_REST = 200
/** Pieces that a hand-over is then written in. */
const PIECES = 4

const inPieces = <Item>(items: Item[], most: number): Item[][] => {
  const size = Math.ceil(items.length / most)
  return Array.from({ length: Math.ceil(items.length / size) }, (_, index) => items.slice(index * size, (index + 1) * size))
}

interface Needs {
  db: Database
  store: Store
  /** what is made of files, which can be made again */
  folder: string
  texts: SearchIndex
  events: Events
  traffic: Traffic
  /** what the machine has to read more with */
  programs?: Programs
  /** the worker's script */
  script?: string
  /** milliseconds it may be silent */
  patience?: number
}
interface Waiting extends Pick<ReadTask, 'mediaType' | 'picture'> {
  sha256: string
  fileId: string
}

/** Looks into files one after another, in a worker: facts, first-page pictures and words. */
export function createReadingService({
  db,
  store,
  folder,
  texts,
  events,
  traffic,
  programs = {},
  script = workerScript('read'),
  patience = PATIENCE,
}: Needs) {
  const host = createWorkerHost<ReadTask, ReadMessage>(script, patience)
  let running: Promise<void> | undefined
  let again = false
  let closed = false
  let now: Waiting | undefined
  /** milliseconds of all rests between two writes so far */
  let rested = 0

  const pictureOf = (sha256: string) => join(folder, sha256.slice(0, 2), sha256, 'first.webp')

  /** The newest first: it is looked at now, while thousands may wait to be read again. */
  async function next(): Promise<Waiting | undefined> {
    const [row] = await db
      .select({ sha256: blobs.sha256, mediaType: editions.mediaType, fileId: editions.fileId })
      .from(blobs)
      .innerJoin(editions, eq(editions.sha256, blobs.sha256))
      .where(eq(blobs.reading, 'waiting'))
      .orderBy(desc(blobs.created))
      .limit(1)
    return row && { ...row, picture: pictureOf(row.sha256) }
  }

  /** Writes some parts, and rests. */
  async function write(sha256: string, first: number, parts: ReadPart[]) {
    const start = performance.now()
    await texts.add(sha256, first, parts)
    const written = performance.now()
    await wait(traffic.comes ? Math.min((written - start) * REST, LONGEST_REST) : PAUSE)
    rested += performance.now() - written
  }

  /** One file, lent by the store: its words are written as they come, and what is known of it at the end. */
  async function readOne({ sha256, mediaType, picture }: Waiting, path: string) {
    let written = 0
    let writing = Promise.resolve()
    let before = writing
    let result: Exclude<ReadMessage, { parts: unknown }> | undefined
    let failure: unknown
    await texts.clear(sha256)
    const trouble = await host
      .run({ path, mediaType, picture, pages: pagesPath(folder, sha256), programs }, (message, reply) => {
        if (!('parts' in message)) {
          result = message
          return true
        }
        // Reading is at most two hand-overs ahead of writing: neither waits for the other at every one.
        void before.then(() => reply('on'))
        before = writing
        writing = writing
          .then(async () => {
            for (const parts of traffic.comes ? inPieces(message.parts, PIECES) : [message.parts]) {
              if (closed) return
              await write(sha256, written, parts)
              written += parts.length
            }
          })
          .catch(error => void (failure ??= error))
        return false
      })
      .then(
        () => result?.trouble,
        (error: Error) => error.message,
      )
    await writing
    if (failure) throw failure
    return {
      reading: trouble === undefined ? ('done' as const) : ('failed' as const),
      readingError: trouble ?? null,
      preview: result?.picture ? ('ready' as const) : trouble === undefined ? ('none' as const) : ('failed' as const),
      // What is known since it came in stays where it could not be read.
      ...(result && { facts: result.facts }),
    }
  }

  async function drain(): Promise<void> {
    for (;;) {
      const file = await next()
      if (!file || closed) return
      now = file
      const [began, restedBefore] = [performance.now(), rested]
      const change = await store.withFile(file.sha256, path => readOne(file, path))
      if (closed) return
      await db
        .update(blobs)
        .set(change)
        .where(and(eq(blobs.sha256, file.sha256), eq(blobs.reading, 'waiting')))
      now = undefined
      // Whatever shows the file is made anew with each, and a restored library has thousands.
      const worked = performance.now() - began - (rested - restedBefore)
      if (traffic.comes) await wait(Math.min(Math.max(worked * REST_AFTER_FILE, SHORTEST_REST), LONGEST_REST))
    }
  }

  /** What was made of files is left out of backups: where its folder is not there, as after a restore, all of it is made again. */
  async function makeAgain(): Promise<void> {
    if (existsSync(folder)) return
    await db.update(blobs).set({ reading: 'waiting' }).where(eq(blobs.reading, 'done'))
    // Only then: a start that ends here begins anew with the next.
    await mkdir(folder, { recursive: true })
  }

  /** Works off what waits; called again while at it, it looks once more at the end. */
  function wake(): Promise<void> {
    again = true
    running ??= (async () => {
      while (again && !closed) {
        again = false
        await drain()
      }
    })().finally(() => (running = now = undefined))
    return running
  }

  const onLibrary = () => {
    // What waits stays marked as waiting: a failure here is tried again with the next change or start.
    wake().catch(laterTrouble('reading new files failed'))
  }

  return {
    pictureOf,
    async start(): Promise<void> {
      events.on('library', onLibrary)
      await readAnewWith(db, programs)
      await makeAgain().catch(laterTrouble('what was made of files cannot be made again yet'))
      onLibrary()
    },
    /** Resolves when nothing waits. */
    idle: wake,

    /** How far reading has come. */
    async progress(): Promise<{ waiting: number; failed: number; /** identity of the file being read */ now: string | null }> {
      const rows = await db
        .select({ reading: blobs.reading, count: count() })
        .from(blobs)
        .where(ne(blobs.reading, 'done'))
        .groupBy(blobs.reading)
      const of = (state: string) => rows.find(row => row.reading === state)?.count ?? 0
      return { waiting: of('waiting'), failed: of('failed'), now: now?.fileId ?? null }
    },

    /** Reads contents again; all that failed, where none are named. */
    async again(sha256?: string[]): Promise<void> {
      const which = sha256 ? among(blobs.sha256, sha256) : eq(blobs.reading, 'failed')
      await db.update(blobs).set({ reading: 'waiting', readingError: null }).where(which)
      onLibrary()
    },

    async close() {
      closed = true
      events.off('library', onLibrary)
      await host.close()
      await running
    },
  }
}
export type ReadingService = ReturnType<typeof createReadingService>
