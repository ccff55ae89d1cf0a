import { boolean, index, integer, jsonb, pgTable, primaryKey, text } from 'drizzle-orm/pg-core'
import type { UseKind } from '../../../core/files/fileItem'
import type { PagePart } from '../../../core/page/edges'
import type { PageDocument, Target } from '../../../core/page/schema'
import { catalogues } from './catalogues'
import { gates } from './gates'
import { files } from './library'
import { moment, type Side } from './columns'

export const pages = pgTable(
  'pages',
  {
    id: text().primaryKey(),
    /** empty for the home page; that of an edge is none a visitor can ask for */
    slug: text().notNull().unique(),
    /** it is no page, but stands on each of them, or on those of a catalogue's entries */
    edge: text().$type<PagePart>(),
    /** the catalogue whose entries are laid out in it */
    catalogueId: text('catalogue_id')
      .unique()
      .references(() => catalogues.id, { onDelete: 'cascade' }),
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
  },
  table => [index('pages_picture').on(table.picture)],
)

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

/** Former addresses of pages: they redirect as long as the page is there and no other has taken the address. */
export const retiredSlugs = pgTable('retired_slugs', {
  slug: text().primaryKey(),
  pageId: text('page_id')
    .notNull()
    .references(() => pages.id, { onDelete: 'cascade' }),
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
