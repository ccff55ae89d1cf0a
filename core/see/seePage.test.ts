import { describe, expect, it } from 'vitest'
import { wordsOf } from '../find/fold'
import { problemsOf } from '../testing/html'
import { ENGLISH, NEW_SITE, PDF_FACTS, ZIP_FACTS, PLAIN_SHELVES } from '../testing/pages'
import { flat } from '../shelf/listing'
import { renderMade } from '../page/document'
import type { PageFacts } from '../page/html'
import { PLAIN_SEE, type SeeQuery } from './seeAddress'
import { SEE_CSS } from './seeCss'
import { seePageHtml } from './seePage'
import type { SeeFacts, Sight } from './sight'

const known: PageFacts = {
  speech: ENGLISH,
  file: id => (id === 'pdf' ? PDF_FACTS : undefined),
  page: () => undefined,
  signpost: () => undefined,
  shelf: () => flat([]),
  look: () => undefined,
  ...PLAIN_SHELVES,
}
const PAGE: Sight = {
  kind: 'page',
  number: 2,
  count: 4,
  picture: { width: 1440, height: 2036 },
  marks: [{ x: 0.1, y: 0.2, width: 0.05, height: 0.01 }],
  words: 'Kilns & <glazes>',
}
function render(sight: Sight, query: Partial<SeeQuery> = {}, more: Partial<SeeFacts> = {}): string {
  const facts: SeeFacts = {
    file: PDF_FACTS,
    terms: wordsOf(query.find ?? ''),
    sight,
    found: { parts: [], cut: false },
    editions: [],
    ...more,
  }
  return renderMade(
    NEW_SITE,
    {
      slug: 'see/list.pdf',
      title: 'Price list',
      description: '',
      files: [PDF_FACTS],
      parts: ['downloadButton', 'downloadLink', 'heading', 'bulletList', 'table', 'fold'],
      css: SEE_CSS,
      write: (renderer, speech) => seePageHtml(facts, { ...PLAIN_SEE, ...query }, renderer, speech),
    },
    known,
  )
}

describe('a look at a page of a document', () => {
  it('is a picture in the width asked for with its words, and leads to its neighbours', async () => {
    const html = render(PAGE)
    expect(html).toContain('/pictures/list.pdf?width=640&amp;page=2&amp;v=aaaaaaaa 640w')
    expect(html).toMatch(/<img[^>]+width="1440" height="2036" alt="Page 2 of Price list; its words are below"/)
    expect(html).toContain('Kilns &amp; &lt;glazes&gt;')
    expect(html).toContain('rel="prev" href="/see/list.pdf?page=1"')
    expect(html).toContain('rel="next" href="/see/list.pdf?page=3"')
    expect(await problemsOf(html)).toEqual([])
  })

  it('marks what was looked for on the picture and in its words, and lists where it stands', async () => {
    const parts = [{ part: 'Page 2', page: 2, passage: ['', 'Kilns', ' & <glazes>'] }]
    const html = render(PAGE, { find: 'kilns', at: 'aaaaaaaaaa' }, { found: { parts, cut: false } })
    expect(html).toContain('<rect x="144" y="407" width="72" height="20"/>')
    expect(html).toContain('<mark id="found">Kilns</mark> &amp; &lt;glazes&gt;')
    expect(html).toContain('href="/see/list.pdf?page=2&amp;find=kilns&amp;at=aaaaaaaaaa" aria-current="page">Page 2</a>')
    // The download is counted from where the visitor came.
    expect(html).toContain('href="/files/list.pdf?save&amp;at=aaaaaaaaaa"')
    expect(await problemsOf(html)).toEqual([])
  })

  it('says where there is nothing to read out, or to find', async () => {
    const html = render({ ...PAGE, words: '', marks: [], picture: undefined }, { find: 'kilns' })
    expect(html).toContain('Nothing on this page can be read out')
    expect(html).toContain('“kilns” is not in this file.')
    expect(html).toContain('This page cannot be drawn here.')
    expect(await problemsOf(html)).toEqual([])
  })
})

it.each<[string, Sight]>([
  [
    'a table',
    {
      kind: 'contents',
      contents: {
        kind: 'sheets',
        sheets: [
          {
            name: 'A',
            rows: [
              ['Name', ''],
              ['<b>', '1'],
            ],
            cut: true,
          },
          { name: 'B & C', rows: [], cut: false },
        ],
      },
    },
  ],
  ['a document', { kind: 'contents', contents: { kind: 'document', html: '<h2>One</h2><p>Two</p>' } }],
  ['a text', { kind: 'contents', contents: { kind: 'text', text: '<script>', cut: true } }],
  ['an archive', { kind: 'contents', contents: { kind: 'entries', entries: [{ name: '../<x>', size: 1000, locked: true }], cut: false } }],
  [
    'slides, by their words',
    { kind: 'contents', contents: { kind: 'parts', parts: [{ name: 'Slide <1>', text: 'First <words>' }], cut: true } },
  ],
  ['a sound', { kind: 'sound' }],
  ['a film', { kind: 'film' }],
  ['a picture', { kind: 'picture' }],
  ['what has no view', { kind: 'none' }],
])('a look at %s is what a validator calls HTML, and runs nothing', async (_, sight) => {
  const html = render(
    sight,
    { sheet: 1 },
    { beside: { folder: 'Lists', files: [ZIP_FACTS] }, editions: [{ number: 1, created: '2026-01-31T08:00:00.000Z' }] },
  )
  expect(await problemsOf(html)).toEqual([])
  expect(html).not.toMatch(/<script(?! type="application\/ld\+json")|<b>|<words>|<x>/)
  expect(html).toContain('Also in Lists')
  expect(html).toContain('/files/list.pdf?save&amp;edition=1')
})
