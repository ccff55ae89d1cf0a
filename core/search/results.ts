import type { FileItem, FoundFile } from '../files/fileItem'
import type { Family } from '../files/mediaType'
import type { Node, Tree } from '../folders/folderTree'
import type { SearchQuery } from './searchQuery'

/** Files on one page of what was found. */
export const RESULTS_PER_PAGE = 25
/** Tags that are offered to narrow by: the most used ones. */
const MOST_TAGS = 20

export interface Choice<Value> {
  value: Value
  name: string
  /** files that are left when it is chosen */
  count: number
}

/** One page of what was found, and what it can be narrowed by, each with what would be left. */
export interface Results {
  found: { item: FileItem; by: 'filter' | 'name' | 'slip' | 'inside' }[]
  total: number
  /** counted from 1 */
  page: number
  pages: number
  /** nothing is called as it was written: these come near */
  nearly: boolean
  folders: Choice<string>[]
  /** the way to the chosen folder from the top */
  path: { id: string; name: string }[]
  kinds: Choice<Family>[]
  tags: Choice<string>[]
}

type Hit = Results['found'][number]

/**
 * Narrows what was found, and counts what each further choice would leave. Each choice is counted with all others that hold but its own
 * kind's, so that another can be taken instead.
 *
 * @param hits every file with the words, in its order
 */
export function resultsOf(hits: Hit[], query: SearchQuery, tree: Tree<Node & { name: string }>): Results {
  const { folder, kind, tag, from, to } = query
  const above = new Map<string | null, string[]>()
  const pathOf = (id: string | null): string[] => {
    const known = above.get(id) ?? tree.pathTo(id).map(each => each.id)
    above.set(id, known)
    return known
  }
  const inFolder = ({ item }: Hit) => !folder || pathOf(item.folder).includes(folder)
  const ofKind = ({ item }: Hit) => !kind || item.family === kind
  const tagged = ({ item }: Hit) => !tag || item.tags.includes(tag)
  const inTime = ({ item: { changed } }: Hit) => (!from || changed.slice(0, 10) >= from) && (!to || changed.slice(0, 10) <= to)
  const timely = from || to ? hits.filter(inTime) : hits

  const [folders, kinds, tags] = [new Map<string, number>(), new Map<Family, number>(), new Map<string, number>()]
  const count = <Key>(counts: Map<Key, number>, key: Key) => counts.set(key, (counts.get(key) ?? 0) + 1)
  const found: Hit[] = []
  for (const hit of timely) {
    const [here, kindly, marked] = [inFolder(hit), ofKind(hit), tagged(hit)]
    if (here && kindly && marked) found.push(hit)
    if (kindly && marked) for (const id of pathOf(hit.item.folder)) count(folders, id)
    if (here && marked) count(kinds, hit.item.family)
    if (here && kindly) for (const each of hit.item.tags) count(tags, each)
  }
  const pages = Math.max(1, Math.ceil(found.length / RESULTS_PER_PAGE))
  const page = Math.min(query.page, pages)
  const byCount = <Value>(a: Choice<Value>, b: Choice<Value>) => b.count - a.count
  return {
    found: found.slice((page - 1) * RESULTS_PER_PAGE, page * RESULTS_PER_PAGE),
    total: found.length,
    page,
    pages,
    nearly: found[0]?.by === 'slip',
    // One step down from where one is.
    folders: tree
      .childrenOf(folder && tree.get(folder) ? folder : null)
      .flatMap(({ id, name }) => (folders.has(id) ? [{ value: id, name, count: folders.get(id)! }] : [])),
    path: folder ? tree.pathTo(folder).map(({ id, name }) => ({ id, name })) : [],
    kinds: [...kinds].map(([value, left]) => ({ value, name: value, count: left })).sort(byCount),
    tags: [...tags]
      .map(([value, left]) => ({ value, name: value, count: left }))
      .sort((a, b) => byCount(a, b) || (a.name < b.name ? -1 : 1))
      .slice(0, MOST_TAGS),
  }
}

/** A result as it is shown: with the passage the words stand in. */
export type ShownResult = Pick<FoundFile, 'match'> & { item: FileItem }
