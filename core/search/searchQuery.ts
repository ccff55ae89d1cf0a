import { askedWords } from '../cut'
import { familySchema, type Family } from '../files/mediaType'
import { placementIdSchema } from '../page/schema'

/** The root-relative address of what visitors find; what they look for, its query says. */
export const SEARCH_PATH = '/shelves/find'

export const SEARCH_SORTS = ['fit', 'title', '-changed', '-size', '-downloads'] as const
export type SearchSort = (typeof SEARCH_SORTS)[number]

/** What visitors look for; all of it stands in the address, so that what was found can be sent to somebody. */
export interface SearchQuery {
  /** words in titles, names, tags, descriptions and inside; empty for all files */
  q: string
  /** folders that are looked through with those below them; all where none are named */
  within: string[]
  /** the shelf whose files are looked through */
  in?: string
  /** the placement it was come by */
  at?: string
  folder?: string
  kind?: Family
  tag?: string
  /** days, ISO 8601, both included */
  from?: string
  to?: string
  sort: SearchSort
  /** counted from 1 */
  page: number
}

/** Longer is no question, and takes time to look for. */
export const LONGEST_QUESTION = 200
const MOST_FOLDERS = 50
const LONGEST_NAME = 100

const day = (text: string | null): string | undefined =>
  text && /^\d{4}-\d\d-\d\d$/.test(text) && !Number.isNaN(Date.parse(text)) ? text : undefined

/** Reads what an address asks for; robust against anything typed there. */
export function readSearchQuery(query: URLSearchParams): SearchQuery {
  const placement = (name: string) => placementIdSchema.safeParse(query.get(name)).data
  const name = (of: string) => askedWords(query.get(of), LONGEST_NAME) || undefined
  const page = query.get('page') ?? ''
  return {
    q: askedWords(query.get('q'), LONGEST_QUESTION),
    within: query
      .getAll('within')
      .slice(0, MOST_FOLDERS)
      .map(id => askedWords(id, LONGEST_NAME))
      .filter(Boolean),
    in: placement('in'),
    at: placement('at'),
    folder: name('folder'),
    kind: familySchema.safeParse(query.get('kind')).data,
    tag: name('tag'),
    from: day(query.get('from')),
    to: day(query.get('to')),
    sort: SEARCH_SORTS.find(sort => sort === query.get('sort')) ?? 'fit',
    page: /^[1-9]\d{0,8}$/.test(page) ? Number(page) : 1,
  }
}

/** What an address says of it, in the order it is read; what is as usual is left out. */
export function searchFields({ within, page, sort, ...said }: Partial<SearchQuery>): [name: string, value: string][] {
  const fields = Object.entries(said).filter((field): field is [string, string] => !!field[1])
  return [
    ...fields,
    ...(within ?? []).map((id): [string, string] => ['within', id]),
    ...(sort && sort !== 'fit' ? ([['sort', sort]] as [string, string][]) : []),
    ...(page && page > 1 ? ([['page', String(page)]] as [string, string][]) : []),
  ]
}

/** The root-relative address of what is found. */
export function searchHref(query: Partial<SearchQuery>): string {
  const fields = searchFields(query)
  return fields.length ? `${SEARCH_PATH}?${new URLSearchParams(fields)}` : SEARCH_PATH
}
