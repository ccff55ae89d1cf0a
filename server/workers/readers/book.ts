import { posix } from 'node:path'
import { readProperties, withPackage, type OfficePackage } from './package'
import { Unreadable, type Reader } from './reader'
import { HtmlWords } from './text'

/** Where the book's own description lies (EPUB 3.3, 4.2.6.3.1). */
async function descriptionOf({ xml }: OfficePackage): Promise<string> {
  let at = ''
  await xml('META-INF/container.xml', {
    open: (tag, attributes) => {
      if (tag === 'rootfile') at ||= attributes['full-path'] ?? ''
    },
  })
  if (!at) throw new Unreadable('The book is damaged: what describes it is missing.')
  return at
}

/** A name in the package is an address (RFC 3986); one that is none stands as it is. */
function decoded(href: string): string {
  try {
    return decodeURIComponent(href)
  } catch {
    return href
  }
}

/** The chapters in the order they are read, as names in the package (EPUB 3.3, 5.6 and 5.7). */
async function chaptersOf({ xml, has }: OfficePackage, description: string): Promise<string[]> {
  const items = new Map<string, string>()
  const order: string[] = []
  await xml(description, {
    open(tag, { id, href, idref }) {
      if (tag === 'item' && id && href) items.set(id, href)
      else if (tag === 'itemref' && idref) order.push(idref)
    },
  })
  return order.flatMap(id => {
    const href = items.get(id)
    const name = href && posix.join(posix.dirname(description), decoded(href))
    return name && has(name) ? [name] : []
  })
}

/** Title, author, date, and the words of each chapter; nothing in a chapter runs, and nothing is asked for. */
export const readBook: Reader = (path, sink) =>
  withPackage(path, async parts => {
    const description = await descriptionOf(parts)
    await readProperties(parts, description, sink)
    const chapters = await chaptersOf(parts, description)
    for (const [index, name] of chapters.entries()) {
      const words = new HtmlWords()
      words.write(await parts.text(name))
      words.end()
      if (!(await sink.take(`Chapter ${index + 1}`, words.text))) break
    }
  })
