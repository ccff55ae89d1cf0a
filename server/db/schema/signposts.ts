import { index, pgTable, text } from 'drizzle-orm/pg-core'
import { files } from './library'
import { moment } from './columns'

/** Names for what changes: all that leads to one follows where it is turned to. */
export const signposts = pgTable(
  'signposts',
  {
    id: text().primaryKey(),
    title: text().notNull(),
    /** the last part of its address */
    name: text().notNull().unique(),
    /** the file or bundle it points at */
    fileId: text('file_id').references(() => files.id, { onDelete: 'set null' }),
    created: moment('created').notNull().defaultNow(),
    /** when it was turned last */
    changed: moment('changed').notNull().defaultNow(),
  },
  table => [index('signposts_file').on(table.fileId)],
)

/** Former names of signposts: they redirect, or say that it is gone. */
export const retiredSignposts = pgTable('retired_signposts', {
  name: text().primaryKey(),
  signpostId: text('signpost_id').references(() => signposts.id, { onDelete: 'set null' }),
})
