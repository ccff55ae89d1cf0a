import { expect, it } from 'vitest'
import fc from 'fast-check'
import { wordsOf } from '../find/fold'
import { escapeHtml } from '../page/escape'
import { markedHtml } from './marked'

const marked = (html: string, words: string) => markedHtml(html, wordsOf(words))

it('marks where words begin with what was looked for, the first by an identity', () => {
  expect(marked('<p>Kilns, a kiln</p>', 'kiln')).toEqual({ html: '<p><mark id="found">Kiln</mark>s, a <mark>kiln</mark></p>', count: 2 })
  expect(marked('<p>Émail</p>', 'email').html).toBe('<p><mark id="found">Émail</mark></p>')
  expect(marked('<p>unkiln</p>', 'kiln')).toEqual({ html: '<p>unkiln</p>', count: 0 })
  expect(marked('<p>kiln</p>', '')).toEqual({ html: '<p>kiln</p>', count: 0 })
})

it('leaves tags and references as they are', () => {
  expect(marked('<a href="/amp">fire &amp; class</a>', 'amp href class a').html).toBe(
    '<a href="/amp">fire &amp; <mark id="found">class</mark></a>',
  )
})

it('changes no letter of a text, whatever is looked for', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), (text, words) => {
      const html = escapeHtml(text)
      expect(marked(html, words).html.replace(/<\/?mark[^>]*>/g, '')).toBe(html)
    }),
  )
})
