import type { Use } from '~~/core/files/fileItem'

const sameYear = new Intl.DateTimeFormat(undefined, { day: 'numeric', month: 'short' })
const otherYear = new Intl.DateTimeFormat(undefined, { month: 'short', year: 'numeric' })
const whole = new Intl.DateTimeFormat(undefined, { dateStyle: 'long', timeStyle: 'short' })

/** A date in the reader's own form, short: the day within this year, else the month. */
export function shortDate(iso: string): string {
  const date = new Date(iso)
  return (date.getFullYear() === new Date().getFullYear() ? sameYear : otherYear).format(date)
}

export const longDate = (iso: string) => whole.format(new Date(iso))

/** A moment as clocks in a time zone show it: `1 Dec 2026, 08:00 (Europe/London)`. */
export const momentWords = (iso: string, timeZone: string) =>
  `${new Intl.DateTimeFormat(undefined, { dateStyle: 'medium', timeStyle: 'short', timeZone }).format(new Date(iso))} (${timeZone.replaceAll('_', ' ')})`

/** `1 place`, `3 places`. */
export const counted = (count: number, one: string, many = `${one}s`) => `${count.toLocaleString()} ${count === 1 ? one : many}`

/** A stretch of time for people: `40 s`, `3 min`. */
export function roughTime(seconds: number): string {
  if (!Number.isFinite(seconds)) return ''
  if (seconds < 90) return `${Math.max(1, Math.round(seconds))} s`
  return seconds < 5400 ? `${Math.round(seconds / 60)} min` : `${Math.round(seconds / 3600)} h`
}

/** How long something took: `340 ms`, `3.4 s`, `5 min`. @param milliseconds at least 1 */
export function durationWords(milliseconds: number): string {
  if (milliseconds < 1000) return `${milliseconds} ms`
  return milliseconds < 90_000 ? `${(milliseconds / 1000).toFixed(1)} s` : roughTime(milliseconds / 1000)
}

/** One place a file is used at, by its words. */
export const wordsForUse = ({ kind, label, section, by }: Use) => {
  // A field of an entry: where it stands says more than what it is.
  if (kind === 'entry') return `“${section}” of “${label}”`
  const what = kind === 'fill' ? 'behind the button' : kind
  // A heading that is a link itself stands under nothing else.
  const under = section && section !== label ? `, under “${section}”` : ''
  return (label ? `${what} “${label}”` : what) + under + (by === null ? '' : `, by the signpost “${by}”`)
}

/** Where on the desk a use is changed. */
export function placeOfUse({ pageId, placement, kind }: Use): string {
  if (pageId !== null) return placeOnPage(pageId, placement)
  if (kind === 'entry') return `/desk/catalogues/${placement.split('-')[1]}?entry=${placement.split('-')[2]}`
  return kind === 'signpost' ? signpostPlace(placement.replace('signpost-', '')) : '/desk/looks'
}

/** Where a signpost is on the desk. */
export const signpostPlace = (id: string) => `/desk/signposts?at=${id}`

/** Where a page opens with one of its placements selected. */
export const placeOnPage = (pageId: string, placement?: string) => `/desk/pages/${pageId}${placement ? `?at=${placement}` : ''}`
