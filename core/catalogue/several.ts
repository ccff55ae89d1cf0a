/** What parts the choices of a cell, and the files of one: names of files have commas in them. */
export const CHOICES_APART = ',;|\n'
export const FILES_APART = ';|\n'

/** Names in one cell. One that holds what parts them is put in quotes, with its own quotes doubled (as RFC 4180 does, section 2). */
export function writeSeveral(names: string[], apart: string): string {
  const needsQuotes = (name: string) => name.startsWith('"') || [...apart].some(sign => name.includes(sign))
  return names.map(name => (needsQuotes(name) ? `"${name.replaceAll('"', '""')}"` : name)).join(`${apart[0]} `)
}

/** The names that are written in a cell, without those that are empty. Quotes count where they enclose a whole name. */
export function readSeveral(text: string, apart: string): string[] {
  const part = new RegExp(`\\s*(?:"((?:[^"]|"")*)"[^\\S\\n]*(?=[${apart}]|$)|([^${apart}]*))(?:[${apart}]|$)`, 'y')
  const names: string[] = []
  while (part.lastIndex < text.length) {
    const [, quoted, bare = ''] = part.exec(text)!
    names.push(quoted?.replaceAll('""', '"') ?? bare.trim())
  }
  return names.filter(Boolean)
}
