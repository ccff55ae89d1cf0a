import { expect, it } from 'vitest'
import { LANGUAGE_CODES } from '../language/languages'
import { STEMS } from '../language/stems'
import { questionFor, saysSomething, termsOf } from './question'

it('asks for each word as it stands, and by its stem', () => {
  expect(questionFor('Kilns and glazes')).toEqual([['kilns'], ['and'], ['glazes']])
  expect(questionFor('Kilns, glazes!', STEMS.en)).toEqual([
    ['kilns', 'kiln'],
    ['glazes', 'glaze'],
  ])
  // From the vocabulary that comes with the Snowball algorithms, from memory.
  expect(questionFor('Glasuren', STEMS.de)).toEqual([['glasuren', 'glasur']])
  expect(questionFor('Émaux', STEMS.fr)).toEqual([['emaux', 'emal']])
  expect(questionFor('K60 釉薬', STEMS.en)).toEqual([['k60'], ['釉薬']])
})

it('takes anything, in every language', () => {
  for (const language of LANGUAGE_CODES)
    for (const q of ['', ' ', "'; drop table texts; --", '\\d+(', '\0', 'é', 'x'.repeat(200), '字'.repeat(200)])
      expect(
        termsOf(questionFor(q, STEMS[language])).every(term => /^[\p{L}\p{N}]+$/u.test(term)),
        `${language} ${q}`,
      ).toBe(true)
})

it('one letter says nothing, but for scripts whose letters are words', () => {
  expect(['a', 'a b', '', '釉', 'ab'].map(q => saysSomething(questionFor(q)))).toEqual([false, false, false, true, true])
})
