import type { Board } from '~~/core/tally/board'
import type { Listed } from '~~/core/tally/particulars'
import type { Unit } from '~~/core/tally/span'

/** What downloads are listed by, and what is said of those of which it is not known. */
const DIMENSION_WORDS: Record<Listed, { one: string; unknown: string }> = {
  file: { one: 'File', unknown: 'No file' },
  edition: { one: 'Edition', unknown: 'No edition' },
  placement: { one: 'Button or link', unknown: 'By no button or link of ours' },
  page: { one: 'Page', unknown: 'From no page of ours' },
  signpost: { one: 'Signpost', unknown: 'By no signpost' },
  campaign: { one: 'Campaign', unknown: 'By no campaign' },
  referrer: { one: 'Referring site', unknown: 'No other site' },
  country: { one: 'Country', unknown: 'Country not known' },
  device: { one: 'Device', unknown: 'Device not known' },
  browser: { one: 'Browser', unknown: 'Browser not known' },
  system: { one: 'System', unknown: 'System not known' },
  language: { one: 'Language', unknown: 'Language not known' },
  course: { one: 'How it came', unknown: 'Not known how it came' },
  person: { one: 'Person', unknown: 'Nobody a gate knew' },
  link: { one: 'Personal link', unknown: 'By no personal link' },
  source: { one: 'Source', unknown: 'Counted by Trough' },
  inFolder: { one: 'Folder', unknown: 'In no folder' },
  bundle: { one: 'Bundle', unknown: 'Files by themselves' },
}
export const dimensionWords = (dimension: Listed) => ({
  one: DIMENSION_WORDS[dimension].one,
  by: `by ${DIMENSION_WORDS[dimension].one.toLowerCase()}`,
})

export const SPAN_WORDS = [
  { value: 'today', title: 'Today' },
  { value: '7', title: 'Last 7 days' },
  { value: '30', title: 'Last 30 days' },
  { value: '90', title: 'Last 90 days' },
  { value: 'year', title: 'This year' },
  { value: 'all', title: 'All of it' },
  { value: 'days', title: 'From one day to another' },
] as const
export const AGAINST_WORDS = [
  { value: 'before', title: 'Against the span before' },
  { value: 'year', title: 'Against a year ago' },
  { value: 'none', title: 'Against nothing' },
] as const
export const UNIT_WORDS: Record<Unit, string> = { hour: 'By the hour', day: 'By day', week: 'By week', month: 'By month' }
export const STACK_WORDS = [
  { value: 'none', title: 'Bars in one' },
  { value: 'file', title: 'Bars by file' },
  { value: 'inFolder', title: 'Bars by folder' },
  { value: 'page', title: 'Bars by page' },
  { value: 'referrer', title: 'Bars by referring site' },
  { value: 'country', title: 'Bars by country' },
  { value: 'device', title: 'Bars by device' },
  { value: 'source', title: 'Bars by source' },
] as const

const countries = new Intl.DisplayNames(undefined, { type: 'region', fallback: 'code' })
const languages = new Intl.DisplayNames(undefined, { type: 'language', fallback: 'code' })
const IDENTITIES: ReadonlySet<Listed> = new Set<Listed>([
  'file',
  'page',
  'placement',
  'signpost',
  'person',
  'link',
  'source',
  'inFolder',
  'bundle',
])
const COURSE_WORDS: Record<string, string> = { whole: 'In one go', pieces: 'In pieces' }

/** A code in words; one that is none stays as it is. */
function codeWords(names: Intl.DisplayNames, code: string): string {
  try {
    return names.of(code) ?? code
  } catch {
    return code
  }
}

/** What a key is called. */
export function keyWords(dimension: Listed, key: string, names: Board['names']): string {
  if (key === '') return DIMENSION_WORDS[dimension].unknown
  if (dimension === 'country') return codeWords(countries, key)
  if (dimension === 'language') return codeWords(languages, key)
  if (dimension === 'edition') return key === '0' ? 'An edition before Trough' : `Edition ${key}`
  if (dimension === 'course') return COURSE_WORDS[key] ?? key
  if (IDENTITIES.has(dimension)) return names[dimension]?.[key]?.title || `${DIMENSION_WORDS[dimension].one} that is gone`
  return dimension === 'device' ? key[0]!.toUpperCase() + key.slice(1) : key
}

/** How a bar is named, in the site's time zone. */
export function barWords(at: number, unit: Unit, timeZone: string, long = false): string {
  const date = new Date(at * 1000)
  const format = (options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(undefined, { ...options, timeZone }).format(date)
  if (unit === 'hour') return format(long ? { dateStyle: 'medium', timeStyle: 'short' } : { hour: 'numeric', minute: '2-digit' })
  if (unit === 'month') return format(long ? { month: 'long', year: 'numeric' } : { month: 'short', year: '2-digit' })
  const day = format(long ? { dateStyle: 'full' } : { day: 'numeric', month: 'short' })
  return unit === 'week' && long ? `Week of ${format({ dateStyle: 'long' })}` : day
}

/** How much more or less than before: "+12 %"; empty where nothing can be said. */
export function changeWords(count: number, before: number | null): string {
  if (before === null) return ''
  if (!before) return count ? 'new' : ''
  const percent = Math.round((count / before - 1) * 100)
  return `${percent > 0 ? '+' : percent < 0 ? '−' : '±'}${Math.abs(percent).toLocaleString()} %`
}
