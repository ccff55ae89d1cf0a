import { bigserial, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { Cost } from '../../../core/walk/finding'
import { moment } from './columns'

/** Walks over the whole site, and what they found. */
export const walks = pgTable('walks', {
  id: bigserial({ mode: 'number' }).primaryKey(),
  at: moment('at').notNull(),
  pages: integer().notNull(),
  placements: integer().notNull(),
  counts: jsonb().$type<Record<Cost, number>>().notNull(),
})

/** Findings that the owner leaves as they are, and why. */
export const leftFindings = pgTable('left_findings', {
  key: text().primaryKey(),
  because: text().notNull(),
  created: moment('created').notNull().defaultNow(),
})
