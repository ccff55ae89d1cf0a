/** Longest file name most file systems take, in bytes of UTF-8 (POSIX NAME_MAX on Linux). */
const MAX_BYTES = 255

// Control characters, and the marks that reorder text so that "exe.pdf" reads as "fdp.exe"
// (Unicode Standard Annex 9, explicit directional formatting characters).
// eslint-disable-next-line no-control-regex
const INVISIBLE = /[\u0000-\u001F\u007F-\u009F\u200E\u200F\u202A-\u202E\u2066-\u2069\uFEFF]/g
const FORBIDDEN = /[<>:"|?*]/g

/** `['price list', '.pdf']`; the extension keeps its dot, and is empty where there is none. */
export function splitExtension(name: string): [stem: string, extension: string] {
  const dot = name.lastIndexOf('.')
  const extension = dot > 0 ? name.slice(dot) : ''
  return /^\.[\p{L}\p{N}]{1,12}$/u.test(extension) ? [name.slice(0, dot), extension] : [name, '']
}

function clipBytes(text: string, bytes: number): string {
  let used = 0
  let kept = ''
  for (const character of text) {
    used += new TextEncoder().encode(character).length
    if (used > bytes) break
    kept += character
  }
  return kept
}

/**
 * A file name that is safe to store, to send in a header and to save on any desktop:
 * the last path segment, without control or reordering characters, at most 255 bytes.
 * A name of which nothing is left becomes "file".
 */
export function cleanFileName(raw: string): string {
  const last =
    raw
      .normalize('NFC')
      .split(/[/\\]/)
      .filter(part => !/^\.*$/.test(part.trim()))
      .at(-1) ?? ''
  const visible = last.toWellFormed().replace(INVISIBLE, '').replace(FORBIDDEN, '_').replace(/\s+/g, ' ')
  const trimmed = visible.replace(/^[\s.]+|[\s.]+$/g, '')
  if (!trimmed) return 'file'
  const [stem, extension] = splitExtension(trimmed)
  return clipBytes(stem, MAX_BYTES - new TextEncoder().encode(extension).length).trim() + extension
}

/** The name a file is saved under where its button chose one: with the file's own ending, so that contents and name never disagree. */
export function nameToSave(fileName: string, chosen: string | undefined): string {
  if (!chosen?.trim()) return fileName
  const name = cleanFileName(chosen)
  const [, ending] = splitExtension(fileName)
  return name.toLowerCase().endsWith(ending.toLowerCase()) ? name : cleanFileName(name + ending)
}

/** The title a file starts with: its name without extension, with separators read as spaces. */
export function titleFromFileName(fileName: string): string {
  const [stem] = splitExtension(fileName)
  const words = stem
    .replace(/[_\s]+/g, ' ')
    .replace(/(?<!\d)-(?!\d)|(?<=\d)-(?!\d)|(?<!\d)-(?=\d)/g, ' ')
    .replace(/ +/g, ' ')
    .trim()
  return words ? words[0]!.toUpperCase() + words.slice(1) : fileName
}
