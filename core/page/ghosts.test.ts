import { expect, it } from 'vitest'
import { ENGLISH, NEW_SITE, PDF_FACTS, button, pageOf, words, PLAIN_SHELVES } from '../testing/pages'
import { renderPage } from './document'
import { flat } from '../shelf/listing'
import { ghostsIn } from './ghosts'
import type { Block, PageDocument } from './schema'
import { START_NAMES, STARTS, listsItself } from './starts'

const known = {
  file: (id: string) => (id === PDF_FACTS.id ? PDF_FACTS : undefined),
  page: () => undefined,
  signpost: () => undefined,
  shelf: () => flat([]),
  speech: ENGLISH,
  look: () => undefined,
  ...PLAIN_SHELVES,
}
const mainOf = (document: PageDocument) =>
  /<main class="tr-page">\n<h1>T<\/h1>\n?([\s\S]*?)\n?<\/main>/.exec(
    renderPage(NEW_SITE, { slug: 't', title: 'T', description: '', document }, known),
  )![1]!
const ghost: Block = { type: 'paragraph', attrs: { ghost: 'What belongs here.' } }

it.each(START_NAMES)('nothing of the page start "%s" is on the live page before it is written', name => {
  const document = STARTS[name].make()
  expect(ghostsIn(document).length).toBeGreaterThan(1)
  expect(mainOf(document)).toBe('')
})

it('what is written at such a place is live, and the words about it are not; empty frames around what is not written go', () => {
  const written: Block = { type: 'paragraph', attrs: { ghost: 'What belongs here.' }, content: [{ type: 'text', text: 'Ours.' }] }
  expect(mainOf(pageOf(written, ghost))).toBe('<p>Ours.</p>')
  expect(ghostsIn(pageOf(written, ghost))).toEqual(['What belongs here.'])
  const list: Block = {
    type: 'bulletList',
    content: [
      { type: 'listItem', content: [ghost as never] },
      { type: 'listItem', content: [words('Kept')] },
    ],
  }
  expect(mainOf(pageOf(list))).toBe('<ul><li>Kept</li></ul>')
  const section = (...content: Block[]) =>
    ({ type: 'section', attrs: { tone: 'tint', padding: 'medium', width: 'text' }, content }) as Block
  expect(mainOf(pageOf(section(ghost, { type: 'heading', attrs: { level: 2, ghost: 'A heading' } })))).toBe('')
  expect(mainOf(pageOf(section(ghost, button({ target: { kind: 'file', id: PDF_FACTS.id } }))))).toContain('<section')
  // An empty line that nobody suggested is room that was wanted.
  expect(mainOf(pageOf({ type: 'paragraph' }))).toBe('<p></p>')
})

it('pages that are found by what leads to them are not in the menu by themselves', () => {
  expect(START_NAMES.filter(name => !listsItself(name))).toEqual(['offer', 'thanks'])
  expect(listsItself(undefined)).toBe(true)
})
