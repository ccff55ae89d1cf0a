import { jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { Appearance } from '../../../core/look/appearance'
import { moment } from './columns'

/** Appearances of buttons that the owner has saved. */
export const looks = pgTable('looks', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  appearance: jsonb().$type<Appearance>().notNull(),
  created: moment('created').notNull().defaultNow(),
})
