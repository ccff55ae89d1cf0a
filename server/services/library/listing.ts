import type { FileItem, FoundFile } from '../../../core/files/fileItem'
import { fileFilterSchema, type FileFilter, type FileQuery } from '../../../core/files/query'
import type { Cards, Hits } from '../../../core/find/cards'
import { questionFor, withoutEndings, type Question, type Stem } from '../../../core/find/question'
import { notFound } from '../../../core/problem'
import type { KeptTree } from '../files/keptTree'
import { MOST_FOUND, type SearchIndex } from '../reading/searchIndex'
import type { Sight } from '../rights/access'
import type { Register } from './register'

export interface Found {
  items: FoundFile[]
  total: number
  /** how many of them, the first ones, were found by their name, description or tags */
  named: number
}

/** Finds files by where they lie, what they are, and words in their names and inside them. */
export function createListing(tree: KeptTree, register: Register, texts: SearchIndex) {
  /** Folders that are looked into, of those that are seen; undefined for all. */
  async function foldersIn(filter: FileFilter, sight: Sight): Promise<Sight> {
    const folders = await foldersOf(filter)
    return sight && folders ? new Set([...folders].filter(id => sight.has(id))) : (sight ?? folders)
  }

  async function foldersOf({ folder, below, among }: FileFilter): Promise<Sight> {
    if (among.length) {
      const folders = await tree.get()
      return new Set(among.flatMap(id => folders.below(id).map(each => each.id)))
    }
    if (folder === undefined || (folder === null && below)) return undefined
    if (folder === null) return new Set([null])
    const folders = await tree.get()
    if (!folders.get(folder)) throw notFound('folder')
    return new Set(below ? folders.below(folder).map(({ id }) => id) : [folder])
  }

  async function hits(
    filter: FileFilter,
    sight: Sight,
    passes?: (file: FileItem) => boolean,
    taken?: ReadonlyMap<string, number>,
  ): Promise<Hits> {
    const [folders, cards] = [await foldersIn(filter, sight), await register.cards()]
    // Among few files every one that has the words is found, however many have them elsewhere.
    const narrowed = cards.narrow(filter, folders, passes, taken)
    const inside = filter.q ? await texts.containing(questionFor(filter.q), narrowed.contents(MOST_FOUND)) : undefined
    return narrowed.find(filter.q, inside)
  }

  async function withMatches(found: ReturnType<Hits['slice']>, question: Question): Promise<FoundFile[]> {
    const inside = found.filter(hit => hit.by === 'inside')
    const passages = inside.length
      ? await texts.passages(
          question,
          inside.map(({ item }) => item.sha256),
        )
      : new Map()
    return found.map(({ item, by }): FoundFile => {
      if (by === 'slip') return { ...item, match: { by } }
      const passage = by === 'inside' && passages.get(item.sha256)
      return passage ? { ...item, match: { by: 'inside', ...passage } } : item
    })
  }

  return {
    /**
     * A stretch of the files a filter lets through, in its order; by words: names first, then words inside.
     *
     * @param passes asked of each of them besides
     * @param taken downloads by identity, for an order by those of some days
     */
    async list(
      { from, limit, ...filter }: FileQuery,
      sight?: Sight,
      passes?: (file: FileItem) => boolean,
      taken?: ReadonlyMap<string, number>,
    ): Promise<Found> {
      const { total, named, slice } = await hits(filter, sight, passes, taken)
      const items = await withMatches(slice(from, from + limit), questionFor(filter.q ?? ''))
      return { items: taken ? items.map(item => ({ ...item, taken: taken.get(item.id) ?? 0 })) : items, total, named }
    },

    /**
     * Every file outside the bin that a test lets through and that has the words, by how well it fits or in another order; how each was
     * found, and what tells the passages of some of them.
     *
     * @param stem of the language it is asked in
     */
    async search(q: string, sort: string, passes: (file: FileItem) => boolean, stem?: Stem) {
      const question = questionFor(q, stem)
      const cards = await register.cards()
      const filter = fileFilterSchema.parse({ sort: sort === 'fit' ? 'title' : sort })
      const narrowed = cards.narrow(filter, undefined, passes)
      const hits = narrowed
        .find(stem ? withoutEndings(q, stem) : q, q ? await texts.containing(question, narrowed.contents(MOST_FOUND)) : undefined)
        .slice(0, Infinity)
      const byId = new Map(hits.map(hit => [hit.item.id, hit]))
      // By how well they fit, those that are called so come first; in another order they are mixed.
      const inOrder =
        q && sort !== 'fit'
          ? narrowed
              .find(undefined)
              .slice(0, Infinity)
              .flatMap(({ item }) => byId.get(item.id) ?? [])
          : hits
      return { hits: inOrder, matched: (some: typeof hits) => withMatches(some, question) }
    },

    /** Identities of all files a filter lets through. */
    ids: async (filter: FileFilter, sight?: Sight): Promise<string[]> =>
      (await hits(filter, sight)).slice(0, Infinity).map(({ item }) => item.id),

    /** Every tag in use, the most used first. */
    async tags(sight?: Sight): Promise<{ tag: string; files: number }[]> {
      const counts = new Map<string, number>()
      for (const { tags, deleted, folder } of (await register.cards()).items())
        if (!deleted && (!sight || sight.has(folder))) for (const tag of tags) counts.set(tag, (counts.get(tag) ?? 0) + 1)
      return [...counts].map(([tag, files]) => ({ tag, files })).sort((a, b) => b.files - a.files || a.tag.localeCompare(b.tag))
    },

    /** Files outside the bin, as they are known now. */
    async all(): Promise<FileItem[]> {
      const cards: Cards = await register.cards()
      return [...cards.items()].filter(file => !file.deleted)
    },
  }
}
