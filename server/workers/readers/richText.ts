import { createReadStream } from 'node:fs'
import { Transform, Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { Tokenize } from 'rtf-stream-parser'
import { ToPlainText } from 'rtf-stream-parser/dist/src/ToPlainText.js'
import type { Token } from 'rtf-stream-parser/dist/src/tokenize.js'
import { Pieces } from './pieces'
import { Unreadable, type Reader } from './reader'

/** What tokens are; the package gives them no names that are there when it runs. */
const [GROUP_START, GROUP_END, CONTROL] = [0, 1, 2]

/** Groups whose words nobody reads (RTF 1.9.1, destinations). */
const UNREAD = new Set(['info', 'fonttbl', 'colortbl', 'stylesheet', 'listtable', 'listoverridetable', 'pict', 'object', 'themedata'])
/** What parts words without being a word. */
const PARTING: Record<string, string> = { cell: 'tab', nestcell: 'tab', row: 'par', nestrow: 'par', sect: 'par', page: 'par' }

/** Leaves out what nobody reads, and parts the cells of tables. */
function readable(): Transform {
  let depth = 0
  let unreadFrom = Infinity
  return new Transform({
    objectMode: true,
    transform(token: Token, _encoding, done) {
      if (token.type === GROUP_START) depth++
      if (token.type === CONTROL && UNREAD.has(token.word!) && depth < unreadFrom) unreadFrom = depth
      const unread = depth >= unreadFrom
      if (token.type === GROUP_END) {
        depth--
        if (depth < unreadFrom) unreadFrom = Infinity
        // The group itself was begun before it was known what is in it.
        return void done(null, unread && depth >= unreadFrom ? undefined : token)
      }
      if (unread) return void done()
      const instead = token.type === CONTROL ? PARTING[token.word!] : undefined
      done(null, instead ? { ...token, word: instead } : token)
    },
  })
}

/** Code pages by the names that RTF has for them, as the Encoding Standard calls them (WHATWG). */
const decode = (bytes: Buffer, codePage: string) => {
  const number = /\d+$/.exec(codePage)?.[0]
  const names: Record<string, string> = { 932: 'shift_jis', 936: 'gb18030', 949: 'euc-kr', 950: 'big5', 10000: 'macintosh', 65001: 'utf-8' }
  const label = number ? (names[number] ?? `windows-${number}`) : codePage
  try {
    return new TextDecoder(label).decode(bytes)
  } catch {
    // A code page that nobody else knows: its letters beyond ASCII are lost, the rest is read.
    return new TextDecoder('windows-1252').decode(bytes)
  }
}

/** Rich Text Format: its words, a paragraph a line. */
export const readRichText: Reader = async (path, sink) => {
  const pieces = new Pieces()
  const gather = new Writable({
    decodeStrings: false,
    write(text: string | Buffer, _encoding, done) {
      for (const line of String(text).split(/(?<=\n)/)) pieces.add(line.replace(/\r\n?/g, '\n'))
      done(pieces.enough ? new Enough() : null)
    },
  })
  try {
    await pipeline(createReadStream(path), new Tokenize(), readable(), new ToPlainText({ decode, warn: () => undefined }), gather)
  } catch (error) {
    if (!(error instanceof Enough)) throw new Unreadable(`The document is damaged or no rich text (${(error as Error).message}).`)
  }
  await pieces.handOver(sink, '')
}

/** More is not read. */
class Enough extends Error {}
