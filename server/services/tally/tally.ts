import { setImmediate } from 'node:timers/promises'
import { asc, sql } from 'drizzle-orm'
import { tenthOf } from '../../../core/tally/occasions'
import { DoubleClicks } from '../../../core/tally/doubleClicks'
import { coversAll } from '../../../core/tally/intervals'
import { mergeDownloads, type CountedDownload } from '../../../core/tally/merge'
import { NO_PARTICULARS, type Came, type Particulars } from '../../../core/tally/particulars'
import { Transfers, type Delivery, type Download } from '../../../core/tally/transfers'
import { among } from '../../db/among'
import type { Database, Queryable } from '../../db/connection'
import { downloads, transfers as transferTable } from '../../db/schema'
import { laterTrouble } from '../../log'
import { tellHooks } from '../tellHooks'
import type { DailyTally } from './daily'
import type { Telling } from './telling'
import type { Who } from './who'

/** A delivery as the server saw it, before who it was is made unreadable. */
export interface Observation extends Omit<Delivery, 'visitor' | 'told'> {
  address: string
  userAgent: string | undefined
  /** what it said of where it came from; nothing of it is kept where that is not given */
  came?: Came
  /** what was in it, where its files are counted instead of itself */
  contents?: { file: string; edition: number; /** bytes */ size: number }[]
  /** identities of what was in it, where it is counted itself */
  members?: readonly string[]
}

/** Milliseconds between a delivery and its being written down, at the most. */
const FLUSH_AFTER = 250
const BATCH = 200
/** Files of a bundle that are told to have been taken with it; a larger one is told by itself. */
const MOST_MEMBERS = 200

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

/**
 * Writes downloads down. Arrays instead of a row of parameters each: a third of the time in the database.
 *
 * @param source what they were brought in with; empty for what was counted here
 */
export async function insertDownloads(tx: Queryable, batch: readonly CountedDownload[], source = ''): Promise<void> {
  const column = <K extends keyof CountedDownload>(name: K) => sql.param(batch.map(download => download[name]))
  const told = (name: keyof Particulars) => sql`${sql.param(batch.map(download => download.told[name]))}::text[]`
  // Whoever adds them up asks for those after the last it knows: identities have to be given out in the order of the commits.
  await tx.execute(sql`lock table ${downloads} in share row exclusive mode`)
  await tx.execute(sql`insert into ${downloads} (file_id, edition, placement, at, bytes, count, course, took, source, ${TOLD_COLUMNS})
    select file, edition, placement, to_timestamp(at / 1000.0), bytes, count, course, took, ${source}, ${TOLD_COLUMNS}
    from unnest(${column('file')}::text[], ${column('edition')}::int[], ${column('placement')}::text[], ${column('at')}::bigint[], ${column('bytes')}::bigint[], ${column('count')}::int[],
      ${column('course')}::text[], ${column('took')}::bigint[],
      ${sql.join(TOLD.map(told), sql`, `)})
    as row (file, edition, placement, at, bytes, count, course, took, ${TOLD_COLUMNS})`)
}

const isWhole = ({ delivered, size }: Observation): boolean => coversAll(delivered, size)

/** Every item that a request gives is an item requested (COUNTER Code of Practice, section 3.3, from memory). */
const itemsOf = ({ contents }: Observation, download: Download): Download[] =>
  contents ? contents.map(({ file, edition, size }) => ({ ...download, file, edition, bytes: size })) : [download]

const tellsNothing: Telling = async requests => requests.map(() => NO_PARTICULARS)

/**
 * Counts completed downloads, after the answer and off its path.
 *
 * @param tell says where requests came from and what with
 */
export function createTallyService(
  db: Database,
  { markOf, isRobot }: Who,
  daily: Pick<DailyTally, 'note'>,
  tell: Telling = tellsNothing,
  now: () => number = Date.now,
) {
  const doubleClicks = new DoubleClicks()
  let transfers: Transfers | undefined
  let observed: Observation[] = []
  /** Downloads that count, and of which is still to be told where they came from. */
  let counted: { one: Observation; download: Download }[] = []
  let completed: CountedDownload[] = []
  let timer: NodeJS.Timeout | undefined
  let writing: Promise<void> = Promise.resolve()

  /** Goes on with what an earlier process had of downloads under way. */
  async function begin(): Promise<Transfers> {
    const rows = await db.select().from(transferTable).orderBy(asc(transferTable.at))
    return new Transfers(rows.map(({ key, state }) => [key, state]))
  }

  async function keepUnfinished(known: Transfers): Promise<void> {
    known.forget(now())
    for (const { file, have, size, last } of known.takeBroken())
      daily.note({ what: 'broken', of: file, detail: `${tenthOf(have, size)}` }, last)
    const { open, ended } = known.changes()
    const rows = open.map(([key, state]) => ({ key, state, at: new Date(state.last) }))
    if (rows.length)
      await db
        .insert(transferTable)
        .values(rows)
        .onConflictDoUpdate({ target: transferTable.key, set: { state: sql`excluded.state`, at: sql`excluded.at` } })
    if (ended.length) await db.delete(transferTable).where(among(transferTable.key, ended))
  }

  function take(
    known: Transfers,
    { address, userAgent, file, edition, etag, placement, size, delivered, unsure, took, at }: Observation,
    told: Particulars | undefined,
  ): Download | undefined {
    const visitor = () => markOf(address, userAgent)
    // Written out: spreading costs more than all the rest of counting a download.
    const download = known.add({ file, edition, etag, placement, size, delivered, unsure, took, visitor, at, told })
    return download && !doubleClicks.repeats(visitor(), file, at) ? download : undefined
  }

  const tellEach = async (of: readonly Observation[]) => {
    const told = await tell(of)
    return new Map(of.map((one, place) => [one, told[place]!]))
  }

  /** Says where what counts came from, which is more work than counting it: most of a rush is one click too many. */
  async function completeCounted(): Promise<void> {
    const told = await tellEach(counted.flatMap(({ one }) => (isWhole(one) ? one : [])))
    const downloads = counted.flatMap(({ one, download }) => itemsOf(one, { ...download, told: told.get(one) ?? download.told }))
    for (const { one } of counted)
      if (one.members && one.members.length <= MOST_MEMBERS)
        for (const member of one.members) daily.note({ what: 'bundled', of: member, detail: one.file })
    counted = []
    completed = [...completed, ...mergeDownloads(downloads)]
  }

  async function write(): Promise<void> {
    const known = (transfers ??= await begin())
    const batch = [...observed]
    const taken = batch.filter(({ userAgent }) => !isRobot(userAgent))
    // What may go on later is told of as it began.
    const told = await tellEach(taken.filter(one => !isWhole(one)))
    // Not before: what cannot be told now is told the next time.
    observed = observed.slice(batch.length)
    for (const one of batch) if (isRobot(one.userAgent) && isWhole(one)) daily.note({ what: 'robot', of: one.file, detail: '' })
    for (const one of taken) {
      const download = take(known, one, told.get(one))
      if (download) counted.push({ one, download })
    }
    await completeCounted()
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

  const flushLater = () => void flush().catch(laterTrouble('downloads could not be written yet'))

  return {
    observe(observation: Observation): void {
      observed.push(observation)
      // In a rush they are counted while they are young: what is kept longer costs more to clear away than to count.
      if (observed.length === BATCH) flushLater()
      else timer ??= setTimeout(flushLater, FLUSH_AFTER)
    },
    flush,
  }
}
export type TallyService = ReturnType<typeof createTallyService>
