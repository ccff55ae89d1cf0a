import { index, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { GateRule } from '../../../core/gate/gate'
import { moment } from './columns'

/** Named rules for who may have what stands behind them; one that everybody passes is always there (migrations/0024_gates.sql). */
export const gates = pgTable('gates', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  rule: jsonb().$type<GateRule>().notNull(),
  /** counts how often all its passes were ended */
  epoch: integer().notNull().default(1),
  /** wrong passwords since a moment: somebody guesses */
  wrong: integer().notNull().default(0),
  wrongSince: moment('wrong_since'),
  created: moment('created').notNull().defaultNow(),
})

/** Passwords that open a gate; a row that goes ends the passes that were given by it. */
export const gatePasswords = pgTable(
  'gate_passwords',
  {
    id: text().primaryKey(),
    gateId: text('gate_id')
      .notNull()
      .references(() => gates.id, { onDelete: 'cascade' }),
    /** whom it was given to, or what for */
    label: text().notNull(),
    hash: text().notNull(),
    created: moment('created').notNull().defaultNow(),
  },
  table => [index('gate_passwords_gate').on(table.gateId)],
)

/** Downloads that were let through a gate: what one pass has of one file within a day is one. */
export const gateTakes = pgTable(
  'gate_takes',
  {
    /** a gate, or a personal link */
    gateId: text('gate_id').notNull(),
    /** identity of the pass */
    pass: text().notNull(),
    fileId: text('file_id').notNull(),
    at: moment('at').notNull().defaultNow(),
  },
  table => [index('gate_takes_gate').on(table.gateId, table.at), index('gate_takes_pass').on(table.pass)],
)
