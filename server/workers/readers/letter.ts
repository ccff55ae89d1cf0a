import { readFile, stat } from 'node:fs/promises'
import PostalMime, { type Address } from 'postal-mime'
import { HtmlWords, readText } from './text'
import type { Reader } from './reader'

/** Bytes of a message that are taken apart; of a longer one, which is mostly what is attached, the text is read as it stands. */
const MOST = 50_000_000

const shown = (address: Address | undefined): string => [address?.name, address?.address].filter(Boolean).join(' ')

/** What an HTML message says. */
function wordsOf(html: string): string {
  const words = new HtmlWords()
  words.write(html)
  words.end()
  return words.text
}

/** A message (RFC 5322, MIME): who wrote to whom, what about, what, and how what is attached is called. */
export const readLetter: Reader = async (path, sink) => {
  if ((await stat(path)).size > MOST) return readText(path, sink)
  const { subject, from, to, cc, text, html, attachments } = await PostalMime.parse(await readFile(path), { maxNestingDepth: 30 })
  if (subject) sink.facts.documentTitle = subject.slice(0, 500)
  const people = [from, ...(to ?? []), ...(cc ?? [])].map(shown)
  const attached = attachments.flatMap(({ filename }) => filename ?? [])
  await sink.take('', [subject, ...people, '', text ?? wordsOf(html ?? ''), '', ...attached].filter(line => line !== undefined).join('\n'))
}
