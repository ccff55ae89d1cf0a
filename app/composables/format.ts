import type { FileUse } from '~~/core/files/item'

const sameYear = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' })
const otherYear = new Intl.DateTimeFormat(undefined, { month: 'short', year: 'numeric' })
const whole = new Intl.DateTimeFormat(undefined, { dateStyle: 'long', timeStyle: 'short' })

/** A date in the reader's own form, short: the day within this year, else the month. */
export function shortDate(iso: string): string {
  const date = new Date(iso)
  return (date.getFullYear() === new Date().getFullYear() ? sameYear : otherYear).format(date)
}

export const longDate = (iso: string) => whole.format(new Date(iso))

/** `1 place`, `3 places`. */
export const counted = (count: number, one: string, many = `${one}s`) => `${count.toLocaleString()} ${count === 1 ? one : many}`

/** A stretch of time for people: `40 s`, `3 min`. */
export function roughTime(seconds: number): string {
  if (!Number.isFinite(seconds)) return ''
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`
  return seconds < 5400 ? `${Math.round(seconds / 60)} min` : `${Math.round(seconds / 3600)} h`
}

/** One place a file is used at, by its words. */
export const wordsForUse = ({ kind, label }: FileUse) => {
  const what = kind === 'fill' ? 'behind the button' : kind
  return label ? `${what} “${label}”` : what
}

/** Where on the desk a use is changed. */
export const placeOfUse = ({ pageId, placement }: FileUse) => pageId === null ? '/desk/looks' : placeOnPage(pageId, placement)

/** Where a page opens with one of its placements selected. */
export const placeOnPage = (pageId: string, placement?: string) => `/desk/pages/${pageId}${placement ? `?at=${placement}` : ''}`
