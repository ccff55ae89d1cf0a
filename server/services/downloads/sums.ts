import { gt, sql } from 'drizzle-orm'
import type { Among, Stretch, Sums, SumsQuestion } from '../../../core/tally/columns'
import type { Dimension } from '../../../core/tally/particulars'
import type { Database } from '../../db/connection'
import { downloadChanges, downloads } from '../../db/schema'
import type { State, SumsAnswer, SumsQuery, SumsTask } from '../../workers/sums'
import { createAsker, workerScript } from '../workerHost'
import { KEYS } from './expressions'

/** Milliseconds without an answer after which the worker is taken for dead. */
const PATIENCE = 60_000
/** Rows that are read at once: visitors' queries come in between. */
const AT_ONCE = 20_000

/**
 * Asks a worker that holds all downloads as columns. Nothing has to be told to it: each question says up to which download it goes, and
 * what the worker does not know of them yet is read from the database first, all of them where it is new or where some were changed.
 */
export function createSums(db: Database) {
  const worker = createAsker<SumsTask, SumsAnswer>(workerScript('sums'), PATIENCE)

  async function state(): Promise<State> {
    const { rows } = await db.execute<{ up_to: number; changes: number }>(sql`select
      (select coalesce(max(id), 0)::float8 from ${downloads}) as up_to, (select coalesce(max(id), 0)::float8 from ${downloadChanges}) as changes`)
    return { upTo: rows[0]!.up_to, changes: rows[0]!.changes }
  }

  /** Rows as one text: taken apart field by field it takes ten times as long. */
  async function rowsAfter(id: number): Promise<string> {
    const those = db.select().from(downloads).where(gt(downloads.id, id)).orderBy(downloads.id).limit(AT_ONCE)
    const { rows } = await db.execute<{ rows: string | null }>(sql`select json_agg(json_build_array(
      id, floor(extract(epoch from at))::bigint, count, bytes, ${KEYS}) order by id)::text as rows from ${those} as downloads`)
    return rows[0]?.rows ?? '[]'
  }

  async function ask(query: SumsQuery): Promise<SumsAnswer> {
    const { upTo, changes } = await state()
    for (;;) {
      const answer = await worker.ask({ upTo, changes, ...query })
      if (answer.has >= upTo) return answer
      await worker.ask({ changes, rows: await rowsAfter(answer.has) })
    }
  }

  return {
    sums: async (question: SumsQuestion): Promise<Sums> => (await ask({ sums: question })).sums!,
    /** Identities of downloads, the newest first, and how many there are. */
    find: async (stretch: Stretch, among: Among, from: number, limit: number): Promise<{ ids: number[]; total: number }> =>
      (await ask({ find: { stretch, among, from, limit } })).find!,
    /** When the first was, in milliseconds since 1970; undefined while there is none. */
    async first(among: Among): Promise<number | undefined> {
      const { first } = await ask({ first: among })
      return first ? first * 1000 : undefined
    },
    /** Keys of a dimension that came first within a stretch. */
    beginnings: async (dimension: Dimension, stretch: Stretch): Promise<{ key: string; at: number }[]> =>
      (await ask({ beginnings: { dimension, stretch } })).beginnings!,
    close: worker.close,
  }
}
export type SumsOfDownloads = ReturnType<typeof createSums>
