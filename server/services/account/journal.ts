import { desc, inArray, lt, sql } from 'drizzle-orm'
import { z } from 'zod'
import { wordsOfAct, type OwnAct, type Subject } from '../../../core/journal/acts'
import type { JournalItem } from '../../../core/journal/journalItem'
import type { Database } from '../../db/connection'
import { files, folders, gates, journal, looks, pages, signposts } from '../../db/schema'
import { laterTrouble } from '../../log'

/** Days for which it is kept. */
const KEPT = 365
const DAY = 24 * 60 * 60 * 1000

export const journalQuerySchema = z.object({
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})

const NAMED = {
  file: { table: files, name: files.title, place: (id: string) => `/desk/files/${id}` },
  page: { table: pages, name: pages.title, place: (id: string) => `/desk/pages/${id}` },
  signpost: { table: signposts, name: signposts.title, place: () => '/desk/signposts' },
  look: { table: looks, name: looks.name, place: () => '/desk/looks' },
  gate: { table: gates, name: gates.name, place: () => '/desk/gates' },
  folder: { table: folders, name: folders.name, place: (id: string) => `/desk?folder=${id}` },
} as const

/** Who signed in, and who changed what. */
export function createJournal(db: Database) {
  async function namesOf(wanted: { subject: Subject; about: string }[]): Promise<Map<string, string>> {
    const found = new Map<string, string>()
    for (const [subject, { table, name }] of Object.entries(NAMED)) {
      const ids = [...new Set(wanted.flatMap(one => (one.subject === subject ? one.about : [])))]
      if (!ids.length) continue
      for (const row of await db.select({ id: table.id, name }).from(table).where(inArray(table.id, ids)))
        found.set(`${subject} ${row.id}`, row.name)
    }
    return found
  }

  return {
    /** Writes down an act; what it is about is an identity, or words. Nobody waits for it. */
    note(act: OwnAct | (string & {}), { who, about = '', place = '' }: { who: string; about?: string; place?: string }): void {
      db.insert(journal)
        .values({ act, who: who.slice(0, 254), about: about.slice(0, 200), place })
        .catch(laterTrouble('an act could not be written into the journal'))
    },

    /** The newest first. */
    async list({ from, limit }: z.infer<typeof journalQuerySchema>): Promise<{ items: JournalItem[]; total: number }> {
      const rows = await db.select().from(journal).orderBy(desc(journal.id)).limit(limit).offset(from)
      const [all] = await db.select({ count: sql<number>`count(*)::int` }).from(journal)
      const told = rows.map(row => ({ ...row, ...wordsOfAct(row.act) }))
      const names = await namesOf(told)
      return {
        total: all!.count,
        items: told.map(({ id, at, who, words, subject, about, place }) => {
          const name = subject === null ? undefined : names.get(`${subject} ${about}`)
          return {
            id,
            at: at.toISOString(),
            who,
            words,
            about: subject === null ? about : (name ?? ''),
            leadsTo: subject !== null && name !== undefined ? NAMED[subject].place(about) : null,
            place,
          }
        }),
      }
    },

    /** Forgets what is old. */
    async tidy(now = Date.now()): Promise<void> {
      await db.delete(journal).where(lt(journal.at, new Date(now - KEPT * DAY)))
    },
  }
}
export type Journal = ReturnType<typeof createJournal>
