import { sql } from 'drizzle-orm'
import { bigint, bigserial, boolean, date, index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import type { ImportFormat } from '../../../core/tally/brought/brought'
import type { Occasion } from '../../../core/tally/occasions'
import type { Transfer } from '../../../core/tally/transfers'
import { moment } from './columns'

/** Completed downloads, those of the same second in one row; nothing in a row says who it was. */
export const downloads = pgTable(
  'downloads',
  {
    id: bigserial({ mode: 'number' }).primaryKey(),
    fileId: text('file_id').notNull(),
    edition: integer().notNull(),
    placement: text(),
    at: moment('at').notNull(),
    count: integer().notNull().default(1),
    /** that left this machine for them, repeats included */
    bytes: bigint({ mode: 'number' }).notNull(),
    // Where they came from and what with, by `core/tally/particulars`; empty where that is not known.
    page: text().notNull().default(''),
    signpost: text().notNull().default(''),
    campaign: text().notNull().default(''),
    referrer: text().notNull().default(''),
    referrerPath: text('referrer_path').notNull().default(''),
    country: text().notNull().default(''),
    device: text().notNull().default(''),
    browser: text().notNull().default(''),
    system: text().notNull().default(''),
    language: text().notNull().default(''),
    /** whole at once, or put together from pieces; empty where that is not known */
    course: text().notNull().default(''),
    /** milliseconds that they took, all together */
    took: bigint({ mode: 'number' }).notNull().default(0),
    person: text().notNull().default(''),
    link: text().notNull().default(''),
    address: text().notNull().default(''),
    /** identity of what they were brought in with; empty for what was counted here */
    source: text().notNull().default(''),
  },
  table => [
    index('downloads_file').on(table.fileId, table.at),
    index('downloads_placement').on(table.placement),
    index('downloads_person')
      .on(table.person)
      .where(sql`person <> ''`),
    index('downloads_address')
      .on(table.at)
      .where(sql`address <> ''`),
    index('downloads_source')
      .on(table.source)
      .where(sql`source <> ''`),
  ],
)

/** Each time downloads were changed or taken out after they had been written: who holds sums of them makes these anew. */
export const downloadChanges = pgTable('download_changes', {
  id: bigserial({ mode: 'number' }).primaryKey(),
  at: moment('at').notNull().defaultNow(),
})

/** Numbers of before that were brought in, each as one. */
export const imports = pgTable('imports', {
  id: text().primaryKey(),
  /** of the file they came in */
  name: text().notNull(),
  format: text().$type<ImportFormat>().notNull(),
  /** of its contents: nothing comes in twice */
  sha256: text().notNull().unique(),
  downloads: integer().notNull(),
  firstDay: date('first_day', { mode: 'string' }).notNull(),
  lastDay: date('last_day', { mode: 'string' }).notNull(),
  /** all of it is there: what a process did not get to the end of is taken out again */
  whole: boolean().notNull().default(false),
  created: moment('created').notNull().defaultNow(),
})

/** What is counted by day besides downloads, by `core/tally/occasions`; days are those of the site's time zone as it was then. */
export const dailyCounts = pgTable(
  'daily_counts',
  {
    day: date({ mode: 'string' }).notNull(),
    what: text().$type<Occasion>().notNull(),
    /** identity, address or words */
    of: text('of_what').notNull(),
    detail: text().notNull().default(''),
    count: integer().notNull(),
  },
  table => [primaryKey({ columns: [table.what, table.day, table.of, table.detail] })],
)

/** Downloads under way: what of a file one visitor has, for a day at most; the key is a hash that says nothing of who it is. */
export const transfers = pgTable(
  'transfers',
  {
    key: text().primaryKey(),
    state: jsonb().$type<Transfer>().notNull(),
    at: moment('at').notNull(),
  },
  table => [index('transfers_at').on(table.at)],
)
