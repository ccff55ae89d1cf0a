import { parentPort } from 'node:worker_threads'
import { createW3cReader, formatOf, readCombined, readCount } from '../../core/tally/brought/accessLog'
import { Gathered, type BroughtRow, type BroughtSums } from '../../core/tally/brought/gathered'
import { LogCount, pathOf, WholeSizes, type KnownFile } from '../../core/tally/brought/logCount'
import { isRobot } from '../../core/tally/robots'
import { comeAfterVisitors } from './courtesy'
import { beginningOf, linesOf } from './packedLines'
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

export type BroughtMessage = { rows: BroughtRow[] } | { sums: BroughtSums } | { unknown: true }

/** Said now and then, so that a long file is not taken for one that hangs. */
const ALIVE = 200_000

const NOTHING_TOLD = { referrer: '', referrerPath: '', campaign: '', country: '', device: '', browser: '', system: '' }

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
