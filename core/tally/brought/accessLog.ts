import Papa from 'papaparse'
import { Temporal } from 'temporal-polyfill'

/** One request, as an access log tells it. */
export interface Logged {
  /** milliseconds since 1970 */
  at: number
  /** of the network it came from */
  address: string
  method: string
  /** path with query, as it was asked for */
  path: string
  status: number
  /** bytes that were sent; null where that is not told */
  bytes: number | null
  referer: string
  userAgent: string
}

/** A line; undefined where it cannot be read, null where it says nothing of a request. */
export type ReadLine = (line: string) => Logged | null | undefined

const MONTHS = ['Jan', 'Feb', 'Mar', 'Apr', 'May', 'Jun', 'Jul', 'Aug', 'Sep', 'Oct', 'Nov', 'Dec']
const QUOTED = String.raw`"((?:[^"\\]|\\.)*)"`
const COMBINED = new RegExp(
  String.raw`^(\S+) \S+ .*?\[(\d{1,2})/(\w{3})/(\d{4}):(\d\d):(\d\d):(\d\d) ([+-]\d\d)(\d\d)\] ${QUOTED} (\d{3}) (\d+|-)(?: ${QUOTED} ${QUOTED})?`,
)
/** What stands in quotes: `\"` and `\\` as Apache writes them; a hyphen for nothing. */
const unquoted = (text: string | undefined): string => (text === undefined || text === '-' ? '' : text.replace(/\\(["\\])/g, '$1'))
const bytesOf = (text: string | undefined): number | null => (text === undefined || text === '-' ? null : Number(text))

/** Reads a line of the Combined Log Format, or of the Common one (Apache HTTP Server, `mod_log_config`; nginx, `log_format combined`). */
export const readCombined: ReadLine = line => {
  if (!line.trim()) return null
  const match = COMBINED.exec(line)
  if (!match) return undefined
  const [, address, day, month, year, hour, minute, second, zoneHours, zoneMinutes, request, status, bytes, referer, userAgent] = match
  const monthIndex = MONTHS.indexOf(month!)
  const [method, path] = unquoted(request).split(' ')
  if (monthIndex < 0 || !path) return undefined
  const offset = (Number(zoneHours) * 60 + Math.sign(Number(`${zoneHours}1`)) * Number(zoneMinutes)) * 60_000
  const at = Date.UTC(Number(year), monthIndex, Number(day), Number(hour), Number(minute), Number(second)) - offset
  return {
    at,
    address: address!,
    method: method!,
    path,
    status: Number(status),
    bytes: bytesOf(bytes),
    referer: unquoted(referer),
    userAgent: unquoted(userAgent),
  }
}

/** A reader of the W3C Extended Log File Format (working draft of 1996): lines that begin with `#Fields:` say what its fields are. */
export function createW3cReader(): ReadLine {
  let fields: string[] = []
  return line => {
    if (!line.trim()) return null
    if (line.startsWith('#')) {
      const said = /^#Fields:\s*(.*)$/i.exec(line)
      if (said) fields = said[1]!.trim().toLowerCase().split(/\s+/)
      return null
    }
    const cells = line.trim().split(/\s+/)
    if (!fields.length || cells.length !== fields.length) return undefined
    const cell = (name: string) => {
      const found = cells[fields.indexOf(name)]
      return found === undefined || found === '-' ? '' : found
    }
    // Times are those of Greenwich; spaces within a field are written as plus signs (common practice).
    const at = Date.parse(`${cell('date')}T${cell('time').slice(0, 8)}Z`)
    const [path, status] = [cell('cs-uri-stem') || cell('cs-uri'), Number(cell('sc-status'))]
    if (Number.isNaN(at) || !path || !status) return undefined
    const query = cell('cs-uri-query')
    const sent = cell('sc-bytes')
    return {
      at,
      address: cell('c-ip'),
      method: cell('cs-method') || 'GET',
      path: query ? `${path}?${query}` : path,
      status,
      bytes: sent === '' ? null : Number(sent),
      referer: cell('cs(referer)'),
      userAgent: cell('cs(user-agent)').replaceAll('+', ' '),
    }
  }
}

/** What a file of numbers is, by its first lines; undefined for none of them. */
export function formatOf(beginning: string): 'combined' | 'w3c' | 'counts' | undefined {
  const lines = beginning
    .replace(/^\uFEFF/, '')
    .split(/\r?\n/)
    .slice(0, 20)
  if (lines.some(line => /^#(?:Fields|Version|Software):/i.test(line))) return 'w3c'
  if (lines.some(line => readCombined(line))) return 'combined'
  return lines.some(line => readCount(line)) ? 'counts' : undefined
}

/** How often a file was taken on one day. */
export interface DayCount {
  /** ISO 8601 */
  day: string
  /** handle, file name, title or address */
  file: string
  count: number
}

const DAY_FORMS: [RegExp, (parts: string[]) => string[]][] = [
  [/^(\d{4})[-/](\d{1,2})[-/](\d{1,2})$/, ([year, month, day]) => [year!, month!, day!]],
  [/^(\d{1,2})\.(\d{1,2})\.(\d{4})$/, ([day, month, year]) => [year!, month!, day!]],
]

/** A day as people write it, as ISO 8601; undefined where it is none, or could be two different ones, as 3/4/2026. */
function dayIn(text: string): string | undefined {
  for (const [form, order] of DAY_FORMS) {
    const match = form.exec(text)
    if (!match) continue
    const [year, month, day] = order(match.slice(1)).map(Number)
    try {
      return Temporal.PlainDate.from({ year: year!, month: month!, day: day! }, { overflow: 'reject' }).toString()
    } catch {
      return undefined
    }
  }
  return undefined
}

/** Reads a line of a table of day, file and count, parted by commas, semicolons or tabs; undefined where it is none, as a heading is. */
export function readCount(line: string): DayCount | undefined {
  const delimiter = ['\t', ';'].find(each => line.includes(each)) ?? ','
  const [first, ...rest] = (Papa.parse<string[]>(line, { delimiter }).data[0] ?? []).map(cell => cell.trim())
  const last = rest.pop()
  // A comma may stand in a title.
  const file = rest.join(', ').trim()
  const day = dayIn(first ?? '')
  if (!day || !file || !last || !/^\d{1,9}$/.test(last) || Number(last) < 1) return undefined
  return { day, file, count: Number(last) }
}
