import { z } from 'zod'
import { fold } from '../find/fold'
import { splitExtension } from './fileName'

const MAX_LENGTH = 80
/** Latin letters that are typed by few: their plain ones stand for them. */
const LATIN_WITH_MARKS = /[\u00DF-\u024F\u1E00-\u1EFF]/

/**
 * A handle: small letters of any script, digits, single hyphens and dots; starts and ends with a letter or digit. In an address other
 * letters than Latin are percent-encoded (RFC 3987, section 3.1).
 */
export const handleSchema = z
  .string()
  .max(MAX_LENGTH, `Keep it to ${MAX_LENGTH} characters.`)
  .transform(handle => handle.normalize('NFC'))
  .refine(
    handle =>
      /^[\p{Ll}\p{Lo}\p{Lm}\p{N}][\p{M}]*(?:[.-]?[\p{Ll}\p{Lo}\p{Lm}\p{N}][\p{M}]*)*$/u.test(handle) && !LATIN_WITH_MARKS.test(handle),
    'Use small letters, digits, hyphens and dots only, such as price-list.pdf.',
  )

/** Small Latin letters and digits joined by hyphens; everything else is dropped or turned into a hyphen. */
export function slugify(text: string): string {
  return fold(text)
    .replace(/['’]/g, '')
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-+|-+$/g, '')
}

/** Small letters of any script and digits, joined by hyphens: Latin ones plain, others as they are, with the marks that belong to them. */
function slugifyAnyScript(text: string): string {
  const plain = text
    .normalize('NFC')
    .replace(/\p{Script=Latin}\p{M}*/gu, fold)
    .toLowerCase()
    .normalize('NFC')
  return plain
    .replace(/['’]/g, '')
    .replace(/[^\p{L}\p{M}\p{N}]+/gu, '-')
    .replace(/^[-\p{M}]+|-+$/gu, '')
}

/** The handle a file name asks for: `Price List (new).PDF` becomes `price-list-new.pdf`. */
export function handleFromFileName(fileName: string): string {
  const [stem, extension] = splitExtension(fileName)
  const ending = slugify(extension)
  const room = MAX_LENGTH - (ending ? ending.length + 1 : 0)
  // Scripts of few signs a word take as many; what is cut never ends in half a letter.
  const base = [...slugifyAnyScript(stem)].slice(0, room).join('').replace(/-+$/, '') || 'file'
  return ending ? `${base}.${ending}` : base
}

/** A handle as people write it: what does not belong in one is not refused but written otherwise. */
export const writtenHandleSchema = z
  .string()
  .max(400, `Keep it to ${MAX_LENGTH} characters.`)
  .refine(written => /[\p{L}\p{N}]/u.test(written), 'Give it an address, such as price-list.pdf.')
  .transform(written => (handleSchema.safeParse(written).success ? written : handleFromFileName(written)))
  .pipe(handleSchema)

/** `base`, or `base-2`, `base-3`… with the number before the extension: the first that is not taken. */
export function firstFree(base: string, taken: (candidate: string) => boolean, from = 2): string {
  if (!taken(base)) return base
  const [stem, extension] = splitExtension(base)
  for (let number = from; ; number++) {
    const suffix = `-${number}`
    const candidate = stem.slice(0, MAX_LENGTH - extension.length - suffix.length) + suffix + extension
    if (!taken(candidate)) return candidate
  }
}
