import { setImmediate } from 'node:timers/promises'
import { and, asc, eq, sql } from 'drizzle-orm'
import type { Contents } from '../../../core/files/fileContents'
import type { TextPart } from '../../../core/editions/compareTexts'
import { saysSomething, termsOf, type Question } from '../../../core/find/question'
import { passageIn, type Passage } from '../../../core/find/passage'
import type { Database } from '../../db/connection'
import { texts } from '../../db/schema'
import type { ReadPart } from '../../workers/read'

/** Documents that one question finds by their words, at the most. */
export const MOST_FOUND = 1000

/** Parts of a document that are shown by their words alone. */
const MOST_SHOWN = 100

export interface Found {
  part: string
  passage: Passage
}

/** `('firing':* | 'fire':*) & ('chart':*)`: of every word one of its beginnings (PostgreSQL, 8.11.2). */
function written(question: Question): string {
  return question.map(terms => `(${terms.map(term => `'${term.replace(/['\\]/g, '')}':*`).join(' | ')})`).join(' & ')
}

/** The words inside documents: written while they are read, and found again. */
export function createSearchIndex(db: Database) {
  return {
    async clear(sha256: string): Promise<void> {
      await db.delete(texts).where(eq(texts.sha256, sha256))
    },

    /** Adds parts behind those that are there, numbered from `first`, with a turn for visitors after each. */
    async add(sha256: string, first: number, parts: ReadPart[]): Promise<void> {
      // One transaction: making each few safe on the disk by itself takes longer than writing them.
      await db.transaction(async tx => {
        for (const [index, { part, body, words }] of parts.entries()) {
          await tx
            .insert(texts)
            .values({ sha256, number: first + index, part, body, words: sql<string>`array_to_tsvector(${sql.param(words)}::text[])` })
          await setImmediate()
        }
      })
    },

    /** All words of some contents, part by part. */
    parts: (sha256: string): Promise<TextPart[]> =>
      db.select({ part: texts.part, body: texts.body }).from(texts).where(eq(texts.sha256, sha256)).orderBy(asc(texts.number)),

    /**
     * SHA-256 of the contents in one part of which every word stands; the first `MOST_FOUND`.
     *
     * @param among only these contents are looked at
     */
    async containing(question: Question, among?: string[]): Promise<Set<string>> {
      if (!saysSomething(question)) return new Set()
      const narrowed = among ? sql`and ${texts.sha256} = any(${sql.param(among)}::text[])` : sql``
      // One text instead of thousands of rows, which would take longer to take apart than to find.
      const found = await db.transaction(async tx => {
        // With a limit the planner likes to read the table until it has enough, which takes ten times as long.
        await tx.execute(sql`set local enable_seqscan = off`)
        const {
          rows: [answer],
        } = await tx.execute<{ found: string | null }>(sql`
          select string_agg(sha256, ' ') as found from (select sha256 from ${texts} where ${texts.words} @@ ${written(question)}::tsquery ${narrowed} limit ${MOST_FOUND}) as part`)
        return answer?.found
      })
      return new Set(found?.split(' '))
    },

    /** For each of some contents, the first part with all the words and the passage in it. */
    async passages(question: Question, sha256: string[]): Promise<Map<string, Found>> {
      const terms = termsOf(question)
      if (!terms.length || !sha256.length) return new Map()
      const { rows } = await db.execute<{ sha256: string; part: string; body: string }>(sql`
        select distinct on (sha256) sha256, part, body from ${texts}
        where sha256 = any(${sql.param(sha256)}::text[]) and ${texts.words} @@ ${written(question)}::tsquery order by sha256, number`)
      return new Map(
        rows.flatMap(({ sha256: hash, part, body }) => {
          const passage = passageIn(body, terms)
          return passage ? [[hash, { part, passage }]] : []
        }),
      )
    },

    /** The words of a document by its parts, neighbours of one name as one, as far as they are shown; undefined where it has none. */
    async shown(sha256: string): Promise<Extract<Contents, { kind: 'parts' }> | undefined> {
      const rows = await db
        .select({ name: texts.part, text: texts.body })
        .from(texts)
        .where(eq(texts.sha256, sha256))
        .orderBy(asc(texts.number))
        .limit(MOST_SHOWN + 1)
      const parts: { name: string; text: string }[] = []
      for (const { name, text } of rows.slice(0, MOST_SHOWN)) {
        const last = parts.at(-1)
        if (last?.name === name) last.text += text
        else parts.push({ name, text })
      }
      return parts.length ? { kind: 'parts', parts, cut: rows.length > MOST_SHOWN } : undefined
    },

    /** The words of one part of a document, by what it is called; undefined where it has none. */
    async partOf(sha256: string, part: string): Promise<string | undefined> {
      const [row] = await db
        .select({ body: texts.body })
        .from(texts)
        .where(and(eq(texts.sha256, sha256), eq(texts.part, part)))
        .limit(1)
      return row?.body
    },

    /** The parts of a document in which every word stands, the first ones, with the passage in each. */
    async within(question: Question, sha256: string, limit: number): Promise<Found[]> {
      const terms = termsOf(question)
      if (!terms.length) return []
      const rows = await db
        .select({ part: texts.part, body: texts.body })
        .from(texts)
        .where(and(eq(texts.sha256, sha256), sql`${texts.words} @@ ${written(question)}::tsquery`))
        .orderBy(asc(texts.number))
        .limit(limit)
      return rows.flatMap(({ part, body }) => {
        const passage = passageIn(body, terms)
        return passage ? [{ part, passage }] : []
      })
    },

    /** The words at the beginning of a document. */
    async beginning(sha256: string): Promise<string> {
      const [row] = await db.select({ body: texts.body }).from(texts).where(eq(texts.sha256, sha256)).orderBy(texts.number).limit(1)
      return row?.body ?? ''
    },
  }
}
export type SearchIndex = ReturnType<typeof createSearchIndex>
