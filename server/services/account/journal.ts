import { and, desc, eq, ilike, inArray, lt, or, type SQL } from 'drizzle-orm'
import { z } from 'zod'
import { csvLine } from '../../../core/csvLine'
import { actsCalled, wordsOfAct, type OwnAct, type Subject } from '../../../core/journal/acts'
import type { JournalItem } from '../../../core/journal/journalItem'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { holding } from '../../db/like'
import { accounts, catalogues, files, folders, gates, journal, looks, pages, signposts } from '../../db/schema'
import { laterTrouble } from '../../log'

/** Days for which it is kept. */
const KEPT = 365
/** Things of one kind that a search of the log takes in by their names. */
const MOST_CALLED = 1000
/** Lines read at once for a table. */
const AT_ONCE = 500
const DAY = 24 * 60 * 60 * 1000

export const journalQuerySchema = z.object({
  /** a piece of who it was, what they did, or what it was done to */
  q: z.string().trim().max(200, 'Look for at most 200 characters.').default(''),
  /** e-mail of who it was */
  who: z.string().trim().toLowerCase().max(254).default(''),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(200).default(50),
})

const NAMED = {
  file: { table: files, name: files.title, place: (id: string) => `/desk/files/${id}` },
  page: { table: pages, name: pages.title, place: (id: string) => `/desk/pages/${id}` },
  signpost: { table: signposts, name: signposts.title, place: () => '/desk/signposts' },
  look: { table: looks, name: looks.name, place: () => '/desk/looks' },
  person: { table: accounts, name: accounts.email, place: () => '/desk/people' },
  gate: { table: gates, name: gates.name, place: () => '/desk/gates' },
  catalogue: { table: catalogues, name: catalogues.name, place: (id: string) => `/desk/catalogues/${id}` },
  folder: { table: folders, name: folders.name, place: (id: string) => `/desk?folder=${id}` },
} as const

type JournalFilter = Pick<z.infer<typeof journalQuerySchema>, 'q' | 'who'>

/** Who signed in, and who changed what. */
export function createJournal(db: Database) {
  async function namesOf(wanted: { subject: Subject; about: string }[]): Promise<Map<string, string>> {
    const found = new Map<string, string>()
    for (const [subject, { table, name }] of Object.entries(NAMED)) {
      const ids = [...new Set(wanted.flatMap(one => (one.subject === subject ? one.about : [])))]
      if (!ids.length) continue
      for (const row of await db.select({ id: table.id, name }).from(table).where(among(table.id, ids)))
        found.set(`${subject} ${row.id}`, row.name)
    }
    return found
  }

  /** Identities of what is called so, of whatever kind. */
  async function called(pattern: string): Promise<string[]> {
    const found = await Promise.all(
      Object.values(NAMED).map(({ table, name }) => db.select({ id: table.id }).from(table).where(ilike(name, pattern)).limit(MOST_CALLED)),
    )
    return found.flat().map(({ id }) => id)
  }

  async function filterOf({ q, who }: JournalFilter): Promise<SQL | undefined> {
    const pattern = holding(q)
    return and(
      q
        ? or(
            inArray(journal.act, actsCalled(q)),
            among(journal.about, await called(pattern)),
            ilike(journal.who, pattern),
            ilike(journal.about, pattern),
          )
        : undefined,
      who ? eq(journal.who, who) : undefined,
    )
  }

  async function toItems(rows: (typeof journal.$inferSelect)[]): Promise<JournalItem[]> {
    const told = rows.map(row => ({ ...row, ...wordsOfAct(row.act) }))
    const names = await namesOf(told)
    return told.map(({ id, at, who, words, subject, about, place }) => {
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
    })
  }

  return {
    /** Writes down an act; what it is about is an identity, or words. Nobody waits for it. */
    note(act: OwnAct | (string & {}), { who, about = '', place = '' }: { who: string; about?: string; place?: string }): void {
      db.insert(journal)
        .values({ act, who: who.slice(0, 254), about: about.slice(0, 200), place })
        .catch(laterTrouble('an act could not be written into the journal'))
    },

    /** The newest first. */
    async list({ from, limit, ...filter }: z.infer<typeof journalQuerySchema>): Promise<{ items: JournalItem[]; total: number }> {
      const those = await filterOf(filter)
      const rows = await db.select().from(journal).where(those).orderBy(desc(journal.id)).limit(limit).offset(from)
      return { items: await toItems(rows), total: await db.$count(journal, those) }
    },

    /** All of them as lines of a table, the newest first. */
    async *csv(filter: JournalFilter): AsyncGenerator<string> {
      const those = await filterOf(filter)
      // The mark by which table programs know UTF-8.
      yield '\uFEFF' + csvLine(['When', 'Who', 'What', 'Of', 'From'])
      for (let last: number | undefined, more = true; more;) {
        const behind = last === undefined ? undefined : lt(journal.id, last)
        const rows = await db.select().from(journal).where(and(those, behind)).orderBy(desc(journal.id)).limit(AT_ONCE)
        const items = await toItems(rows)
        if (items.length) yield items.map(({ at, who, words, about, place }) => csvLine([at, who, words, about, place])).join('')
        more = rows.length === AT_ONCE
        last = rows.at(-1)?.id
      }
    },

    /** Forgets what is old. */
    async tidy(now = Date.now()): Promise<void> {
      await db.delete(journal).where(lt(journal.at, new Date(now - KEPT * DAY)))
    },
  }
}
export type Journal = ReturnType<typeof createJournal>
