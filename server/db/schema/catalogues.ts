import { sql } from 'drizzle-orm'
import { boolean, index, integer, jsonb, pgTable, primaryKey, text, uniqueIndex } from 'drizzle-orm/pg-core'
import type { ENTRY_TYPES } from '../../../core/catalogue/catalogue'
import type { HeldValue, Values } from '../../../core/catalogue/entry'
import type { Field } from '../../../core/catalogue/field'
import type { ImportColumn, ImportCounts, ImportState, TableSource } from '../../../core/catalogue/import'
import { moment, type Side } from './columns'

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
  table => [primaryKey({ columns: [table.catalogueId, table.slug] }), index('retired_entry_slugs_entry').on(table.entryId)],
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
