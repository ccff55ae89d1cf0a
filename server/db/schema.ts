import { sql } from 'drizzle-orm'
import {
  bigint,
  bigserial,
  date,
  boolean,
  customType,
  index,
  integer,
  jsonb,
  pgTable,
  primaryKey,
  text,
  timestamp,
  uniqueIndex,
  type AnyPgColumn,
} from 'drizzle-orm/pg-core'
import type { BundleEntry, BundleGated } from '../../core/bundle/bundleEntry'
import type { Appearance } from '../../core/look/appearance'
import type { Facts, PreviewState, ReadingState, UseKind } from '../../core/files/fileItem'
import type { Admitted, Asked, AskedByName } from '../../core/gate/admission'
import type { GateRule } from '../../core/gate/gate'
import type { HookEvent, HookState } from '../../core/hooks/hook'
import type { MessageState } from '../../core/outbox/message'
import type { Mark } from '../../core/folders/folderItem'
import type { ENTRY_TYPES } from '../../core/catalogue/catalogue'
import type { HeldValue, Values } from '../../core/catalogue/entry'
import type { Field } from '../../core/catalogue/field'
import type { ImportColumn, ImportCounts, ImportState, TableSource } from '../../core/catalogue/import'
import type { PagePart } from '../../core/page/edges'
import type { PageDocument, Target } from '../../core/page/schema'
import type { Rights } from '../../core/rights/rights'
import type { ImportFormat } from '../../core/tally/brought/brought'
import type { Occasion } from '../../core/tally/occasions'
import type { Transfer } from '../../core/tally/transfers'
import type { TimedAct } from '../../core/timetable/timedItem'
import type { Trouble } from '../../core/trust/trustReports'
import type { Cost } from '../../core/walk/finding'

const moment = (name: string) => timestamp(name, { withTimezone: true, mode: 'date' })

/** The different words of a text, in PostgreSQL's type for finding them. */
const wordSet = customType<{ data: string }>({ dataType: () => 'tsvector' })

const bytes = customType<{ data: Uint8Array; driverData: Uint8Array }>({ dataType: () => 'bytea' })

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

/** Bytes on disk, once per SHA-256. */
export const blobs = pgTable(
  'blobs',
  {
    sha256: text().primaryKey(),
    size: bigint({ mode: 'number' }).notNull(),
    crc32: bigint({ mode: 'number' }).notNull(),
    facts: jsonb().$type<Facts>().notNull().default({}),
    preview: text().$type<PreviewState>().notNull().default('waiting'),
    reading: text().$type<ReadingState>().notNull().default('waiting'),
    readingError: text('reading_error'),
    /** what is wrong with the bytes as they lie in the store, since that was seen; null where nothing is known to be */
    trouble: text().$type<Trouble>(),
    created: moment('created').notNull().defaultNow(),
  },
  table => [
    index('blobs_waiting')
      .on(table.created)
      .where(sql`${table.reading} <> 'done'`),
  ],
)

/** The words of each part (page, sheet, slide) of what is in a blob, for finding; can be read again. */
export const texts = pgTable(
  'texts',
  {
    sha256: text()
      .notNull()
      .references(() => blobs.sha256, { onDelete: 'cascade' }),
    number: integer().notNull(),
    /** what people call the part: "Page 3" */
    part: text().notNull(),
    body: text().notNull(),
    words: wordSet('words').notNull(),
  },
  table => [
    primaryKey({ columns: [table.sha256, table.number] }),
    // Without the pending list, whose emptying would hold up visitors now and then.
    index('texts_words').using('gin', table.words).with({ fastupdate: false }),
  ],
)

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

/** What visitors handed in by letterboxes, each time. */
export const arrivals = pgTable(
  'arrivals',
  {
    id: text().primaryKey(),
    /** what its receipt says */
    number: bigserial({ mode: 'number' }).notNull().unique(),
    at: moment('at').notNull().defaultNow(),
    /** the page it came by, and how page and letterbox were called then */
    pageId: text('page_id').references(() => pages.id, { onDelete: 'set null' }),
    pageTitle: text('page_title').notNull(),
    letterbox: text().notNull(),
    name: text().notNull(),
    /** in small letters */
    email: text().notNull(),
    words: text().notNull(),
    /** the file of the library it answers, and what that was called then */
    answersId: text('answers_id').references(() => files.id, { onDelete: 'set null' }),
    answersTitle: text('answers_title').notNull().default(''),
    /** when somebody at the desk had done with it; null while it waits */
    away: moment('away'),
    /** their e-mail */
    awayBy: text('away_by'),
  },
  table => [index('arrivals_newest').on(table.at.desc().nullsFirst(), table.id), index('arrivals_email').on(table.email)],
)

/** The files of an arrival, as they came; what the receipt says outlasts them. */
export const arrivalFiles = pgTable(
  'arrival_files',
  {
    arrivalId: text('arrival_id')
      .notNull()
      .references(() => arrivals.id, { onDelete: 'cascade' }),
    position: integer().notNull(),
    fileId: text('file_id').references(() => files.id, { onDelete: 'set null' }),
    fileName: text('file_name').notNull(),
    /** bytes */
    size: bigint({ mode: 'number' }).notNull(),
    sha256: text().notNull(),
  },
  table => [primaryKey({ columns: [table.arrivalId, table.position] }), index('arrival_files_file').on(table.fileId)],
)

/** Addresses of a file for one person or purpose. */
export const personalLinks = pgTable(
  'personal_links',
  {
    id: text().primaryKey(),
    /** the last part of its address */
    token: text().notNull().unique(),
    fileId: text('file_id')
      .notNull()
      .references(() => files.id, { onDelete: 'cascade' }),
    /** whom or what it is for */
    note: text().notNull(),
    /** whom it was sent to; empty where it was copied */
    email: text().notNull().default(''),
    until: moment('until'),
    /** downloads that are let through; null for any number */
    most: integer(),
    revoked: moment('revoked'),
    created: moment('created').notNull().defaultNow(),
  },
  table => [index('personal_links_file').on(table.fileId)],
)

/** Folders of the library, a tree. */
export const folders = pgTable(
  'folders',
  {
    id: text().primaryKey(),
    /** null at the top of the library */
    parent: text().references((): AnyPgColumn => folders.id),
    name: text().notNull(),
    mark: text().$type<Mark>(),
    description: text().notNull().default(''),
    ownOrder: boolean('own_order').notNull().default(false),
    /** visitors may look at what is in and below it before they take it; null where what is said further up holds */
    see: boolean(),
    /** visitors find what is in and below it although it stands on no page; null as above */
    found: boolean(),
    /** what is in and below it stands behind this gate; null as above */
    gate: text().references(() => gates.id),
    created: moment('created').notNull().defaultNow(),
    /** when it went to the bin with what was in it */
    deleted: moment('deleted'),
  },
  table => [index('folders_parent').on(table.parent)],
)

export const files = pgTable(
  'files',
  {
    id: text().primaryKey(),
    title: text().notNull(),
    handle: text().notNull().unique(),
    /** number of the edition visitors get */
    edition: integer().notNull(),
    created: moment('created').notNull().defaultNow(),
    changed: moment('changed').notNull().defaultNow(),
    /** null at the top of the library */
    folder: text().references(() => folders.id),
    /** place in the folder's own order */
    position: integer().notNull().default(0),
    description: text().notNull().default(''),
    tags: text().array().notNull().default([]),
    /** a picture of the library that stands for the file */
    picture: text().references((): AnyPgColumn => files.id, { onDelete: 'set null' }),
    /** visitors may look at it before they take it; null where what is said of its folder holds */
    see: boolean(),
    /** it stands behind this gate; null where what is said of its folder holds */
    gate: text().references(() => gates.id),
    /** when it went to the bin */
    deleted: moment('deleted'),
  },
  table => [index('files_created').on(table.created), index('files_folder').on(table.folder), index('files_gate').on(table.gate)],
)

/** Former handles: they redirect for ever, or say that the file is gone, and are never given out again. */
export const retiredHandles = pgTable('retired_handles', {
  handle: text().primaryKey(),
  /** null once the file has left the bin for good */
  fileId: text('file_id').references(() => files.id, { onDelete: 'set null' }),
})

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

export const editions = pgTable(
  'editions',
  {
    fileId: text('file_id')
      .notNull()
      .references(() => files.id, { onDelete: 'cascade' }),
    number: integer().notNull(),
    sha256: text()
      .notNull()
      .references(() => blobs.sha256),
    fileName: text('file_name').notNull(),
    /** by the bytes; the name decides where they allow several, so it is the edition's, not the blob's */
    mediaType: text('media_type').notNull(),
    note: text().notNull().default(''),
    /** reachable by its number although it is not the current one */
    pinned: boolean().notNull().default(false),
    /** visitors no longer get it, by whatever address */
    withdrawn: boolean().notNull().default(false),
    /** e-mail of who put it in; empty where nobody was asked */
    by: text().notNull().default(''),
    /** the upload it came by, so that one upload never makes two */
    uploadId: text('upload_id').unique(),
    created: moment('created').notNull().defaultNow(),
  },
  table => [primaryKey({ columns: [table.fileId, table.number] }), index('editions_sha256').on(table.sha256)],
)

/** Files that are zips composed of others; they have no editions, since they are put together as they are sent. */
export const bundles = pgTable('bundles', {
  fileId: text('file_id')
    .primaryKey()
    .references(() => files.id, { onDelete: 'cascade' }),
  /** the name the zip is saved under */
  fileName: text('file_name').notNull(),
  entries: jsonb().$type<BundleEntry[]>().notNull(),
  /** counts the changes, so that two tabs notice each other */
  revision: integer().notNull().default(1),
  /** when it was last composed anew: the date of the texts in it */
  composed: moment('composed').notNull().defaultNow(),
  /** what it comes to now, kept up to date with its members: bytes, files in it, and what tells one state from another */
  size: bigint({ mode: 'number' }).notNull(),
  count: integer().notNull(),
  fingerprint: text().notNull(),
  /** what becomes of files in it that stand behind gates */
  gated: text().$type<BundleGated>().notNull().default('behind'),
  /** the gates its contents stand behind, kept up to date with them */
  gates: text().array().notNull().default([]),
  /** when what is in it last changed */
  changed: moment('changed').notNull().defaultNow(),
})

export const pages = pgTable('pages', {
  id: text().primaryKey(),
  /** empty for the home page; that of an edge is none a visitor can ask for */
  slug: text().notNull().unique(),
  /** it is no page, but stands on each of them, or on those of a catalogue's entries */
  edge: text().$type<PagePart>(),
  /** the catalogue whose entries are laid out in it */
  catalogueId: text('catalogue_id')
    .unique()
    .references((): AnyPgColumn => catalogues.id, { onDelete: 'cascade' }),
  title: text().notNull(),
  /** for search engines and previews of links */
  description: text().notNull().default(''),
  /** left out of the site's menu where false */
  inMenu: boolean('in_menu').notNull().default(true),
  /** shown with links to the page elsewhere */
  picture: text().references(() => files.id, { onDelete: 'set null' }),
  /** it stands behind this gate */
  gate: text().references(() => gates.id),
  draft: jsonb().$type<PageDocument>().notNull(),
  /** counts the changes of the draft, so that two tabs notice each other */
  revision: integer().notNull().default(1),
  /** the revision that went live last */
  liveRevision: integer('live_revision'),
  /** number of the live version */
  live: integer(),
  created: moment('created').notNull().defaultNow(),
  changed: moment('changed').notNull().defaultNow(),
})

/** Pages in the bin: whatever else is known of them is in one place, from which they come back as they were. */
export const binnedPages = pgTable(
  'binned_pages',
  {
    id: text().primaryKey(),
    slug: text().notNull(),
    title: text().notNull(),
    live: boolean().notNull(),
    deleted: moment('deleted').notNull().defaultNow(),
    /** its rows in `pages`, `page_versions` and `retired_slugs` */
    kept: jsonb().notNull(),
  },
  table => [index('binned_pages_deleted').on(table.deleted)],
)

/** Appearances of buttons that the owner has saved. */
export const looks = pgTable('looks', {
  id: text().primaryKey(),
  name: text().notNull().unique(),
  appearance: jsonb().$type<Appearance>().notNull(),
  created: moment('created').notNull().defaultNow(),
})

/** Tables of like things; an entry is a row of one. */
export const catalogues = pgTable(
  'catalogues',
  {
    id: text().primaryKey(),
    /** of all: "Products" */
    name: text().notNull(),
    /** of one: "product" */
    one: text().notNull(),
    /** first part of the addresses of its entries */
    slug: text().notNull().unique(),
    fields: jsonb().$type<Field[]>().notNull(),
    /** identity of the field that tells entries apart where a table is brought in; null for their name */
    key: text(),
    /** of schema.org */
    type: text().$type<(typeof ENTRY_TYPES)[number]>(),
    /** fields that programs are told as properties of that type, by those */
    properties: jsonb().$type<Record<string, string>>().notNull().default({}),
    /** it is the one with the values of the whole site: it has one entry, and no pages */
    ofSite: boolean('of_site').notNull().default(false),
    /** the file of the library that its tables come from */
    source: jsonb().$type<TableSource>(),
    /** counts the changes of its fields */
    revision: integer().notNull().default(1),
    created: moment('created').notNull().defaultNow(),
  },
  table => [
    uniqueIndex('catalogues_of_site')
      .on(table.ofSite)
      .where(sql`${table.ofSite}`),
  ],
)

export const entries = pgTable(
  'entries',
  {
    id: text().primaryKey(),
    catalogueId: text('catalogue_id')
      .notNull()
      .references(() => catalogues.id, { onDelete: 'cascade' }),
    slug: text().notNull(),
    /** as it is written, by the identities of fields */
    values: jsonb().$type<Values>().notNull(),
    /** as visitors see it; null where they do not */
    live: jsonb().$type<Values>(),
    /** when it went live as it is */
    published: moment('published'),
    /** its place in the catalogue's own order */
    place: integer().notNull(),
    revision: integer().notNull().default(1),
    changed: moment('changed').notNull().defaultNow(),
    /** since when it is in the bin; null while it is not */
    deleted: moment('deleted'),
  },
  table => [
    index('entries_catalogue').on(table.catalogueId, table.place),
    uniqueIndex('entries_slug')
      .on(table.catalogueId, table.slug)
      .where(sql`${table.deleted} is null`),
    index('entries_deleted')
      .on(table.deleted)
      .where(sql`${table.deleted} is not null`),
  ],
)

/** Fields that were taken out of catalogues, with what entries had in them. */
export const binnedFields = pgTable('binned_fields', {
  id: text().primaryKey(),
  catalogueId: text('catalogue_id')
    .notNull()
    .references(() => catalogues.id, { onDelete: 'cascade' }),
  field: jsonb().$type<Field>().notNull(),
  /** where it stood among the others, counted from 0 */
  place: integer().notNull(),
  /** by the identities of entries: as it was written, and as visitors saw it */
  held: jsonb().$type<Record<string, HeldValue>>().notNull(),
  deleted: moment('deleted').notNull().defaultNow(),
})

/** Every state of an entry that was ever live. */
export const entryVersions = pgTable(
  'entry_versions',
  {
    entryId: text('entry_id')
      .notNull()
      .references(() => entries.id, { onDelete: 'cascade' }),
    number: integer().notNull(),
    values: jsonb().$type<Values>().notNull(),
    published: moment('published').notNull().defaultNow(),
    /** e-mail of who put it live; empty where it followed something else */
    by: text().notNull().default(''),
  },
  table => [primaryKey({ columns: [table.entryId, table.number] })],
)

/** Addresses that entries had before: they redirect. */
export const retiredEntrySlugs = pgTable(
  'retired_entry_slugs',
  {
    catalogueId: text('catalogue_id')
      .notNull()
      .references(() => catalogues.id, { onDelete: 'cascade' }),
    slug: text().notNull(),
    entryId: text('entry_id')
      .notNull()
      .references(() => entries.id, { onDelete: 'cascade' }),
  },
  table => [primaryKey({ columns: [table.catalogueId, table.slug] })],
)

/** First parts of addresses that catalogues had before. */
export const retiredCatalogueSlugs = pgTable('retired_catalogue_slugs', {
  slug: text().primaryKey(),
  catalogueId: text('catalogue_id')
    .notNull()
    .references(() => catalogues.id, { onDelete: 'cascade' }),
})

/** Which files entries hold, as they are written and live. */
export const entryFiles = pgTable(
  'entry_files',
  {
    entryId: text('entry_id')
      .notNull()
      .references(() => entries.id, { onDelete: 'cascade' }),
    side: text().$type<Side>().notNull(),
    field: text().notNull(),
    fileId: text('file_id').notNull(),
  },
  table => [primaryKey({ columns: [table.entryId, table.side, table.field, table.fileId] }), index('entry_files_file').on(table.fileId)],
)

/** Tables that were brought in, or are looked at before they are. */
export const entryImports = pgTable('entry_imports', {
  id: text().primaryKey(),
  /** null until it is known where it goes */
  catalogueId: text('catalogue_id').references(() => catalogues.id, { onDelete: 'cascade' }),
  name: text().notNull(),
  state: text().$type<ImportState>().notNull(),
  /** the cells of the table, row by row; emptied when it has come in */
  rows: jsonb().$type<string[][]>().notNull(),
  columns: jsonb().$type<ImportColumn[]>().notNull(),
  counts: jsonb().$type<ImportCounts>(),
  /** the file of the library it is, and the number of the edition; null where it came from elsewhere */
  fileId: text('file_id'),
  edition: integer(),
  created: moment('created').notNull().defaultNow(),
})

/** What an import changed, so that all of it can be taken back. */
export const entryImportRows = pgTable(
  'entry_import_rows',
  {
    importId: text('import_id')
      .notNull()
      .references(() => entryImports.id, { onDelete: 'cascade' }),
    entryId: text('entry_id').notNull(),
    /** null where the entry is new */
    before: jsonb().$type<Values>(),
    /** as it was left */
    revision: integer().notNull(),
    /** it was put in the bin, since the table does not have it */
    binned: boolean().notNull().default(false),
  },
  table => [primaryKey({ columns: [table.importId, table.entryId] })],
)

/** Former addresses of pages: they redirect as long as the page is there and no other has taken the address. */
export const retiredSlugs = pgTable('retired_slugs', {
  slug: text().primaryKey(),
  pageId: text('page_id')
    .notNull()
    .references(() => pages.id, { onDelete: 'cascade' }),
})

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

/** Addresses that a site had before: they redirect for ever to what took their place. */
export const oldAddresses = pgTable('old_addresses', {
  /** path, with the query where it had one, starting with a slash */
  path: text().primaryKey(),
  /** null as long as nothing took its place */
  target: jsonb().$type<Target>(),
  /** how often it was asked for while nothing had */
  missed: integer().notNull().default(0),
  lastMissed: moment('last_missed'),
  created: moment('created').notNull().defaultNow(),
})

/** Every version of a page that was ever live. */
export const pageVersions = pgTable(
  'page_versions',
  {
    pageId: text('page_id')
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    number: integer().notNull(),
    title: text().notNull(),
    document: jsonb().$type<PageDocument>().notNull(),
    published: moment('published').notNull().defaultNow(),
    /** e-mail of who put it live; empty where nobody was asked */
    by: text().notNull().default(''),
  },
  table => [primaryKey({ columns: [table.pageId, table.number] })],
)

export type Side = 'draft' | 'live'

/** Where files and folders are used: written with the draft or the live version it was read from. */
export const uses = pgTable(
  'uses',
  {
    pageId: text('page_id')
      .notNull()
      .references(() => pages.id, { onDelete: 'cascade' }),
    side: text().$type<Side>().notNull(),
    placement: text().notNull(),
    /** counts what a shelf lists; 0 for a button or link */
    part: integer().notNull().default(0),
    kind: text().$type<UseKind>().notNull(),
    label: text().notNull(),
    fileId: text('file_id'),
    /** the folder a shelf lists */
    folderId: text('folder_id'),
    /** the page it leads to */
    toPage: text('to_page'),
    /** the signpost it leads to; where that points is known of the signpost */
    signpostId: text('signpost_id'),
    /** the address outside this site it leads to, where nothing of ours can be missing */
    address: text(),
    /** the heading it stands under; null where that was written down by an earlier version of Trough */
    section: text(),
    saveAs: text('save_as').notNull().default(''),
  },
  table => [
    primaryKey({ columns: [table.pageId, table.side, table.placement, table.part] }),
    index('uses_file').on(table.fileId),
    index('uses_to_page').on(table.toPage),
    index('uses_signpost').on(table.signpostId),
    index('uses_address').on(table.address),
    index('uses_placement').on(table.placement),
  ],
)

/** Completed downloads, those of the same second in one row; nothing in a row says who it was. */
export const downloads = pgTable(
  'downloads',
  {
    id: bigserial({ mode: 'number' }).primaryKey(),
    fileId: text('file_id').notNull(),
    edition: integer().notNull(),
    placement: text(),
    at: moment('at').notNull(),
    count: integer().notNull().default(1),
    /** that left this machine for them, repeats included */
    bytes: bigint({ mode: 'number' }).notNull(),
    // Where they came from and what with, by `core/tally/particulars`; empty where that is not known.
    page: text().notNull().default(''),
    signpost: text().notNull().default(''),
    campaign: text().notNull().default(''),
    referrer: text().notNull().default(''),
    referrerPath: text('referrer_path').notNull().default(''),
    country: text().notNull().default(''),
    device: text().notNull().default(''),
    browser: text().notNull().default(''),
    system: text().notNull().default(''),
    language: text().notNull().default(''),
    /** whole at once, or put together from pieces; empty where that is not known */
    course: text().notNull().default(''),
    /** milliseconds that they took, all together */
    took: bigint({ mode: 'number' }).notNull().default(0),
    person: text().notNull().default(''),
    link: text().notNull().default(''),
    address: text().notNull().default(''),
    /** identity of what they were brought in with; empty for what was counted here */
    source: text().notNull().default(''),
  },
  table => [
    index('downloads_file').on(table.fileId, table.at),
    index('downloads_placement').on(table.placement),
    index('downloads_person')
      .on(table.person)
      .where(sql`person <> ''`),
    index('downloads_address')
      .on(table.at)
      .where(sql`address <> ''`),
    index('downloads_source')
      .on(table.source)
      .where(sql`source <> ''`),
  ],
)

/** Each time downloads were changed or taken out after they had been written: who holds sums of them makes these anew. */
export const downloadChanges = pgTable('download_changes', {
  id: bigserial({ mode: 'number' }).primaryKey(),
  at: moment('at').notNull().defaultNow(),
})

/** Numbers of before that were brought in, each as one. */
export const imports = pgTable('imports', {
  id: text().primaryKey(),
  /** of the file they came in */
  name: text().notNull(),
  format: text().$type<ImportFormat>().notNull(),
  /** of its contents: nothing comes in twice */
  sha256: text().notNull().unique(),
  downloads: integer().notNull(),
  firstDay: date('first_day', { mode: 'string' }).notNull(),
  lastDay: date('last_day', { mode: 'string' }).notNull(),
  /** all of it is there: what a process did not get to the end of is taken out again */
  whole: boolean().notNull().default(false),
  created: moment('created').notNull().defaultNow(),
})

/** What is counted by day besides downloads, by `core/tally/occasions`; days are those of the site's time zone as it was then. */
export const dailyCounts = pgTable(
  'daily_counts',
  {
    day: date({ mode: 'string' }).notNull(),
    what: text().$type<Occasion>().notNull(),
    /** identity, address or words */
    of: text('of_what').notNull(),
    detail: text().notNull().default(''),
    count: integer().notNull(),
  },
  table => [primaryKey({ columns: [table.what, table.day, table.of, table.detail] })],
)

/** Downloads under way: what of a file one visitor has, for a day at most; the key is a hash that says nothing of who it is. */
export const transfers = pgTable(
  'transfers',
  {
    key: text().primaryKey(),
    state: jsonb().$type<Transfer>().notNull(),
    at: moment('at').notNull(),
  },
  table => [index('transfers_at').on(table.at)],
)

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
