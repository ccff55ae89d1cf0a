import fc from 'fast-check'
import { Parser } from 'htmlparser2'
import { SaxesParser } from 'saxes'
import { describe, expect, it } from 'vitest'
import { feedXml } from './catalogue/feed'
import { Tree } from './folders/folderTree'
import { askPageHtml, comeInPageHtml, gatePageHtml, type GateSight } from './gate/gatePage'
import { gateRuleSchema } from './gate/gate'
import type { LetterboxAttrs } from './letterbox/letterbox'
import { letterboxHtml } from './letterbox/letterboxHtml'
import { renderMade, renderMessage, renderPage } from './page/document'
import type { TargetFacts } from './page/placeholders'
import { resultsOf, type ShownResult } from './search/results'
import { searchPageHtml } from './search/searchPage'
import { readSearchQuery } from './search/searchQuery'
import { contentsHtml } from './see/contentsHtml'
import { PLAIN_SEE } from './see/seeAddress'
import { seePageHtml } from './see/seePage'
import type { Sight } from './see/sight'
import { flat } from './shelf/listing'
import { renderShelf } from './shelf/shelf'
import { LAYOUTS, SHELF_FACTS, SHELF_PARTS } from './shelf/shown'
import { fileItem } from './testing/items'
import { ENGLISH, NEW_SITE, PDF_FACTS, button, heading, knowing, letterbox, pageOf, shelf, shelfWriting, words } from './testing/pages'

/** What ends words, attributes, elements, scripts and comments (HTML, section 13.2.5), and what is read as one of these. */
const PIECES = ['<', '>', '"', "'", '&', '/', '=', '`', '<b>', '</p>', '</script>', '<!--', '-->', ']]>', '<img src=x onerror=alert(1)>']
const hostile = fc
  .array(fc.constantFrom(...PIECES, '&amp;', '&#60;', '&lt', 'javascript:', 'onload=', '\u2028', 'é', 'x'), { minLength: 1, maxLength: 6 })
  .map(pieces => `w${pieces.join('')}w`)

/** What stands in a document beside its words: its elements and the names of their attributes, in their order. */
function skeletonOf(html: string): string[] {
  const parts: string[] = []
  const parser = new Parser({
    onopentag: (name, attributes) => void parts.push(`<${[name, ...Object.keys(attributes)].join(' ')}>`),
    onclosetag: (name, implied) => void parts.push(`</${name}>${implied ? '?' : ''}`),
    oncomment: () => void parts.push('<!-- -->'),
    onprocessinginstruction: name => void parts.push(name),
  })
  parser.end(html)
  return parts
}

function textOf(html: string): string {
  let text = ''
  const parser = new Parser({ ontext: piece => void (text += piece) })
  parser.end(html)
  return text
}

const factsOf = (word: string): TargetFacts => ({
  ...PDF_FACTS,
  title: word,
  fileName: `${word}.pdf`,
  description: word,
  tags: [word],
  see: true,
})

function gateSight(word: string): GateSight {
  const rule = gateRuleSchema.parse({ kind: 'email' })
  return {
    gate: 'gate01',
    rule: {
      ...rule,
      ask: word,
      consent: word,
      words: { ...rule.words, before: word },
      fields: [
        { id: 'field1', kind: 'text', label: word, required: true, choices: [] },
        { id: 'field2', kind: 'choice', label: word, required: false, choices: [word, `${word} two`] },
      ],
    },
    why: 'asked',
    title: word,
    to: `/files/${word}`,
    seal: word,
    wrong: ['field1'],
    fault: 'missing',
    given: () => word,
  }
}

function searched(word: string): string {
  const tree = new Tree([{ id: 'in', parent: null, name: word }])
  const hits = [1, 2].map(number => ({
    item: fileItem({ id: `${number}`, title: word, description: word, tags: [word], folder: 'in' }),
    by: 'name' as const,
  }))
  const query = { ...readSearchQuery(new URLSearchParams()), q: word, tag: word }
  const results = resultsOf(hits, query, tree)
  const shown: ShownResult[] = [
    { item: hits[0]!.item },
    { item: hits[1]!.item, match: { by: 'inside', part: 'Page 2', passage: [word, word, word] } as NonNullable<ShownResult['match']> },
  ]
  return searchPageHtml({ results, shown, sees: () => true, behind: () => undefined, placeOf: () => word }, query, ENGLISH)
}

function seen(word: string, sight: Sight): string {
  return renderMade(
    NEW_SITE,
    {
      slug: 'see/list.pdf',
      title: word,
      description: word,
      files: [factsOf(word)],
      parts: ['downloadButton', 'downloadLink', 'heading', 'bulletList', 'table', 'fold'],
      css: '',
      write: (renderer, speech) =>
        seePageHtml(
          {
            file: factsOf(word),
            terms: [],
            sight,
            found: { parts: [{ part: word, page: 2, passage: [word, word, word] }], cut: true },
            editions: [],
            beside: { folder: word, files: [{ ...factsOf(word), id: 'other', handle: 'other.pdf' }] },
          },
          { ...PLAIN_SEE, find: word },
          renderer,
          speech,
        ),
    },
    knowing(factsOf(word)),
  )
}

const box = (word: string) => (letterbox({ label: word, text: word }) as { attrs: LetterboxAttrs }).attrs

const WRITTEN: Record<string, (word: string) => string> = {
  'a page with what can stand on it': word =>
    renderPage(
      NEW_SITE,
      {
        slug: 'x',
        title: word,
        description: word,
        document: pageOf(
          heading(word),
          words(word),
          button({ label: word, note: word, saveAs: word }),
          shelf({ source: { kind: 'files', ids: ['pdf'] } }),
        ),
      },
      knowing(factsOf(word)),
    ),
  'a message': word => renderMessage({ ...NEW_SITE, name: word }, word, word, knowing()),
  'a letterbox': word =>
    letterboxHtml(
      box(word),
      [1, 2].map(number => ({ handle: `${word}${number}`, title: word })),
      ENGLISH,
      {
        fault: { is: 'kind', name: word },
        given: () => word,
      },
    ),
  'a gate': word => gatePageHtml(gateSight(word), ENGLISH),
  'a question with one button': word =>
    askPageHtml({ title: word, detail: word, action: `/pass/${word}`, button: word, fields: { to: word } }),
  'where a message leads': word => comeInPageHtml({ action: `/pass/${word}`, email: word, short: true, least: 8 }, ENGLISH),
  'results of a search': searched,
  'a look at a page': word => seen(word, { kind: 'page', number: 2, count: 4, marks: [], words: word }),
  'a look at a table': word =>
    seen(word, {
      kind: 'contents',
      contents: {
        kind: 'sheets',
        sheets: [
          {
            name: word,
            rows: [
              [word, word],
              [word, word],
            ],
            cut: true,
          },
        ],
      },
    }),
  'a text': word => contentsHtml({ kind: 'text', text: word, cut: true }, word, 1, ENGLISH),
  'parts of a book': word => contentsHtml({ kind: 'parts', parts: [{ name: word, text: word }], cut: true }, word, 1, ENGLISH),
  'what is in a zip': word =>
    contentsHtml({ kind: 'entries', entries: [{ name: word, size: 1, locked: true }], cut: true }, word, 1, ENGLISH),
  ...Object.fromEntries(
    LAYOUTS.map(layout => [
      `a shelf as ${layout}`,
      (word: string) =>
        renderShelf(
          flat([factsOf(word)]),
          shelfWriting({ layout, zipName: word, shown: { parts: [...SHELF_PARTS], facts: [...SHELF_FACTS] } }),
        ),
    ]),
  ),
}

describe('whatever is written into it, words stay words (OWASP, Cross Site Scripting Prevention):', () => {
  it.each(Object.entries(WRITTEN))('%s', (_, write) => {
    const plain = skeletonOf(write('word'))
    expect(plain.length).toBeGreaterThan(0)
    fc.assert(
      fc.property(hostile, word => {
        const html = write(word)
        expect(skeletonOf(html)).toEqual(plain)
        expect(textOf(html)).toContain(word)
      }),
      { numRuns: 60 },
    )
  })

  it('a feed (XML 1.0, section 2.4)', () => {
    const feed = (word: string) =>
      feedXml({
        slug: 'clays',
        title: word,
        site: word,
        origin: 'https://www.marlpit.example',
        since: '2026-01-01T00:00:00.000Z',
        entries: [
          { slug: 'clays/a', title: word, summary: word, published: '2026-01-01T08:00:00.000Z', updated: '2026-01-01T08:00:00.000Z' },
        ],
      })
    const read = (xml: string) => {
      const [parts, texts]: [string[], string[]] = [[], []]
      const parser = new SaxesParser()
      parser.on('opentag', ({ name, attributes }) => void parts.push([name, ...Object.keys(attributes)].join(' ')))
      parser.on('text', text => void texts.push(text))
      parser.on('error', error => {
        throw error
      })
      parser.write(xml).close()
      return { parts, texts }
    }
    const plain = read(feed('word')).parts
    fc.assert(
      fc.property(hostile, word => {
        const { parts, texts } = read(feed(word))
        expect(parts).toEqual(plain)
        expect(texts).toContain(word)
      }),
    )
  })
})
