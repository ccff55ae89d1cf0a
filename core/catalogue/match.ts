import { z } from 'zod'
import { splitExtension, titleFromFileName } from '../files/fileName'
import { fold } from '../find/fold'
import { dateInName } from '../files/nameAdvice'
import type { Values } from './entry'
import { TITLE, isFileKind, type Field } from './field'
import { titleOf, writeCell } from './values'

/** A name that ends as files do. */
export const mayBeFileName = (text: string): boolean => /^[^/\\<>:"|?*\n]{1,180}\.[a-z][a-z0-9]{1,4}$/i.test(text)

const wordsOf = (text: string): string[] => fold(text).match(/\p{L}+|\p{N}+/gu) ?? []

/** Words that many files have in their names, whatever they are about (common practice). */
const COMMON = new Set(
  'data sheet datasheet safety sds tds manual guide instructions chart final new copy v pdf the of and for a'.split(' '),
)

export interface FileToMatch {
  id: string
  /** its file name, or its title */
  name: string
}
export interface EntryToMatch {
  id: string
  values: Values
}
export const matchedSchema = z.object({
  file: z.string(),
  /** the entry it belongs to; null where none fits */
  entry: z.string().nullable(),
  /** nothing else fits as well */
  sure: z.boolean(),
})
export type Matched = z.infer<typeof matchedSchema>

/**
 * Says of a name whether words stand in it one behind the other, however either is parted: "C-101" in "clay C101", not in "C1015" or
 * "EC101". Made once for each name: it is asked of thousands of entries.
 */
function runsIn(stem: string[]): (glued: string) => boolean {
  const joined = stem.join('')
  const ends = new Set([0])
  let length = 0
  for (const word of stem) ends.add((length += word.length))
  return glued => {
    for (let at = joined.indexOf(glued); at >= 0; at = joined.indexOf(glued, at + 1))
      if (ends.has(at) && ends.has(at + glued.length)) return true
    return false
  }
}

/** How well the words of a file's name fit an entry: from 0 for not at all to 1 for all that the entry is known by. */
function fitOf(stem: string[], hasRun: (glued: string) => boolean, known: string[]): number {
  let best = 0
  for (const text of known) {
    const words = wordsOf(text)
    if (!words.length) continue
    const glued = words.join('')
    // A number of an article in the name of a file says all.
    const isNumber = /\p{N}/u.test(glued) && glued.length >= 3
    if (isNumber && hasRun(glued)) return 1 + glued.length / 1000
    const found = words.filter(word => stem.includes(word)).length
    // Of two entries that fit whole, the one with more words is meant: "Stoneware" and "White stoneware".
    best = Math.max(best, found / words.length + (found === words.length ? words.length / 10_000 : 0))
  }
  return best
}

const ENOUGH = 0.6

export const straySchema = z.object({ /** the field they are for */ field: z.string(), files: z.array(matchedSchema) })
/** Files of a folder that fit no entry beyond doubt. */
export type Stray = z.infer<typeof straySchema>

type Fitting = Matched & { /** how well, from 0 */ fit: number }

/**
 * Tells which entry a file belongs to, by its name.
 *
 * @param fields whose words entries are known by: their name, and fields that tell them apart
 */
export function entryMatcher(entries: EntryToMatch[], fields: Field[], key: string | null): (file: FileToMatch) => Fitting {
  const telling = fields.filter(({ id, unique, kind }) => (id === TITLE || id === key || unique) && !isFileKind(kind))
  const known = entries.map(({ id, values }) => ({
    id,
    texts: telling.map(field => writeCell(field, values[field.id])).filter(Boolean),
    title: wordsOf(titleOf(values)),
  }))
  return ({ id, name }) => {
    const dated = dateInName(name)
    const bare = titleFromFileName(splitExtension(name)[0])
    const stem = wordsOf(bare).filter(word => !(dated && dated.includes(word) && word.length === 4))
    const telling = stem.filter(word => !COMMON.has(word))
    const hasRun = runsIn(stem)
    const fits = known
      .map(entry => ({ id: entry.id, fit: fitOf(stem, hasRun, entry.texts), title: entry.title }))
      .sort((a, b) => b.fit - a.fit)
    const [best, next] = fits
    if (!best || best.fit < ENOUGH) {
      // What is called by a part of the name alone: "stoneware.pdf" where one entry is "Stoneware body".
      const partly = telling.length ? known.filter(({ title }) => telling.every(word => title.includes(word))) : []
      return partly.length === 1
        ? { file: id, entry: partly[0]!.id, sure: false, fit: ENOUGH }
        : { file: id, entry: null, sure: false, fit: 0 }
    }
    return { file: id, entry: best.id, sure: best.fit >= 1 && !(next && next.fit === best.fit), fit: best.fit }
  }
}

/** Which entry each of some files belongs to, by their names; one entry for each where each holds one. */
export function matchFiles(files: FileToMatch[], entries: EntryToMatch[], fields: Field[], key: string | null): Matched[] {
  const matched = files.map(entryMatcher(entries, fields, key))
  // Two files for one entry: the better one has it, and neither is beyond doubt where they fit alike.
  const held = new Map<string, Fitting>()
  for (const each of matched) {
    const holder = each.entry ? held.get(each.entry) : undefined
    if (each.entry && (!holder || holder.fit < each.fit)) held.set(each.entry, each)
  }
  return matched.map(each => {
    const contested = each.entry !== null && matched.some(other => other !== each && other.entry === each.entry && other.fit === each.fit)
    return { file: each.file, entry: each.entry, sure: each.sure && !contested && (each.entry === null || held.get(each.entry) === each) }
  })
}
