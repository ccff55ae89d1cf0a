import { createHmac } from 'node:crypto'
import { setImmediate } from 'node:timers/promises'
import { asc, inArray, lt, sql } from 'drizzle-orm'
import { LRUCache } from 'lru-cache'
import { DoubleClicks } from '../../../core/tally/doubleClicks'
import { isRobot } from '../../../core/tally/robots'
import { mergeDownloads, type CountedDownload } from '../../../core/tally/merge'
import { NO_PARTICULARS, type Came, type Particulars } from '../../../core/tally/particulars'
import { FORGOTTEN_AFTER, Transfers, type Delivery, type Download } from '../../../core/tally/transfers'
import type { Database, Queryable } from '../../db/connection'
import { downloads, transfers as transferTable } from '../../db/schema'
import { laterTrouble } from '../../log'
import { tellHooks } from '../tellHooks'
import type { Telling } from './telling'

/** A delivery as the server saw it, before who it was is made unreadable. */
export interface Observation extends Omit<Delivery, 'visitor' | 'at' | 'told'> {
  address: string
  userAgent: string | undefined
  /** what it said of where it came from; nothing of it is kept where that is not given */
  came?: Came
  /** what was in it, where its files are counted instead of itself */
  contents?: { file: string; edition: number; /** bytes */ size: number }[]
}

/** Milliseconds between a delivery and its being written down, at the most. */
const FLUSH_AFTER = 250
const BATCH = 200

/** In the order of the columns. */
const TOLD = Object.keys(NO_PARTICULARS) as (keyof Particulars)[]
const TOLD_COLUMNS = sql.join(
  TOLD.map(name => sql.identifier(downloads[name].name)),
  sql`, `,
)

const toldOf = ({ file, edition, placement, at, count }: CountedDownload) => ({
  file,
  edition,
  placement,
  at: new Date(at).toISOString(),
  downloads: count,
})

/** Writes downloads down. Arrays instead of a row of parameters each: a third of the time in the database. */
export async function insertDownloads(tx: Queryable, batch: readonly CountedDownload[]): Promise<void> {
  const column = <K extends keyof CountedDownload>(name: K) => sql.param(batch.map(download => download[name]))
  const told = (name: keyof Particulars) => sql`${sql.param(batch.map(download => download.told[name]))}::text[]`
  await tx.execute(sql`insert into ${downloads} (file_id, edition, placement, at, bytes, count, ${TOLD_COLUMNS})
    select file, edition, placement, to_timestamp(at / 1000.0), bytes, count, ${TOLD_COLUMNS}
    from unnest(${column('file')}::text[], ${column('edition')}::int[], ${column('placement')}::text[], ${column('at')}::bigint[], ${column('bytes')}::bigint[], ${column('count')}::int[],
      ${sql.join(TOLD.map(told), sql`, `)})
    as row (file, edition, placement, at, bytes, count, ${TOLD_COLUMNS})`)
}

const tellsNothing: Telling = async requests => requests.map(() => NO_PARTICULARS)

/**
 * Counts completed downloads, after the answer and off its path.
 *
 * @param tell says where requests came from and what with
 */
export function createTallyService(db: Database, secret: string, tell: Telling = tellsNothing, now: () => number = Date.now) {
  const doubleClicks = new DoubleClicks()
  let transfers: Transfers | undefined
  const robots = new LRUCache<string, boolean>({ max: 5000 })
  let observed: Observation[] = []
  let completed: CountedDownload[] = []
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  /** Nothing of this is stored; it only keeps the ranges of one visitor together. */
  const markOf = (address: string, userAgent = '') => createHmac('sha256', secret).update(`${address}\n${userAgent}`).digest('base64')

  function isRobotAgent(userAgent = ''): boolean {
    const known = robots.get(userAgent)
    if (known !== undefined) return known
    const robot = isRobot(userAgent)
    robots.set(userAgent, robot)
    return robot
  }

  /** Goes on with what an earlier process had of downloads under way. */
  async function begin(): Promise<Transfers> {
    await db.delete(transferTable).where(lt(transferTable.at, new Date(now() - FORGOTTEN_AFTER)))
    const rows = await db.select().from(transferTable).orderBy(asc(transferTable.at))
    return new Transfers(rows.map(({ key, state }) => [key, state]))
  }

  async function keepUnfinished(known: Transfers): Promise<void> {
    const { open, ended } = known.changes()
    const rows = open.map(([key, state]) => ({ key, state, at: new Date(state.last) }))
    if (rows.length)
      await db
        .insert(transferTable)
        .values(rows)
        .onConflictDoUpdate({ target: transferTable.key, set: { state: sql`excluded.state`, at: sql`excluded.at` } })
    if (ended.length) await db.delete(transferTable).where(inArray(transferTable.key, ended))
  }

  function take(
    known: Transfers,
    { address, userAgent, file, edition, etag, placement, size, delivered, unsure, contents }: Observation,
    told: Particulars,
  ): Download | Download[] {
    const at = now()
    const visitor = () => markOf(address, userAgent)
    // Written out: spreading costs more than all the rest of counting a download.
    const download = known.add({ file, edition, etag, placement, size, delivered, unsure, visitor, at, told })
    if (!download || doubleClicks.repeats(visitor(), file, at)) return []
    // Every item that a request gives is an item requested (COUNTER Code of Practice, section 3.3, from memory).
    return contents ? contents.map(one => ({ ...download, file: one.file, edition: one.edition, bytes: one.size })) : download
  }

  async function write(): Promise<void> {
    const known = (transfers ??= await begin())
    const batch = [...observed]
    const taken = batch.filter(({ userAgent }) => !isRobotAgent(userAgent))
    const told = await tell(taken)
    // Not before: what cannot be told now is told the next time.
    observed = observed.slice(batch.length)
    completed = [...completed, ...mergeDownloads(taken.flatMap((one, place) => take(known, one, told[place]!)))]
    await keepUnfinished(known)
    // A batch at a time, with a turn for visitors in between.
    while (completed.length) {
      const batch = completed.slice(0, BATCH)
      await db.transaction(async tx => {
        await insertDownloads(tx, batch)
        await tellHooks(tx, 'file.downloaded', batch.map(toldOf))
      })
      completed = completed.slice(batch.length)
      await setImmediate()
    }
  }

  /** Writes what was observed so far. */
  function flush(): Promise<void> {
    clearTimeout(timer)
    timer = undefined
    writing = writing.catch(() => undefined).then(write)
    return writing
  }

  return {
    observe(observation: Observation): void {
      observed.push(observation)
      timer ??= setTimeout(() => flush().catch(laterTrouble('downloads could not be written yet')), FLUSH_AFTER)
    },
    flush,
  }
}
export type TallyService = ReturnType<typeof createTallyService>
