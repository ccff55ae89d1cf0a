import { askedWords } from '../cut'
import { placementIdSchema } from '../page/schema'

/** What of a file a visitor asks to look at. */
export interface SeeQuery {
  /** a page of a document, counted from 1; 0 where none was asked for */
  page: number
  /** a sheet of a workbook, counted from 1 */
  sheet: number
  /** words to look for in it */
  find: string
  /** the placement it was come by, which goes on to the download */
  at?: string
}

/** What an address says where it says nothing. */
export const PLAIN_SEE: SeeQuery = { page: 0, sheet: 1, find: '' }

/** Longer is no question, and takes time to look for. */
export const LONGEST_FIND = 200

const number = (text: string | null, otherwise: number): number => (text && /^[1-9]\d{0,8}$/.test(text) ? Number(text) : otherwise)

/** Reads what an address asks for; robust against anything typed there. */
export function readSeeQuery(query: URLSearchParams): SeeQuery {
  const at = placementIdSchema.safeParse(query.get('at'))
  return {
    page: number(query.get('page'), PLAIN_SEE.page),
    sheet: number(query.get('sheet'), PLAIN_SEE.sheet),
    find: askedWords(query.get('find'), LONGEST_FIND),
    ...(at.success && { at: at.data }),
  }
}

/** The path of the page that shows what is in a file. */
export const seePath = (handle: string): string => `/see/${encodeURI(handle)}`

/** Its root-relative address, with what is asked for there. */
export function seeHref(handle: string, { page, sheet, find, at }: Partial<SeeQuery> = {}): string {
  const query = new URLSearchParams({
    ...(page && { page: String(page) }),
    ...(sheet && sheet > 1 && { sheet: String(sheet) }),
    ...(find && { find }),
    ...(at && { at }),
  })
  return query.size ? `${seePath(handle)}?${query}` : seePath(handle)
}
