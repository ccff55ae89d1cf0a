import { z } from 'zod'
import { familySchema } from '../files/mediaType'

const idSchema = z.string().max(40)

/** Files a shelf shows one by one: more are led to, and had as one zip all the same. */
export const MOST_ON_SHELF = 300
/** Files that stand on the page of a shelf that has more than that. */
export const FIRST_OF_MANY = 50

/** Folders below the one that a shelf lists: left out, folded together until they are pressed, or open from the start. */
export const SHELF_BELOW = ['no', 'folded', 'open'] as const
export const SHELF_ORDERS = ['title', 'newest', 'own'] as const
/** What was found lies in many folders, and has no order of its own. */
export const FOUND_ORDERS = ['title', 'newest'] as const
/** When something happened to a file that a shelf may ask for. */
export const SHELF_TIMES = ['added', 'changed'] as const

const MOST_FOLDERS = 50
const MOST_PINNED = 50

/** What is said of a shelf whose files the library gives. */
const choosing = {
  /** identities of files that stand first, whether the rest has them or not */
  pinned: z.array(idSchema).max(MOST_PINNED, `Keep ${MOST_PINNED} files first at the most.`).optional(),
  /** only so many, the first ones by its order */
  most: z.number().int().min(1).max(MOST_ON_SHELF).nullish(),
  /** only what was added or changed within so many days */
  within: z.object({ time: z.enum(SHELF_TIMES), days: z.number().int().min(1).max(3660) }).nullish(),
}

/**
 * What a shelf lists: all that lies right in a folder, or also in those below it; files chosen one by one, in that order; or all that a
 * saved question to the library gives.
 */
export const shelfSourceSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('folder'), id: idSchema, order: z.enum(SHELF_ORDERS), below: z.enum(SHELF_BELOW).default('no'), ...choosing }),
  z.object({ kind: z.literal('files'), ids: z.array(idSchema).max(MOST_ON_SHELF, `Keep a shelf to ${MOST_ON_SHELF} files.`) }),
  z.object({
    kind: z.literal('found'),
    /** identities of folders, each with those below it; none for the whole library */
    folders: z.array(idSchema).max(MOST_FOLDERS, `Keep it to ${MOST_FOLDERS} folders.`),
    /** words in names, descriptions, tags or inside */
    q: z.string().max(200),
    types: z.array(familySchema),
    /** each of them has all of these */
    tags: z.array(z.string().max(100)).max(20),
    order: z.enum(FOUND_ORDERS),
    /** by the folders they lie in: not at all, folded, or open */
    below: z.enum(SHELF_BELOW),
    ...choosing,
  }),
])
export type ShelfSource = z.infer<typeof shelfSourceSchema>
export type FolderSource = Extract<ShelfSource, { kind: 'folder' }>
export type FoundSource = Extract<ShelfSource, { kind: 'found' }>
export type AskedSource = FolderSource | FoundSource

/** Whether a question asks for anything: all of the library is nobody's shelf. */
export const asksForAnything = ({ folders, q, types, tags, within }: FoundSource): boolean =>
  folders.length > 0 || q.trim() !== '' || types.length > 0 || tags.length > 0 || !!within

/** Whether a shelf lists all that lies in its folder, whatever comes there. */
export const isWholeFolder = (source: ShelfSource): source is FolderSource => source.kind === 'folder' && !source.most && !source.within

/** Identities of the folders a source names. */
export const foldersOf = (source: ShelfSource | null | undefined): string[] =>
  source?.kind === 'folder' ? [source.id] : source?.kind === 'found' ? source.folders : []

const SORTS = { title: 'title', newest: '-changed', own: 'own' } as const
const DAY = 86_400_000

/**
 * The question to the library that gives the files of a shelf.
 *
 * @param now milliseconds since 1970, for what was added or changed of late
 */
export function shelfQuery(source: AskedSource, now: number) {
  const { order, below, within, most } = source
  const since = within && new Date(now - within.days * DAY).toISOString()
  return {
    sort: SORTS[order],
    limit: most ?? MOST_ON_SHELF,
    ...(since && { [`${within.time}From`]: since }),
    ...(source.kind === 'folder'
      ? { folder: source.id, ...(below !== 'no' && { below: 'true' }) }
      : { among: source.folders, type: source.types, tag: source.tags, ...(source.q.trim() && { q: source.q.trim() }) }),
  }
}
