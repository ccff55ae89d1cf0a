import { describe, expect, it } from 'vitest'
import { fold, wordsOf } from './fold'
import { passageIn } from './passage'
import { isSlipOf } from './typing'

describe('folding (Unicode Standard Annex 15, NFKD without marks)', () => {
  it.each([
    ['Café', 'cafe'],
    ['STRASSE', 'strasse'],
    ['Straße', 'strasse'],
    ['Ærø', 'aero'],
    ['ﬁle', 'file'],
    ['Łódź', 'lodz'],
    ['ＡＢＣ', 'abc'],
    ['naïve', 'naive'],
  ])('%s', (text, folded) => expect(fold(text)).toBe(folded))

  it('finds words in any script, and leaves out runs nobody types', () => {
    expect(wordsOf('Clay-body, 12.5 kg; Ton № 3, глина')).toEqual(['clay', 'body', '12', '5', 'kg', 'ton', 'no', '3', 'глина'])
    expect(wordsOf('x'.repeat(61))).toEqual([])
  })
})

describe('slips of typing (optimal string alignment distance, worked by hand)', () => {
  it.each([
    ['glaze', 'glaze', true],
    ['glzae', 'glaze', true],
    ['glase', 'glaze', true],
    ['glae', 'glaze', true],
    ['gglaze', 'glaze', true],
    ['lgaze', 'glaze', true],
    ['thermocuple', 'thermocouple', true],
    ['thremocuple', 'thermocouple', true],
    ['kln', 'kiln', false],
    ['klin', 'kiln', true],
    ['brick', 'glaze', false],
    ['glzea', 'glaze', false],
    ['manaul', 'manuals', true],
  ])('%s for %s: %s', (typed, word, meant) => expect(isSlipOf(typed, word)).toBe(meant))
})

describe('the passage around words', () => {
  it('marks every other piece, from the beginning of a word on', () => {
    const text = `${'Words before. '.repeat(9)}The thermocouple of the kiln is broken. ${'Words after. '.repeat(20)}`
    const passage = passageIn(text, ['thermo', 'kiln'])!
    expect(passage.filter((_, index) => index % 2)).toEqual(['thermo', 'kiln'])
    expect(passage[0]).toMatch(/^…\S/)
    expect(passage.join('').length).toBeLessThan(200)
    expect(text).toContain(passage.join('').replaceAll('…', ''))
  })
  it('chooses the place with most of the words', () =>
    expect(passageIn(`kiln ${'x '.repeat(200)} the kiln shelf`, ['kiln', 'shelf'])!.join('')).toContain('kiln shelf'))
  it('marks folded words whole where folding changes their length', () =>
    expect(passageIn('Die Straße', ['strass'])).toEqual(['Die ', 'Straße', '']))
  it('marks the right letters where foldings outweigh each other', () =>
    expect(passageIn('Strasse? Straße, cafe\u0301 kiln', ['kiln'])).toEqual(['Strasse? Straße, cafe\u0301 ', 'kiln', '']))
  it('does not find a word inside another', () => expect(passageIn('Rekiln, the kilns', ['kiln'])).toEqual(['Rekiln, the ', 'kiln', 's']))
  it('is none where nothing stands', () => expect(passageIn('clay', ['kiln'])).toBeUndefined())
})
