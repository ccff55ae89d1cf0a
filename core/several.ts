/** What parts the choices of a cell, and the files of one: names of files have commas in them. */
export const CHOICES_APART = ',;|\n'
export const FILES_APART = ';|\n'

/**
 * Names in one text, such as a cell of a table. One that holds what parts them is put in quotes, with its own quotes doubled (as RFC 4180
 * does, section 2).
 *
 * @param apart signs of which each parts names
 * @param between what is written between two: the first of those signs, and a space
 */
export function writeSeveral(names: readonly string[], apart: string, between = `${apart[0]} `): string {
  const needsQuotes = (name: string) => name.startsWith('"') || [...apart].some(sign => name.includes(sign))
  return names.map(name => (needsQuotes(name) ? `"${name.replaceAll('"', '""')}"` : name)).join(between)
}

/** The names that are written in a text, without those that are empty. Quotes count where they enclose a whole name. */
export function readSeveral(text: string, apart: string): string[] {
  const part = new RegExp(`\\s*(?:"((?:[^"]|"")*)"[^\\S\\n]*(?=[${apart}]|$)|([^${apart}]*))(?:[${apart}]|$)`, 'y')
  const names: string[] = []
  while (part.lastIndex < text.length) {
    const [, quoted, bare = ''] = part.exec(text)!
    names.push(quoted?.replaceAll('""', '"') ?? bare.trim())
  }
  return names.filter(Boolean)
}
