import { expect, it } from 'vitest'
import { ENGLISH, PDF_FACTS, ZIP_FACTS, button, knowing, letterbox, pageOf } from '../testing/pages'
import { pageRenderer } from '../page/html'
import { pageDocumentSchema } from '../page/schema'
import { acceptOf, bytesInAll, takes, type LetterboxAttrs } from './letterbox'
import { letterboxHtml } from './letterboxHtml'
import { receiptHtml, receiptWords } from './receiptPage'

const attrsOf = (given: Partial<LetterboxAttrs> = {}) => (letterbox(given) as { attrs: LetterboxAttrs }).attrs
const namesIn = (html: string) => [...html.matchAll(/ name="(\w+)"/g)].map(([, name]) => name)

it('asks who somebody is before the files, so that this is known when they come (RFC 7578, section 5.2: in the order of the form)', () => {
  const html = letterboxHtml(attrsOf(), [], ENGLISH)
  expect(namesIn(html)).toEqual(['name', 'email', 'words', 'website', 'files'])
  expect(html).toContain('method="post" enctype="multipart/form-data"')
})

it('lets nothing of what is written out of its words', () => {
  const evil = '"><script>alert(1)</script>'
  const html = letterboxHtml(attrsOf({ label: evil, text: `${evil}\n${evil}` }), [{ handle: evil, title: evil }], ENGLISH, {
    fault: { is: 'kind', name: evil },
    given: () => evil,
  })
  expect(html).not.toContain('<script')
  expect(html.match(/&quot;&gt;&lt;script&gt;/g)!.length).toBeGreaterThan(5)
})

it('says which kinds it takes, and has browsers offer them first', () => {
  expect(acceptOf(['picture', 'sound'])).toBe('image/*,audio/*')
  // What has no names of its own cannot be offered: then everything is.
  expect(acceptOf(['picture', 'other'])).toBe('')
  expect(acceptOf([])).toBe('')
  expect([takes({ kinds: [] }, 'film'), takes({ kinds: ['sheet'] }, 'film'), takes({ kinds: ['film'] }, 'film')]).toEqual([
    true,
    false,
    true,
  ])
  expect(letterboxHtml(attrsOf({ kinds: ['document'], most: 1, largest: 3 }), [], ENGLISH)).toContain('Documents. One file, at most 3 MB')
  expect(bytesInAll({ most: 2, largest: 3 })).toBeGreaterThan(6_000_000)
})

it('asks which of the files of its page comes back where there are several, and knows it where there is one', () => {
  const render = (...content: Parameters<typeof pageOf>) =>
    pageRenderer(knowing(PDF_FACTS, ZIP_FACTS)).main('Page', pageOf(...content, letterbox()).content)
  const one = render(button(), button({ placement: 'bbbbbbbbbb' }))
  expect(one).toContain('<input type="hidden" name="answers" value="list.pdf">')
  const two = render(button(), button({ placement: 'bbbbbbbbbb', target: { kind: 'file', id: 'zip' } }))
  expect([...two.matchAll(/<option value="([^"]*)"/g)].map(([, value]) => value)).toEqual(['', 'list.pdf', 'pictures.zip'])
  expect(render()).not.toContain('answers')
})

it('is refused where it would take nothing, or everything', () => {
  const valid = (given: Partial<LetterboxAttrs>) => pageDocumentSchema.safeParse(pageOf(letterbox(given))).success
  expect(valid({})).toBe(true)
  for (const wrong of [
    { most: 0 },
    { most: 21 },
    { largest: 0 },
    { largest: 2001 },
    { kinds: ['nothing' as 'film'] },
    { placement: '../x' },
  ])
    expect([wrong, valid(wrong)]).toEqual([wrong, false])
})

it('a receipt says number, names, sizes and whole checksums, on the page and in the message', () => {
  const files = [{ fileName: '<b>.pdf', size: 2200, sha256: 'a'.repeat(64) }]
  const html = receiptHtml({ number: 1234, at: '2026-11-29T10:00:00Z', email: 'a@b.example', files, written: true }, ENGLISH)
  const words = receiptWords({ number: 1234, files }, 'Marlpit', ENGLISH)
  for (const held of ['1234', 'a'.repeat(64), '2.2 kB']) {
    expect(html).toContain(held)
    expect(words).toContain(held)
  }
  expect(html).toContain('&lt;b&gt;.pdf')
  expect(words).toContain('<b>.pdf')
})
