import { z } from 'zod'
import { familyOf } from './mediaType'
import { splitExtension } from './fileName'
import { slugify } from './handle'
import { monthOf } from '../language/months'

/** What is wrong with a file name, and a better one. */
export const nameAdviceSchema = z.object({
  /** a sentence each */
  reasons: z.array(z.string()),
  /** no more than a missing date */
  mild: z.boolean(),
  /** such as `price-list-2026-11.pdf` */
  better: z.string(),
})
export type NameAdvice = z.infer<typeof nameAdviceSchema>

export interface NameFacts {
  fileName: string
  mediaType: string
  /** the document's own date, ISO 8601; else the day it came in */
  dated: string
  /** another of its kind was issued in the same month */
  oftenIssued?: boolean
}

/** Any of some words, whole. Made once: a browser's or server's engine takes longer to make one than to use it on a hundred names. */
const anyOf = (words: string[]) => new RegExp(`(?<!\\p{L})(?:${words.join('|')})(?!\\p{L})`, 'iu')

// Words that are true on one day only (common practice: never call a file "most recent").
const FLEETING = anyOf(['latest', 'newest', 'new', 'current', 'recent', 'today', 'now', 'aktuell', 'neu'])
const UNSURE = anyOf(['final', 'finalised', 'finalized', 'definitive', 'real', 'ok', 'approved'])
const DRAFTY = anyOf(['draft', 'wip', 'temp', 'tmp', 'untitled', 'unnamed', 'scan', 'document', 'export'])

type Finding = { reason: string; /** the name without what was found */ rest: string }

/** `copy`, `copy (2)`, `(3)`: what a desktop adds when a name is taken. */
function copyMark(stem: string): Finding | undefined {
  const match = /[\s_-]*\(\d{1,3}\)\s*$|[\s_-]+copy(?:[\s_-]*\(?\d{1,3}\)?)?\s*$|^copy[\s_-]+of[\s_-]+/i.exec(stem)
  return match
    ? {
        reason: `“${match[0].replace(/^[\s_-]+|[\s_-]+$/g, '')}” says that it is a copy, not what it is.`,
        rest: stem.replace(match[0], ' '),
      }
    : undefined
}

function versionMark(stem: string): Finding | undefined {
  const match = /(?<![\p{L}\d])(?:v(?:er(?:sion)?)?[\s._-]?\d+(?:\.\d+)*|rev(?:ision)?[\s._-]?\d+(?:\.\d+)*)(?![\p{L}\d])/iu.exec(stem)
  return match ? { reason: `“${match[0]}” counts versions; visitors understand a date.`, rest: stem.replace(match[0], ' ') } : undefined
}

/** "test", where nothing follows that it could be a test of, as in "test tiles". */
function testMark(stem: string): Finding | undefined {
  const match = /(?<!\p{L})test[\s_-]*\d*\s*$/iu.exec(stem)
  return match ? { reason: `“${match[0].trim()}” says nothing of what is in it.`, rest: stem.replace(match[0], ' ') } : undefined
}

function wordMark(stem: string, words: RegExp, reasonOf: (word: string) => string): Finding | undefined {
  const match = words.exec(stem)
  if (!match) return undefined
  const [word] = match
  return { reason: reasonOf(word.toLowerCase()), rest: `${stem.slice(0, match.index)} ${stem.slice(match.index + word.length)}` }
}

const valid = (year: number, month: number, day = 1) =>
  month >= 1 && month <= 12 && day >= 1 && new Date(Date.UTC(year, month - 1, day)).getUTCDate() === day

interface FoundDate {
  text: string
  rest: string
  iso?: string
  ambiguous?: boolean
}

const ISO_DATE = /(?<!\d)((?:19|20)\d\d)[-_.\s]?(\d\d)(?:[-_.\s]?(\d\d))?(?!\d)/
const OTHER_DATE = /(?<!\d)(\d{1,2})[-_./\s](\d{1,2})[-_./\s]((?:19|20)?\d\d)(?!\d)/
const NAMED_MONTH = /(?<![\p{L}\d])(\p{L}{3,12})[\s_.-]*(?:de[\s_.-]+)?((?:19|20)\d\d)(?!\d)/u
const YEAR_ALONE = /(?<!\d)((?:19|20)\d\d)(?!\d)/

/** A date in a name, in whatever order it stands. */
export function dateIn(stem: string): FoundDate | undefined {
  const take = (match: RegExpExecArray, iso?: string, ambiguous = false): FoundDate => ({
    text: match[0],
    rest: stem.replace(match[0], ' '),
    iso,
    ambiguous,
  })

  const iso = ISO_DATE.exec(stem)
  if (iso) {
    const [, year, month, day] = iso
    if (valid(Number(year), Number(month), Number(day ?? 1))) return take(iso, [year, month, day].filter(Boolean).join('-'))
  }
  const other = OTHER_DATE.exec(stem)
  if (other) {
    const [first, second] = [Number(other[1]), Number(other[2])]
    const year = Number(other[3]!.length === 2 ? `20${other[3]}` : other[3])
    const [dayFirst, monthFirst] = [valid(year, second, first), valid(year, first, second)]
    const two = (value: number) => String(value).padStart(2, '0')
    if (dayFirst && monthFirst && first !== second) return take(other, undefined, true)
    if (dayFirst) return take(other, `${year}-${two(second)}-${two(first)}`)
    if (monthFirst) return take(other, `${year}-${two(first)}-${two(second)}`)
  }
  const named = NAMED_MONTH.exec(stem)
  const month = named && monthOf(named[1]!)?.month
  if (named && month) return take(named, `${named[2]}-${String(month).padStart(2, '0')}`)
  const year = YEAR_ALONE.exec(stem)
  return year ? take(year, year[1]) : undefined
}

/** The date in the name of a file, ISO 8601; undefined where none is. */
export const dateInName = (fileName: string): string | undefined => dateIn(splitExtension(fileName)[0])?.iso

/** The one month a text names, as `2026-11`; undefined where it names none, or several. */
export function monthNamed(text: string): string | undefined {
  const found = new Set<string>()
  for (const [, word, year] of text.slice(0, 3000).matchAll(/(?<!\p{L})(\p{L}{3,12})\.?\s+(?:de\s+)?((?:19|20)\d\d)(?!\d)/gu)) {
    const named = monthOf(word!)
    if (named && named.form !== 'short') found.add(`${year}-${String(named.month).padStart(2, '0')}`)
  }
  return found.size === 1 ? [...found][0] : undefined
}

/** Kinds of file that are issued again and again, so that a date in the name says which one this is. */
const isIssued = (mediaType: string) => ['document', 'sheet', 'slides'].includes(familyOf(mediaType))

/** The name without date and loose words, as its editions share it: `price-list`. */
export function subjectOf(fileName: string): string {
  const [stem] = splitExtension(fileName)
  return slugify(findingsOf(dateIn(stem)?.rest ?? stem).rest)
}

function findingsOf(stem: string): { reasons: string[]; rest: string } {
  const reasons: string[] = []
  let rest = stem
  const note = (found: Finding | undefined) => {
    if (!found) return false
    reasons.push(found.reason)
    rest = found.rest
    return true
  }
  note(copyMark(rest))
  note(versionMark(rest))
  while (note(wordMark(rest, FLEETING, word => `“${word}” will not be true for long.`))) continue
  while (note(wordMark(rest, UNSURE, word => `“${word}” tells visitors nothing; the next one will be, too.`))) continue
  note(testMark(rest))
  note(wordMark(rest, DRAFTY, word => `“${word}” says nothing of what is in it.`))
  return { reasons, rest }
}

/**
 * Reads a file name as a visitor would find it in a download folder a year later. Common practice: year and
 * month in the name, the day too where it is issued more often, and never "latest" or "final".
 *
 * @returns nothing where the name is good as it is
 */
export function nameAdvice({ fileName, mediaType, dated, oftenIssued = false }: NameFacts): NameAdvice | undefined {
  const [stem, extension] = splitExtension(fileName)
  const date = dateIn(stem)
  const { reasons, rest } = findingsOf(date?.rest ?? stem)
  const undated = !date && isIssued(mediaType)
  if (date?.ambiguous) reasons.push(`“${date.text}” can be read as day and month or as month and day.`)
  if (undated) reasons.push('It has no date: a visitor with two of them cannot tell which is newer.')
  if (!reasons.length) return undefined
  const own = dated.slice(0, oftenIssued ? 10 : 7)
  const day = date?.iso ?? (isIssued(mediaType) || date ? own : '')
  const better = [slugify(rest) || slugify(familyOf(mediaType)), day].filter(Boolean).join('-') + extension.toLowerCase()
  return better === fileName ? undefined : { reasons, mild: undated && reasons.length === 1, better }
}
