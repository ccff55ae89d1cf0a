import { sql } from 'drizzle-orm'
import { boolean, index, integer, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { HookEvent, HookState } from '../../../core/hooks/hook'
import type { MessageState } from '../../../core/outbox/message'
import { moment } from './columns'

/** Every message that is sent, or waits for being sent. */
export const outbox = pgTable(
  'outbox',
  {
    id: text().primaryKey(),
    to: text().notNull(),
    subject: text().notNull(),
    /** what mail programs without HTML show */
    text: text().notNull(),
    html: text().notNull(),
    /** fields beside those that every message has */
    headers: jsonb().$type<Record<string, string>>().notNull().default({}),
    state: text().$type<MessageState>().notNull().default('waiting'),
    /** how often sending was tried */
    tries: integer().notNull().default(0),
    /** not to be tried before this */
    next: moment('next').notNull().defaultNow(),
    /** what the mail service said when it did not take it */
    error: text(),
    created: moment('created').notNull().defaultNow(),
    sent: moment('sent'),
  },
  table => [
    index('outbox_created').on(table.created),
    index('outbox_waiting')
      .on(table.next)
      .where(sql`${table.state} in ('waiting', 'sending')`),
  ],
)

/** Other services that are told what happens. */
export const hooks = pgTable('hooks', {
  id: text().primaryKey(),
  address: text().notNull(),
  events: text().array().$type<HookEvent[]>().notNull(),
  /** what its messages are signed with, as the Standard Webhooks specification writes it */
  secret: text().notNull(),
  on: boolean().notNull().default(true),
  created: moment('created').notNull().defaultNow(),
})

/** What they are told: written with what happened, and sent afterwards. */
export const hookMessages = pgTable(
  'hook_messages',
  {
    /** the same however often it is sent, so that the other side knows what it has had */
    id: text().primaryKey(),
    hookId: text('hook_id')
      .notNull()
      .references(() => hooks.id, { onDelete: 'cascade' }),
    event: text().notNull(),
    /** JSON, as it is signed */
    body: text().notNull(),
    state: text().$type<HookState>().notNull().default('waiting'),
    tries: integer().notNull().default(0),
    /** not to be tried before this */
    next: moment('next').notNull().defaultNow(),
    error: text(),
    created: moment('created').notNull().defaultNow(),
  },
  table => [
    index('hook_messages_hook').on(table.hookId, table.created),
    index('hook_messages_waiting')
      .on(table.next)
      .where(sql`${table.state} = 'waiting'`),
  ],
)
