import { jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { TimedAct } from '../../../core/timetable/timedItem'
import { moment } from './columns'

/** What happens by itself at a set time; a row goes in the step in which it happens. */
export const timetable = pgTable('timetable', {
  id: text().primaryKey(),
  at: moment('at').notNull(),
  act: jsonb().$type<TimedAct>().notNull(),
  /** why it did not happen when its time had come */
  failed: text(),
  /** when it happened: kept, so that the board of downloads can say what came before a change */
  done: moment('done'),
})
