import { sql } from 'drizzle-orm'
import { bigint, boolean, index, integer, jsonb, pgTable, primaryKey, text, type AnyPgColumn } from 'drizzle-orm/pg-core'
import type { BundleEntry, BundleGated } from '../../../core/bundle/bundleEntry'
import type { Mark } from '../../../core/folders/folderItem'
import { blobs } from './blobs'
import { gates } from './gates'
import { moment } from './columns'

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
  table => [
    index('files_created').on(table.created),
    index('files_folder').on(table.folder),
    index('files_gate').on(table.gate),
    index('files_picture')
      .on(table.picture)
      .where(sql`${table.picture} is not null`),
  ],
)

/** Former handles: they redirect for ever, or say that the file is gone, and are never given out again. */
export const retiredHandles = pgTable(
  'retired_handles',
  {
    handle: text().primaryKey(),
    /** null once the file has left the bin for good */
    fileId: text('file_id').references(() => files.id, { onDelete: 'set null' }),
  },
  table => [
    index('retired_handles_file')
      .on(table.fileId)
      .where(sql`${table.fileId} is not null`),
  ],
)

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
