import { describe, expect, it } from 'vitest'
import { newCard } from '../page/insert'
import { flat } from '../shelf/listing'
import { renderMessage, renderPage } from '../page/document'
import type { Block } from '../page/schema'
import { Problem } from '../problem'
import { NEW_SITE, PDF_FACTS, ZIP_FACTS, button, pageOf, shelf, PLAIN_SHELVES } from '../testing/pages'
import { LANGUAGES, LANGUAGE_CODES, type Language } from './languages'
import { speechOf, type Speech } from './speech'
import { VisitorProblem, told } from './visitorProblem'
import { WORD_KEYS, ownWordsSchema } from './words/ownWords'
import { WORDS, type WordKey } from './words/words'

const formsOf = (language: Language, key: WordKey): string[] => {
  const word = WORDS[language][key]
  return typeof word === 'string' ? [word] : Object.values(word)
}
const namesIn = (text: string) => [...text.matchAll(/\{\w+\}/g)].map(([name]) => name).sort()

/** Words that are the same in two languages: French calls pages "pages", Italian a file "file", and most have taken over "menu". */
const TAKEN: Partial<Record<Language | 'all', string[]>> = {
  all: ['menu'],
  de: ['name', 'sortName', 'kindFilm', 'downloadsColumn'],
  fr: ['pages', 'pagesColumn', 'pageCount', 'pageNumber', 'toPage', 'kindDocument', 'kindFilm'],
  es: ['no'],
  it: ['fileCount', 'no'],
  nl: ['kindFilm', 'downloadsColumn'],
  pl: ['folder', 'kindFilm'],
}

describe.each(LANGUAGE_CODES)('the words of %s', language => {
  it('say all there is, each with the same things put in', () => {
    for (const key of WORD_KEYS)
      for (const form of formsOf(language, key)) {
        expect(form.trim(), key).not.toBe('')
        // A single thing may be said without its number.
        const expected = namesIn(formsOf('en', key).at(-1)!)
        expect([expected, expected.filter(name => name !== '{count}')].map(String), `${key}: ${form}`).toContain(String(namesIn(form)))
      }
  })

  // Unicode CLDR, plural rules, as Intl has them.
  it('have a form for each plural category of the language, and no other', () => {
    const { pluralCategories } = new Intl.PluralRules(LANGUAGES[language].locale).resolvedOptions()
    for (const key of ['all', 'seeAll', 'fileCount', 'pageCount', 'downloadCount'] as const)
      expect(Object.keys(WORDS[language][key]).sort(), key).toEqual([...pluralCategories].sort())
  })

  it('are not those of English, left where they were', () => {
    if (language === 'en') return
    const same = WORD_KEYS.filter(key => formsOf(language, key)[0] === formsOf('en', key)[0])
    expect(same.filter(key => ![...TAKEN.all!, ...(TAKEN[language] ?? [])].includes(key))).toEqual([])
  })
})

describe('a site speaks', () => {
  // Dates, decimal signs and plurals as CLDR has them; "ko" for kilobytes is common practice in French.
  it.each<[Language, (speech: Speech) => string, string]>([
    ['en', speech => speech.size(1_400_000), '1.4 MB'],
    ['de', speech => speech.size(1_400_000), '1,4 MB'],
    ['fr', speech => speech.size(240_113), '240 ko'],
    ['fr', speech => speech.size(12), '12 o'],
    ['pl', speech => speech.say('pageCount', { count: 1 }), '1 strona'],
    ['pl', speech => speech.say('pageCount', { count: 22 }), '22 strony'],
    ['pl', speech => speech.say('pageCount', { count: 25 }), '25 stron'],
    ['fr', speech => speech.say('pageCount', { count: 0 }), '0 page'],
    ['de', speech => speech.say('downloadCount', { count: 1234 }), '1.234-mal heruntergeladen'],
    ['de', speech => speech.day('2026-11-28T10:00:00Z'), '28. Nov. 2026'],
    ['es', speech => speech.day('2026-11-28T10:00:00Z'), '28 nov 2026'],
    ['en', speech => speech.day('2026-11-28T10:00:00Z'), '28 Nov 2026'],
  ])('%s: %s', (language, say, expected) => expect(say(speechOf(language))).toBe(expected))

  it('in words of its owner, what is put in included', () => {
    const speech = speechOf('de', { edition: 'Fassung {number}', pageCount: '{count} S.' })
    expect(speech.say('edition', { number: 3 })).toBe('Fassung 3')
    expect(speech.say('pageCount', { count: 1 })).toBe('1 S.')
    expect(speech.say('home')).toBe('Startseite')
    expect(ownWordsSchema.safeParse({ nothing: 'x' }).success).toBe(false)
    expect(ownWordsSchema.safeParse({ home: '   ' }).success).toBe(false)
  })

  it('tells what cannot be had in its language, in English as it was written', () => {
    const german = speechOf('de')
    expect(told(new VisitorProblem(410, 'withdrawn'), german).title).toBe('Diese Datei wurde zurückgezogen.')
    expect(told(new Problem(405, 'Files can only be read.', 'Use GET.'), german).title).toBe('Das ging nicht.')
    expect(told(new Problem(500, 'Oh', 'Well.'), german).title).toBe('Hier ist etwas schiefgegangen.')
    expect(told(new Problem(405, 'Files can only be read.', 'Use GET.'), speechOf('en')).title).toBe('Files can only be read.')
  })
})

// A fixed word that is not in the list would be found here: every one is said as a number, and no letter is left.
describe('a published page', () => {
  const numbered = Object.fromEntries(WORD_KEYS.map((key, index) => [key, `${1000 + index}`]))
  const speech = speechOf('en', numbered)
  const known = {
    file: (id: string) => (id === 'pdf' ? { ...PDF_FACTS, title: '1', description: '' } : { ...ZIP_FACTS, title: '2' }),
    page: () => ({ slug: '3', title: '3' }),
    signpost: () => undefined,
    shelf: () => ({
      files: [{ ...PDF_FACTS, title: '1' }],
      folders: [{ id: 'folder', name: '6', ...flat([{ ...ZIP_FACTS, title: '2' }]) }],
    }),
    look: () => undefined,
    ...PLAIN_SHELVES,
    speech,
  }
  const site = { ...NEW_SITE, name: '4', menu: [{ id: 'h', slug: '', title: '5' }] }
  const card: Block = { type: 'fileCard', attrs: { ...newCard({ kind: 'file', id: 'pdf' }), label: '' } }
  const visible = (html: string) =>
    html
      .replace(/<(style|script|title)[\s\S]*?<\/\1>/g, '')
      .replace(/<[^>]*>/g, match => ` ${[...match.matchAll(/(?:aria-label|alt|title)="([^"]*)"/g)].map(([, text]) => text).join(' ')} `)
      .replace(/\b(?:PDF|ZIP|kB|MB)\b/g, '')

  it('says nothing that is not in the list', () => {
    const everything = pageOf(
      button({ label: '', note: '{type}, {size}, {pages}, {edition}, {downloads}', placement: 'aaaaaaaaaa' }),
      shelf({ placement: 'bbbbbbbbbb' }),
      card,
    )
    const html = renderPage(site, { slug: '6', title: '6', description: '', document: everything }, known)
    expect(visible(html)).not.toMatch(/\p{L}/u)
    for (const key of ['pages', 'home', 'newTab', 'choose', 'ticked', 'all', 'pageCount', 'edition', 'downloadCount'] as const)
      expect(html, key).toContain(numbered[key])
    expect(visible(renderMessage(site, '7', '8', known))).not.toMatch(/\p{L}/u)
  })

  it('is in the language it says it is', () => {
    const html = renderPage(
      site,
      { slug: '6', title: '6', description: '', document: pageOf(shelf()) },
      { ...known, speech: speechOf('pt') },
    )
    expect(html).toContain('<html lang="pt">')
    expect(html).toContain('Os ficheiros assinalados num zip')
  })
})
