import { bigint, bigserial, index, integer, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import { files } from './library'
import { pages } from './pages'
import { moment } from './columns'

/** What visitors handed in by letterboxes, each time. */
export const arrivals = pgTable(
  'arrivals',
  {
    id: text().primaryKey(),
    /** what its receipt says */
    number: bigserial({ mode: 'number' }).notNull().unique(),
    at: moment('at').notNull().defaultNow(),
    /** the page it came by, and how page and letterbox were called then */
    pageId: text('page_id').references(() => pages.id, { onDelete: 'set null' }),
    pageTitle: text('page_title').notNull(),
    letterbox: text().notNull(),
    name: text().notNull(),
    /** in small letters */
    email: text().notNull(),
    words: text().notNull(),
    /** the file of the library it answers, and what that was called then */
    answersId: text('answers_id').references(() => files.id, { onDelete: 'set null' }),
    answersTitle: text('answers_title').notNull().default(''),
    /** when somebody at the desk had done with it; null while it waits */
    away: moment('away'),
    /** their e-mail */
    awayBy: text('away_by'),
  },
  table => [
    index('arrivals_newest').on(table.at.desc().nullsFirst(), table.id),
    index('arrivals_email').on(table.email),
    index('arrivals_answers').on(table.answersId),
  ],
)

/** The files of an arrival, as they came; what the receipt says outlasts them. */
export const arrivalFiles = pgTable(
  'arrival_files',
  {
    arrivalId: text('arrival_id')
      .notNull()
      .references(() => arrivals.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    fileId: text('file_id').references(() => files.id, { onDelete: 'set null' }),
    fileName: text('file_name').notNull(),
    /** bytes */
    size: bigint({ mode: 'number' }).notNull(),
    sha256: text().notNull(),
  },
  table => [primaryKey({ columns: [table.arrivalId, table.position] }), index('arrival_files_file').on(table.fileId)],
)
