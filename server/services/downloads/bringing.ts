import { rm } from 'node:fs/promises'
import { setImmediate as turn } from 'node:timers/promises'
import { Readable } from 'node:stream'
import { and, desc, eq, inArray, ne, notInArray, sql } from 'drizzle-orm'
import { newId } from '../../../core/id'
import { formatSize } from '../../../core/files/size'
import { notFound, Problem } from '../../../core/problem'
import { createQueue } from '../../../core/queue'
import type { Found, ImportItem, ImportQuery } from '../../../core/tally/brought/brought'
import type { BroughtRow, BroughtSums } from '../../../core/tally/brought/gathered'
import type { CountedDownload } from '../../../core/tally/merge'
import { NO_PARTICULARS } from '../../../core/tally/particulars'
import { dayAt } from '../../../core/tally/span'
import { momentOf, startOfDay } from '../../../core/timetable/wallTime'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { downloads, editions, files, imports } from '../../db/schema'
import type { BroughtMessage, BroughtTask } from '../../workers/brought'
import { insertDownloads } from '../tally/tally'
import { keep } from '../uploads/keep'
import { createWorkerHost, workerScript } from '../workerHost'
import { fileAddresses } from './fileAddresses'

/** Bytes of a file of numbers, packed or not. */
const MOST = 2_000_000_000
/** Milliseconds in which a worker says nothing before it is taken for dead. */
const PATIENCE = 120_000
/** Files that are told one by one. */
const TOLD_FILES = 200
/** Rows that are taken out in one go. */
const AT_ONCE = 5000

interface SiteFacts {
  zone: string
  hosts: string[]
  countries: boolean
}

const noonOf = (day: string, zone: string): number => momentOf(`${day}T12:00`, zone).getTime()

/** Bytes as they come, up to so many. */
async function* upTo(stream: Readable, most: number): AsyncGenerator<Buffer> {
  let seen = 0
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    seen += chunk.length
    if (seen > most) throw new Problem(413, 'That is too much at once.', `Bring at most ${formatSize(most)}: a log can be cut by months.`)
    yield chunk
  }
}

/**
 * Brings in numbers of before Trough: access logs, and tables of day, file and count.
 *
 * @param incoming where a file lies that is coming in
 */
export function createBringing(db: Database, site: () => Promise<SiteFacts>, incoming: (id: string) => string) {
  const reader = createWorkerHost<BroughtTask | 'written', BroughtMessage>(workerScript('brought'), PATIENCE)
  const oneAtATime = createQueue()

  async function titlesOf(ids: string[]) {
    const rows = ids.length
      ? await db.select({ id: files.id, title: files.title, handle: files.handle }).from(files).where(among(files.id, ids))
      : []
    return new Map(rows.map(row => [row.id, row]))
  }

  /** The edition each file had when something was taken; 0 for one of before Trough. */
  async function editionsThen(): Promise<(file: string, at: number) => number> {
    const rows = await db
      .select({ file: editions.fileId, number: editions.number, created: editions.created })
      .from(editions)
      .orderBy(editions.number)
    const known = new Map<string, { number: number; from: number }[]>()
    for (const { file, number, created } of rows) known.set(file, [...(known.get(file) ?? []), { number, from: created.getTime() }])
    return (file, at) => known.get(file)?.findLast(({ from }) => from <= at)?.number ?? 0
  }

  async function countedFrom(zone: string): Promise<string> {
    const [row] = await db
      .select({ at: sql<string | null>`min(${downloads.at})` })
      .from(downloads)
      .where(eq(downloads.source, ''))
    return row?.at ? dayAt(new Date(row.at).getTime(), zone) : ''
  }

  async function readThrough(
    task: Omit<BroughtTask, 'files' | 'hosts' | 'countries'>,
    { hosts, countries }: SiteFacts,
    onRows: (rows: BroughtRow[]) => Promise<void>,
  ): Promise<BroughtSums> {
    let sums: BroughtSums | undefined
    let failed: unknown
    let writing: Promise<unknown> = Promise.resolve()
    const known = await fileAddresses(db)
    const reading = reader.run({ ...task, files: known, hosts, countries }, (message, reply) => {
      if ('rows' in message) {
        if (message.rows.length)
          writing = onRows(message.rows)
            .catch((error: unknown) => (failed ??= error))
            .finally(() => reply('written'))
        return false
      }
      if ('sums' in message) ({ sums } = message)
      return true
    })
    await reading.catch(async (error: Error) => {
      // What is being written is there before anybody takes it out again.
      await writing
      throw new Problem(422, 'It could not be read to its end.', `${error.message} Unpack it, or cut it into smaller parts.`)
    })
    if (failed !== undefined) throw failed as Error
    if (!sums)
      throw new Problem(
        422,
        'This is no file of numbers that is known.',
        'Bring an access log in the Combined or W3C Extended format, packed with gzip or not, or a table with a day, a file and a count in each line.',
      )
    return sums
  }

  async function found(
    { format, lines, downloads: count, first, last, files: taken, left, others }: BroughtSums,
    zone: string,
  ): Promise<Found> {
    const titles = await titlesOf(taken.slice(0, TOLD_FILES).map(([id]) => id))
    const day = (at: number | string | null) => (at === null ? '' : typeof at === 'string' ? at : dayAt(at, zone))
    return {
      format,
      lines,
      downloads: count,
      firstDay: day(first),
      lastDay: day(last),
      files: taken.slice(0, TOLD_FILES).flatMap(([id, each]) => {
        const named = titles.get(id)
        return named ? [{ title: named.title, handle: named.handle, count: each }] : []
      }),
      left,
      others: others.map(([address, each]) => ({ address, count: each })),
      countedFrom: await countedFrom(zone),
    }
  }

  /** Takes out what came in with something, a stretch at a time. */
  async function takeOut(id: string): Promise<void> {
    for (;;) {
      const some = db.select({ id: downloads.id }).from(downloads).where(eq(downloads.source, id)).limit(AT_ONCE)
      const gone = await db.delete(downloads).where(inArray(downloads.id, some)).returning({ id: downloads.id })
      if (gone.length < AT_ONCE) break
      await turn()
    }
    await db.delete(imports).where(eq(imports.id, id))
  }

  async function write(id: string, rows: BroughtRow[], zone: string, editionThen: (file: string, at: number) => number): Promise<void> {
    const batch = rows.map(({ file, at, count, bytes, told }): CountedDownload => {
      const moment = typeof at === 'string' ? noonOf(at, zone) : at
      const edition = editionThen(file, moment)
      return {
        file,
        edition,
        placement: undefined,
        at: moment,
        bytes,
        course: 'whole',
        took: 0,
        told: { ...NO_PARTICULARS, ...told },
        count,
      }
    })
    await db.transaction(tx => insertDownloads(tx, batch, id))
    await turn()
  }

  interface Laid {
    path: string
    sha256: string
  }

  /** What is in a file, by a first reading of it. */
  async function lookInto({ path, sha256 }: Laid, { before }: ImportQuery) {
    const facts = await site()
    const [known] = await db.select().from(imports).where(eq(imports.sha256, sha256))
    if (known?.whole)
      throw new Problem(409, `This came in already, as “${known.name}”.`, 'Take that out first, if it shall come in anew.', {
        field: 'name',
      })
    const until = before ? startOfDay(noonOf(before, facts.zone), facts.zone).getTime() : Number.MAX_SAFE_INTEGER
    const task = { path, beforeDay: before, before: until }
    const sums = await readThrough({ ...task, look: true }, facts, async () => undefined)
    return { facts, task, found: await found(sums, facts.zone), left: known?.id }
  }

  async function bring(laid: Laid, query: ImportQuery): Promise<{ found: Found; item: ImportItem }> {
    const { facts, task, found: told, left } = await lookInto(laid, query)
    if (!told.downloads) throw new Problem(422, 'Nothing in it would be counted.', 'Look at why its lines are left out.')
    // A try that came to no end and could not be taken out, as on a full disk.
    if (left !== undefined) await takeOut(left)
    const id = newId()
    const { format, downloads: count, firstDay, lastDay } = told
    await db.insert(imports).values({ id, name: query.name, format, sha256: laid.sha256, downloads: count, firstDay, lastDay })
    try {
      const editionThen = await editionsThen()
      await readThrough({ ...task, look: false }, facts, rows => write(id, rows, facts.zone, editionThen))
      const [row] = await db.update(imports).set({ whole: true }).where(eq(imports.id, id)).returning()
      return { found: told, item: toItem(row!) }
    } catch (error) {
      await takeOut(id)
      throw error
    }
  }

  /** Lays a file down while something is done with it: several may come at the same time, and are read one after another. */
  async function laidDown<Given>(stream: Readable, use: (laid: Laid) => Promise<Given>): Promise<Given> {
    const path = incoming(newId())
    try {
      const laid = await keep(Readable.from(upTo(stream, MOST)), path)
      return await oneAtATime(() => use(laid))
    } finally {
      await rm(path, { force: true })
    }
  }

  const toItem = ({ id, name, format, downloads: count, firstDay, lastDay, created }: typeof imports.$inferSelect): ImportItem => ({
    id,
    name,
    format,
    downloads: count,
    firstDay,
    lastDay,
    created: created.toISOString(),
  })

  return {
    /** What was brought in, the newest first. */
    list: async (): Promise<ImportItem[]> =>
      (await db.select().from(imports).where(eq(imports.whole, true)).orderBy(desc(imports.created))).map(toItem),

    /**
     * Says what is in a file of numbers.
     *
     * @throws Problem 409 where it came in before, 413 where it is too large, 422 where it is none
     */
    look: (stream: Readable, query: ImportQuery): Promise<Found> => laidDown(stream, async laid => (await lookInto(laid, query)).found),

    /** Brings a file of numbers in. @throws Problem as {@link look} does, and 422 where nothing in it would be counted */
    bring: (stream: Readable, query: ImportQuery): Promise<{ found: Found; item: ImportItem }> =>
      laidDown(stream, laid => bring(laid, query)),

    /** Takes all that came in with something out again. @throws Problem 404 */
    async undo(id: string): Promise<void> {
      const [row] = await db.select({ id: imports.id }).from(imports).where(eq(imports.id, id))
      if (!row) throw notFound('import')
      await takeOut(id)
    },

    /** Takes out what an earlier process did not get to the end of. */
    async resume(): Promise<void> {
      for (const { id } of await db.select({ id: imports.id }).from(imports).where(eq(imports.whole, false))) await takeOut(id)
      const known = db.select({ id: imports.id }).from(imports)
      // An import that another took out while it came in.
      await db.delete(downloads).where(and(ne(downloads.source, ''), notInArray(downloads.source, known)))
    },

    close: reader.close,
  }
}
export type Bringing = ReturnType<typeof createBringing>
