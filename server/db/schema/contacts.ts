import { sql } from 'drizzle-orm'
import { bigserial, index, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { Admitted, Asked } from '../../../core/gate/admission'
import { gates } from './gates'
import { moment, wordSet } from './columns'

/** Everyone who left an e-mail address at a gate. */
export const contacts = pgTable(
  'contacts',
  {
    id: text().primaryKey(),
    /** in small letters */
    email: text().notNull().unique(),
    created: moment('created').notNull().defaultNow(),
    /** when they showed that the address is theirs */
    confirmed: moment('confirmed'),
    /** when they wanted no more messages; stays whatever else comes */
    unsubscribed: moment('unsubscribed'),
    /** the pieces of the address, for finding */
    words: wordSet('words').generatedAlwaysAs(sql`words_of(email)`),
  },
  table => [
    index('contacts_newest').on(table.created.desc().nullsFirst(), table.id),
    index('contacts_words').using('gin', table.words).with({ fastupdate: false }),
  ],
)

/** Each time somebody left an address or agreed to something at a gate, and got through. */
export const admissions = pgTable(
  'admissions',
  {
    id: bigserial({ mode: 'number' }).primaryKey(),
    at: moment('at').notNull().defaultNow(),
    /** the gate, and what it was called then: what was agreed to outlasts it */
    gateId: text('gate_id').references(() => gates.id, { onDelete: 'set null' }),
    gateName: text('gate_name').notNull(),
    /** identity of the pass that was given */
    pass: text().notNull(),
    contactId: text('contact_id').references(() => contacts.id, { onDelete: 'cascade' }),
    /** what they wrote and agreed to, word for word */
    given: jsonb().$type<Admitted>().notNull(),
    /** its words, for finding */
    words: wordSet('words').generatedAlwaysAs(sql`words_of(given::text)`),
  },
  table => [
    index('admissions_words').using('gin', table.words).with({ fastupdate: false }),
    index('admissions_contact').on(table.contactId),
    index('admissions_gate').on(table.gateId, table.at),
    index('admissions_pass').on(table.pass),
  ],
)

/** Who has left an address and not confirmed it yet; a row goes when that is done, or its time is over. */
export const unconfirmed = pgTable(
  'unconfirmed',
  {
    /** SHA-256 of what the link in the message holds */
    token: text().primaryKey(),
    gateId: text('gate_id')
      .notNull()
      .references(() => gates.id, { onDelete: 'cascade' }),
    asked: jsonb().$type<Asked>().notNull(),
    until: moment('until').notNull(),
  },
  table => [index('unconfirmed_until').on(table.until)],
)
