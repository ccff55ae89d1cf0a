import { z } from 'zod'
import { fold } from '../find/fold'
import { splitExtension } from './fileName'

const MAX_LENGTH = 80

/** A handle: lower-case letters, digits, single hyphens and dots; starts and ends with a letter or digit. */
export const handleSchema = z.string().max(MAX_LENGTH, `Keep it to ${MAX_LENGTH} characters.`)
  .regex(/^[a-z0-9]+(?:[.-][a-z0-9]+)*$/, 'Use small letters, digits, hyphens and dots only, such as price-list.pdf.')

/** Small Latin letters and digits joined by hyphens; everything else is dropped or turned into a hyphen. */
export function slugify(text: string): string {
  return fold(text).replace(/['’]/g, '').replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '')
}

/** The handle a file name asks for: `Price List (new).PDF` becomes `price-list-new.pdf`. */
export function handleFromFileName(fileName: string): string {
  const [stem, extension] = splitExtension(fileName)
  const ending = slugify(extension)
  const room = MAX_LENGTH - (ending ? ending.length + 1 : 0)
  const base = slugify(stem).slice(0, room).replace(/-+$/, '') || 'file'
  return ending ? `${base}.${ending}` : base
}

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
