import { createReadStream } from 'node:fs'
import { Parser } from 'htmlparser2'
import type { Reader } from './reader'

const PIECE = 8000

/** A text file, decoded as UTF-8, in pieces that end at the end of a line where there is one. */
async function* piecesOf(path: string): AsyncGenerator<string> {
  const decoder = new TextDecoder()
  let text = ''
  for await (const chunk of createReadStream(path) as AsyncIterable<Buffer>) {
    text += decoder.decode(chunk, { stream: true })
    while (text.length > PIECE) {
      const end = text.lastIndexOf('\n', PIECE)
      const cut = end > PIECE / 2 ? end + 1 : PIECE
      yield text.slice(0, cut)
      text = text.slice(cut)
    }
  }
  yield text + decoder.decode()
}

export const readText: Reader = async (path, sink) => {
  for await (const piece of piecesOf(path)) if (!(await sink.take('', piece))) break
}

const UNSEEN = new Set(['script', 'style', 'template', 'noscript'])
const INLINE = new Set(['a', 'b', 'i', 'em', 'strong', 'span', 'small', 'sub', 'sup', 'u', 'mark', 'code', 'abbr'])

/** The words of an HTML document that people see, and its title. */
export const readHtml: Reader = async (path, sink) => {
  let text = ''
  let unseen = 0
  let inTitle = false
  const parser = new Parser({
    onopentag(name) {
      if (UNSEEN.has(name)) unseen++
      if (name === 'title') inTitle = true
      if (!INLINE.has(name)) text += ' '
    },
    ontext(piece) {
      if (inTitle) sink.facts.documentTitle = ((sink.facts.documentTitle ?? '') + piece).slice(0, 500)
      else if (!unseen) text += piece
    },
    onclosetag(name) {
      if (UNSEEN.has(name)) unseen--
      if (name === 'title') inTitle = false
      if (!INLINE.has(name)) text += '\n'
    },
  })
  for await (const piece of piecesOf(path)) {
    parser.write(piece)
    if (text.length < PIECE) continue
    if (!(await sink.take('', text))) return
    text = ''
  }
  parser.end()
  await sink.take('', text)
}
