import { jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import { bytes, moment } from './columns'

/** Fonts of the site's own, in the parts that are served; a style says which of them are one typeface. */
export const fontFiles = pgTable('font_files', {
  /** the beginning of the SHA-256 of its bytes */
  name: text().primaryKey(),
  /** WOFF2 */
  bytes: bytes().notNull(),
  made: moment('made').notNull().defaultNow(),
})

/** Settings of the site, one row each. */
export const settings = pgTable('settings', {
  key: text().primaryKey(),
  value: jsonb().notNull(),
})
