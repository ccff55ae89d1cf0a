import { sql } from 'drizzle-orm'
import { index, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import type { AskedByName } from '../../../core/gate/admission'
import { gates } from './gates'
import { moment, wordSet } from './columns'

/** Who gets through gates by name. */
export const guests = pgTable(
  'guests',
  {
    id: text().primaryKey(),
    /** in small letters */
    email: text().notNull().unique(),
    name: text().notNull().default(''),
    /** of a password of their own; null where they come by a link */
    passwordHash: text('password_hash'),
    created: moment('created').notNull().defaultNow(),
    /** when they came in last */
    came: moment('came'),
    /** the pieces of address and name, for finding */
    words: wordSet('words').generatedAlwaysAs(sql`words_of(email || ' ' || name)`),
  },
  table => [
    index('guests_newest').on(table.created.desc().nullsFirst(), table.id),
    index('guests_words').using('gin', table.words).with({ fastupdate: false }),
  ],
)

/** Named sets of guests. */
export const groups = pgTable('groups', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  created: moment('created').notNull().defaultNow(),
})

export const groupMembers = pgTable(
  'group_members',
  {
    groupId: text('group_id')
      .notNull()
      .references(() => groups.id, { onDelete: 'cascade' }),
    guestId: text('guest_id')
      .notNull()
      .references(() => guests.id, { onDelete: 'cascade' }),
  },
  table => [primaryKey({ columns: [table.groupId, table.guestId] }), index('group_members_guest').on(table.guestId)],
)

/** Links that let a guest in, once; a row goes when that is done, or its time is over. */
export const guestLinks = pgTable(
  'guest_links',
  {
    /** SHA-256 of what the link in the message holds */
    token: text().primaryKey(),
    guestId: text('guest_id')
      .notNull()
      .references(() => guests.id, { onDelete: 'cascade' }),
    gateId: text('gate_id')
      .notNull()
      .references(() => gates.id, { onDelete: 'cascade' }),
    /** where they go on to, and what they agreed to */
    asked: jsonb().$type<AskedByName>().notNull(),
    until: moment('until').notNull(),
  },
  table => [index('guest_links_guest').on(table.guestId), index('guest_links_until').on(table.until)],
)
