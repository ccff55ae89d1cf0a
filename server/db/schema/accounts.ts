import { bigint, bigserial, index, jsonb, pgTable, text } from 'drizzle-orm/pg-core'
import type { Rights } from '../../../core/rights/rights'
import { moment } from './columns'

export const accounts = pgTable('accounts', {
  id: text().primaryKey(),
  email: text().notNull().unique(),
  /** what others at the desk call them; empty where nobody said */
  name: text().notNull().default(''),
  passwordHash: text('password_hash').notNull(),
  /** what they may do; null for an owner, who may do everything */
  rights: jsonb().$type<Rights>(),
  /** Base32; set while one-time codes are asked for (RFC 6238) */
  codeSecret: text('code_secret'),
  /** the step of time of the last code that was taken: none is taken twice (RFC 6238, section 5.2) */
  codeStep: bigint('code_step', { mode: 'number' }),
  /** SHA-256 of the recovery codes that are left */
  recoveryCodes: text('recovery_codes').array().notNull().default([]),
  created: moment('created').notNull().defaultNow(),
})

/** Who is signed in where; a row that goes ends it at once. */
export const sessions = pgTable(
  'sessions',
  {
    /** what it is called in its owner's list; says nothing of the cookie */
    id: text().primaryKey(),
    /** SHA-256 of the cookie's token: who reads the database cannot sign in with it */
    token: text().notNull().unique(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    /** browser and system in broad words */
    device: text().notNull(),
    /** address it was used from last */
    place: text().notNull(),
    created: moment('created').notNull().defaultNow(),
    used: moment('used').notNull().defaultNow(),
  },
  table => [index('sessions_account').on(table.accountId)],
)

/** Who was asked to help and has not come yet; a row goes when they come, or its time is over. */
export const invitations = pgTable('invitations', {
  id: text().primaryKey(),
  /** in small letters */
  email: text().notNull().unique(),
  name: text().notNull(),
  /** what they will be allowed; null for an owner */
  rights: jsonb().$type<Rights>(),
  /** SHA-256 of what the link in the message holds */
  token: text().notNull().unique(),
  /** e-mail of who asked them */
  by: text().notNull(),
  until: moment('until').notNull(),
  created: moment('created').notNull().defaultNow(),
})

/** Who may choose another password without the one that was lost. */
export const passwordLinks = pgTable(
  'password_links',
  {
    /** SHA-256 of what the link in the message holds */
    token: text().primaryKey(),
    accountId: text('account_id')
      .notNull()
      .references(() => accounts.id, { onDelete: 'cascade' }),
    until: moment('until').notNull(),
  },
  table => [index('password_links_account').on(table.accountId)],
)

/** Who signed in, and who changed what. */
export const journal = pgTable(
  'journal',
  {
    id: bigserial({ mode: 'number' }).primaryKey(),
    at: moment('at').notNull().defaultNow(),
    /** e-mail; empty where nobody was known */
    who: text().notNull(),
    /** a key of `core/journal` */
    act: text().notNull(),
    /** identity of what it was done to, or words */
    about: text().notNull().default(''),
    place: text().notNull().default(''),
  },
  table => [index('journal_at').on(table.at)],
)
