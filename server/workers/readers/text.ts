import { createReadStream } from 'node:fs'
import { open } from 'node:fs/promises'
import { Parser } from 'htmlparser2'
import { charsetOf } from '../../../core/files/charset'
import type { Reader, Sink } from './reader'

const PIECE = 8000
const SAMPLE = 64 * 1024

/** The encoding of a text file, by its beginning. */
export async function charsetAt(path: string): Promise<string> {
  const handle = await open(path, 'r')
  try {
    const { buffer, bytesRead } = await handle.read(Buffer.alloc(SAMPLE), 0, SAMPLE, 0)
    return charsetOf(buffer.subarray(0, bytesRead)) ?? 'utf-8'
  } finally {
    await handle.close()
  }
}

/** A text file in pieces that end at the end of a line where there is one. */
export async function* piecesOf(path: string, charset: string): AsyncGenerator<string> {
  const decoder = new TextDecoder(charset)
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

/** Notes the encoding of a text where that is not UTF-8. */
async function charsetFor(path: string, { facts }: Sink): Promise<string> {
  const charset = await charsetAt(path)
  if (charset !== 'utf-8') facts.charset = charset
  return charset
}

export const readText: Reader = async (path, sink) => {
  for await (const piece of piecesOf(path, await charsetFor(path, sink))) if (!(await sink.take('', piece))) break
}

const UNSEEN = new Set(['script', 'style', 'template', 'noscript'])
const INLINE = new Set(['a', 'b', 'i', 'em', 'strong', 'span', 'small', 'sub', 'sup', 'u', 'mark', 'code', 'abbr'])

/** The words of an HTML document that people see, as it is written in, and its title. */
export class HtmlWords {
  /** words that were not taken yet */
  text = ''
  title = ''
  private unseen = 0
  private inTitle = false
  private readonly parser = new Parser({
    onopentag: name => {
      if (UNSEEN.has(name)) this.unseen++
      if (name === 'title') this.inTitle = true
      if (!INLINE.has(name)) this.text += ' '
    },
    ontext: piece => {
      if (this.inTitle) this.title = (this.title + piece).slice(0, 500)
      else if (!this.unseen) this.text += piece
    },
    onclosetag: name => {
      if (UNSEEN.has(name)) this.unseen--
      if (name === 'title') this.inTitle = false
      if (!INLINE.has(name)) this.text += '\n'
    },
  })

  write(html: string): void {
    this.parser.write(html)
  }

  end(): void {
    this.parser.end()
  }
}

export const readHtml: Reader = async (path, sink) => {
  const words = new HtmlWords()
  const noteTitle = () => {
    if (words.title) sink.facts.documentTitle = words.title
  }
  for await (const piece of piecesOf(path, await charsetFor(path, sink))) {
    words.write(piece)
    noteTitle()
    if (words.text.length < PIECE) continue
    if (!(await sink.take('', words.text))) return
    words.text = ''
  }
  words.end()
  noteTitle()
  await sink.take('', words.text)
}
