import { createReadStream } from 'node:fs'
import { open } from 'node:fs/promises'
import { createInterface } from 'node:readline'
import type { Readable } from 'node:stream'
import { parentPort } from 'node:worker_threads'
import { createGunzip } from 'node:zlib'
import { createW3cReader, formatOf, readCombined, readCount } from '../../core/tally/brought/accessLog'
import type { ImportFormat, LeftOut } from '../../core/tally/brought/brought'
import { LogCount, pathOf, WholeSizes, type KnownFile } from '../../core/tally/brought/logCount'
import { isRobot } from '../../core/tally/robots'
import { comeAfterVisitors } from './courtesy'
import { factsOf } from './visitorFacts'

/** A file of numbers that is to be read. */
export interface BroughtTask {
  path: string
  /** by the addresses and names that lead to each */
  files: Record<string, KnownFile>
  hosts: string[]
  /** milliseconds since 1970; what came then or later is left out */
  before: number
  /** the day that it is, which `before` is the beginning of; empty for none */
  beforeDay: string
  countries: boolean
  /** only what is in it is told, and no rows */
  look: boolean
}

export interface BroughtRow {
  file: string
  /** milliseconds since 1970, or a day of the site's */
  at: number | string
  count: number
  bytes: number
  told: { referrer: string; referrerPath: string; campaign: string; country: string; device: string; browser: string; system: string }
}

export interface BroughtSums {
  format: ImportFormat
  lines: number
  downloads: number
  /** milliseconds since 1970, or days */
  first: number | string | null
  last: number | string | null
  files: [file: string, count: number][]
  left: Partial<Record<LeftOut, number>>
  others: [address: string, count: number][]
}
export type BroughtMessage = { rows: BroughtRow[] } | { sums: BroughtSums } | { unknown: true }

const AT_ONCE = 500
/** Bytes that a file is known by. */
const BEGINNING = 16_384
/** Addresses of nothing that are told apart, and told. */
const MOST_OTHERS = 20_000
const TOLD_OTHERS = 20
/** A longer line is none of a log. */
const LONGEST = 65_536
/** Said now and then, so that a long file is not taken for one that hangs. */
const ALIVE = 200_000

const isPacked = async (path: string): Promise<boolean> => {
  const handle = await open(path)
  try {
    const { buffer } = await handle.read(Buffer.alloc(2), 0, 2, 0)
    // RFC 1952, section 2.3.1.
    return buffer[0] === 0x1f && buffer[1] === 0x8b
  } finally {
    await handle.close()
  }
}

/** Logs that were put away are often packed. */
async function contentsOf(path: string): Promise<Readable> {
  const raw = createReadStream(path)
  if (!(await isPacked(path))) return raw
  const unpacked = createGunzip()
  raw.on('error', error => unpacked.destroy(error))
  // Who has read enough leaves no file open.
  unpacked.on('close', () => raw.destroy())
  return raw.pipe(unpacked)
}

async function beginningOf(path: string): Promise<string> {
  const stream = await contentsOf(path)
  let text = ''
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    text += chunk.toString('utf8')
    if (text.length >= BEGINNING) break
  }
  return text
}

async function* linesOf(path: string): AsyncGenerator<string> {
  for await (const line of createInterface({ input: await contentsOf(path), crlfDelay: Infinity }))
    yield line.length > LONGEST ? '' : line.replace(/^\uFEFF/, '')
}

const NOTHING_TOLD = { referrer: '', referrerPath: '', campaign: '', country: '', device: '', browser: '', system: '' }

/** Adds up what is found, and hands rows on as they come. */
class Gathered {
  lines = 0
  private downloads = 0
  private first: number | string | null = null
  private last: number | string | null = null
  private readonly files = new Map<string, number>()
  private readonly left: Partial<Record<LeftOut, number>> = {}
  private readonly others = new Map<string, number>()
  private rows: BroughtRow[] = []

  constructor(private readonly give: (rows: BroughtRow[]) => Promise<void>) {}

  leave(why: LeftOut): void {
    this.left[why] = (this.left[why] ?? 0) + 1
  }

  leaveOther(address: string): void {
    this.leave('other')
    if (this.others.has(address) || this.others.size < MOST_OTHERS) this.others.set(address, (this.others.get(address) ?? 0) + 1)
  }

  async take(row: BroughtRow): Promise<void> {
    this.downloads += row.count
    this.files.set(row.file, (this.files.get(row.file) ?? 0) + row.count)
    if (this.first === null || row.at < this.first) this.first = row.at
    if (this.last === null || row.at > this.last) this.last = row.at
    this.rows.push(row)
    if (this.rows.length >= AT_ONCE) await this.flush()
  }

  async flush(): Promise<void> {
    const rows = this.rows
    this.rows = []
    if (rows.length) await this.give(rows)
  }

  sums(format: ImportFormat): BroughtSums {
    const most = (counts: Map<string, number>) => [...counts].sort(([a, one], [b, other]) => other - one || (a < b ? -1 : 1))
    const { lines, downloads, first, last, left } = this
    return { format, lines, downloads, first, last, left, files: most(this.files), others: most(this.others).slice(0, TOLD_OTHERS) }
  }
}

async function readLog(task: BroughtTask, format: 'combined' | 'w3c', gathered: Gathered, alive: () => void): Promise<void> {
  const readerOf = () => (format === 'w3c' ? createW3cReader() : readCombined)
  const files = new Map(Object.entries(task.files))
  const fileAt = (path: string) => files.get(path)
  const whole = new WholeSizes()
  const learn = readerOf()
  let seen = 0
  for await (const line of linesOf(task.path)) {
    if (++seen % ALIVE === 0) alive()
    const logged = learn(line)
    const path = logged && pathOf(logged.path)
    if (path && fileAt(path)) whole.add(path, logged)
  }
  const counting = new LogCount({ fileAt, whole, isRobot, hosts: task.hosts, before: task.before })
  const read = readerOf()
  for await (const line of linesOf(task.path)) {
    const logged = read(line)
    if (logged === null) continue
    if (++gathered.lines % ALIVE === 0) alive()
    if (!logged) {
      gathered.leave('unreadable')
      continue
    }
    const found = counting.count(logged)
    if (found === 'other') gathered.leaveOther(pathOf(logged.path))
    else if (typeof found === 'string') gathered.leave(found)
    else {
      const { file, at, bytes, address, userAgent, ...told } = found
      const facts = factsOf({ address, userAgent })
      await gathered.take({ file, at, bytes, count: 1, told: { ...told, ...facts, ...(!task.countries && { country: '' }) } })
    }
  }
}

async function readCounts({ path, files, beforeDay }: BroughtTask, gathered: Gathered): Promise<void> {
  const known = new Map(Object.entries(files))
  const fileOf = (name: string) => known.get(name) ?? known.get(name.toLowerCase()) ?? known.get(pathOf(name))
  for await (const line of linesOf(path)) {
    if (!line.trim()) continue
    gathered.lines++
    const found = readCount(line)
    const file = found && fileOf(found.file)
    if (!found) gathered.leave('unreadable')
    else if (!file) gathered.leaveOther(found.file)
    else if (beforeDay && found.day >= beforeDay) gathered.leave('later')
    else await gathered.take({ file: file.id, at: found.day, count: found.count, bytes: 0, told: NOTHING_TOLD })
  }
}

async function bring(task: BroughtTask): Promise<void> {
  const say = (message: BroughtMessage) => parentPort!.postMessage(message)
  const format = formatOf(await beginningOf(task.path))
  if (!format) return say({ unknown: true })
  const alive = () => say({ rows: [] })
  // The next rows are read once these are written down.
  const give = (rows: BroughtRow[]) =>
    new Promise<void>(resolve => {
      if (task.look) return resolve()
      parentPort!.once('message', () => resolve())
      say({ rows })
    })
  const gathered = new Gathered(give)
  if (format === 'counts') await readCounts(task, gathered)
  else await readLog(task, format, gathered, alive)
  await gathered.flush()
  say({ sums: gathered.sums(format) })
}

comeAfterVisitors()
parentPort!.on('message', (task: BroughtTask | 'written') => {
  if (task === 'written') return
  bring(task).catch((error: unknown) => {
    setImmediate(() => {
      throw error
    })
  })
})
