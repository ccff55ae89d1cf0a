import { describe, expect, it } from 'vitest'
import { fold, wordsOf } from './fold'
import { questionFor, termsOf } from './question'
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

describe('scripts without spaces between words', () => {
  it('are taken in twos, which find what stands anywhere in a run', () => {
    expect(wordsOf('K60の釉薬')).toEqual(['k60', 'の釉', '釉薬', '薬'])
    // What is looked for has the pairs of what it stands in, or their beginnings.
    const inText = wordsOf('新しい釉薬の調合は、こちら')
    for (const asked of ['釉薬', '調合', '薬', 'こちら']) {
      for (const pair of wordsOf(asked))
        expect(
          inText.some(word => word.startsWith(pair)),
          pair,
        ).toBe(true)
    }
    expect(wordsOf('調薬').every(pair => inText.some(word => word.startsWith(pair)))).toBe(false)
    expect(wordsOf('เตาเผา').length).toBeGreaterThan(3)
    expect(wordsOf('字'.repeat(200))).toHaveLength(200)
  })

  it.each([
    ['新しい釉薬の調合', '釉薬', ['釉薬']],
    ['釉薬調合と釉薬', '釉薬調合', ['釉薬調合', '釉薬']],
    ['Straße と 釉薬の', '釉薬', ['釉薬']],
    ['คู่มือเตาเผาไฟฟ้า', 'เตาเผา', ['เตาเผา']],
    ['ガラス', 'カラス', ['ガラス']],
  ])('are marked in %s', (text, asked, marked) => {
    const passage = passageIn(text, termsOf(questionFor(asked)))!
    expect(passage.filter((_, index) => index % 2)).toEqual(marked)
    expect(passage.join('')).toBe(text)
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
  it('cuts no character in two', () => {
    for (let shift = 0; shift < 4; shift++) {
      const pots = '🏺'.repeat(200)
      const passage = passageIn(`${'x'.repeat(shift)} ${pots} kiln ${pots}`, ['kiln'])!
      expect(passage.every(piece => piece.isWellFormed())).toBe(true)
      expect(passage[1]).toBe('kiln')
    }
  })
  it('does not find a word inside another', () => expect(passageIn('Rekiln, the kilns', ['kiln'])).toEqual(['Rekiln, the ', 'kiln', 's']))
  it('is none where nothing stands', () => expect(passageIn('clay', ['kiln'])).toBeUndefined())
})
