import { gt, sql } from 'drizzle-orm'
import type { Narrowing, Stretch, Sums, SumsQuestion } from '../../../core/tally/columns'
import type { Database } from '../../db/connection'
import { downloads } from '../../db/schema'
import type { SumsAnswer, SumsTask } from '../../workers/sums'
import { createAsker, workerScript } from '../workerHost'
import { KEYS } from './expressions'

/** Milliseconds without an answer after which the worker is taken for dead. */
const PATIENCE = 60_000
/** Rows that are read at once: visitors' queries come in between. */
const AT_ONCE = 20_000

/**
 * Asks a worker that holds all downloads as columns. Nothing has to be told to it: each question says up to which download it goes, and
 * what the worker does not know of them yet is read from the database first, all of them where it is new.
 */
export function createSums(db: Database) {
  const worker = createAsker<SumsTask, SumsAnswer>(workerScript('sums'), PATIENCE)

  async function newest(): Promise<number> {
    const [row] = await db.select({ id: sql<number>`coalesce(max(${downloads.id}), 0)::float8` }).from(downloads)
    return row!.id
  }

  /** Rows as one text: taken apart field by field it takes ten times as long. */
  async function rowsAfter(id: number): Promise<string> {
    const those = db.select().from(downloads).where(gt(downloads.id, id)).orderBy(downloads.id).limit(AT_ONCE)
    const { rows } = await db.execute<{ rows: string | null }>(sql`select json_agg(json_build_array(
      id, floor(extract(epoch from at))::bigint, count, bytes, ${KEYS}) order by id)::text as rows from ${those} as downloads`)
    return rows[0]?.rows ?? '[]'
  }

  async function ask(task: Exclude<SumsTask, { rows: string }>): Promise<SumsAnswer> {
    for (;;) {
      const answer = await worker.ask(task)
      if (answer.has >= task.upTo) return answer
      await worker.ask({ rows: await rowsAfter(answer.has) })
    }
  }

  return {
    /** Identity of the newest download; 0 while there is none. */
    newest,
    async sums(question: SumsQuestion): Promise<Sums> {
      return (await ask({ upTo: await newest(), sums: question })).sums!
    },
    /** Identities of downloads, the newest first, and how many there are. */
    async find(stretch: Stretch, narrow: Narrowing, from: number, limit: number): Promise<{ ids: number[]; total: number }> {
      return (await ask({ upTo: await newest(), find: { stretch, narrow, from, limit } })).find!
    },
    /** When the first was, in milliseconds since 1970; undefined while there is none. */
    async first(narrow: Narrowing): Promise<number | undefined> {
      const { first } = await ask({ upTo: await newest(), first: narrow })
      return first ? first * 1000 : undefined
    },
    close: worker.close,
  }
}
export type SumsOfDownloads = ReturnType<typeof createSums>
