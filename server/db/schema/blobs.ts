import { sql } from 'drizzle-orm'
import { bigint, index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import type { Facts, PreviewState, ReadingState } from '../../../core/files/fileItem'
import type { Trouble } from '../../../core/trust/trustReports'
import { moment, wordSet } from './columns'

/** Bytes on disk, once per SHA-256. */
export const blobs = pgTable(
  'blobs',
  {
    sha256: text().primaryKey(),
    size: bigint({ mode: 'number' }).notNull(),
    crc32: bigint({ mode: 'number' }).notNull(),
    facts: jsonb().$type<Facts>().notNull().default({}),
    preview: text().$type<PreviewState>().notNull().default('waiting'),
    reading: text().$type<ReadingState>().notNull().default('waiting'),
    readingError: text('reading_error'),
    /** what is wrong with the bytes as they lie in the store, since that was seen; null where nothing is known to be */
    trouble: text().$type<Trouble>(),
    created: moment('created').notNull().defaultNow(),
  },
  table => [
    index('blobs_waiting')
      .on(table.created)
      .where(sql`${table.reading} <> 'done'`),
  ],
)

/** The words of each part (page, sheet, slide) of what is in a blob, for finding; can be read again. */
export const texts = pgTable(
  'texts',
  {
    sha256: text()
      .notNull()
      .references(() => blobs.sha256, { onDelete: 'cascade' }),
    number: integer().notNull(),
    /** what people call the part: "Page 3" */
    part: text().notNull(),
    body: text().notNull(),
    words: wordSet('words').notNull(),
  },
  table => [
    primaryKey({ columns: [table.sha256, table.number] }),
    // Without the pending list, whose emptying would hold up visitors now and then.
    index('texts_words').using('gin', table.words).with({ fastupdate: false }),
  ],
)
