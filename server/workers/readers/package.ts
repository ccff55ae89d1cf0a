import type { Readable } from 'node:stream'
import { withZip, type ZipEntry } from './archive'
import type { Sink } from './reader'
import { Unreadable } from './reader'
import { readXml, type XmlHandlers } from './xml'

/** A part may open to this many bytes; what comes after is not read. */
const MOST_XML = 1_000_000_000
const MOST_PARTS = 20_000
/** Letters of one part that are taken in at once; a chapter of a book has some 50,000. */
const MOST_TEXT = 5_000_000

/** A document that is a zip of XML parts: Office Open XML (ECMA-376) or OpenDocument (ISO/IEC 26300). */
export interface OfficePackage {
  names: string[]
  has: (name: string) => boolean
  /** a part that is text, in UTF-8, as far as that is taken in; empty where it is missing */
  text: (name: string) => Promise<string>
  /** reads a part; nothing where it is missing */
  xml: (name: string, handlers: XmlHandlers) => Promise<void>
}

export const withPackage = <T>(path: string, work: (parts: OfficePackage) => Promise<T>): Promise<T> =>
  withZip(path, async files => {
    const byName = new Map<string, ZipEntry>()
    for await (const file of files) {
      byName.set(file.name, file)
      if (byName.size > MOST_PARTS)
        throw new Unreadable(`The document has more than ${MOST_PARTS.toLocaleString('en')} parts. It was not opened.`)
    }
    async function open(name: string): Promise<Readable | undefined> {
      const file = byName.get(name)
      if (file?.encrypted) throw new Unreadable('The document is locked with a password: visitors need it, too.')
      return file?.open()
    }
    return work({
      names: [...byName.keys()],
      has: name => byName.has(name),
      async text(name) {
        const stream = await open(name)
        if (!stream) return ''
        const decoder = new TextDecoder()
        let text = ''
        for await (const chunk of stream as AsyncIterable<Buffer>) {
          text += decoder.decode(chunk, { stream: true })
          // Leaving the loop gives the stream back.
          if (text.length > MOST_TEXT) break
        }
        return text
      },
      async xml(name, handlers) {
        const stream = await open(name)
        if (!stream) return
        try {
          await readXml(stream, handlers, MOST_XML)
        } finally {
          stream.destroy()
        }
      },
    })
  })

// Title, author and date: core properties (ECMA-376 part 2, 11) and OpenDocument's own.
const PROPERTIES: Record<string, 'documentTitle' | 'author' | 'dated'> = {
  title: 'documentTitle',
  creator: 'author',
  modified: 'dated',
  date: 'dated',
}

/** What a document says of itself. */
export async function readProperties({ xml }: OfficePackage, name: string, { facts }: Sink): Promise<void> {
  let at: keyof typeof PROPERTIES | undefined
  await xml(name, {
    open: tag => (at = tag in PROPERTIES ? tag : undefined),
    text(text) {
      if (!at || !text.trim()) return
      const day = /^\d{4}-\d\d-\d\d/.exec(text)?.[0]
      if (PROPERTIES[at] !== 'dated') facts[PROPERTIES[at]!] = text.trim().slice(0, 500)
      else if (day) facts.dated = day
    },
    close: () => (at = undefined),
  })
}

/** Where the relations of a part lead, by their identity (ECMA-376 part 2, 8). */
export async function readRelations({ xml }: OfficePackage, name: string): Promise<Map<string, string>> {
  const relations = new Map<string, string>()
  await xml(name, {
    open: (tag, { Id, Target }) => {
      if (tag === 'Relationship' && Id && Target) relations.set(Id, Target.replace(/^\//, '').replace(/^xl\//, ''))
    },
  })
  return relations
}
