import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { speechOf } from '../language/speech'
import { newField, type FieldKind } from './field'
import { PLAIN_FORMAT, compareValues, faultOf, readCell, readDay, readNumber, sayValue, writeCell } from './values'

const ENGLISH = { decimal: '.', dayFirst: false } as const
const GERMAN = { decimal: ',', dayFirst: true } as const
const field = (kind: FieldKind, more = {}) => newField('f', 'Field', kind, more)
const CHOICE = {
  options: [
    { id: 'a', name: 'Stoneware' },
    { id: 'b', name: 'Porcelain' },
  ],
}

describe('a number', () => {
  // As Intl.NumberFormat (ECMA-402, CLDR) writes them in these languages.
  it.each([
    ['1,234.5', ENGLISH, 1234.5],
    ['1.234,5', GERMAN, 1234.5],
    ['£14.50', ENGLISH, 14.5],
    ['12,50 €', GERMAN, 12.5],
    ['-7', ENGLISH, -7],
    ['12.5 kg', ENGLISH, 12.5],
    ['1\u202F234,5', GERMAN, 1234.5],
    ['1’234.50', ENGLISH, 1234.5],
    ['1,23', ENGLISH, undefined],
    ['12.34.56', ENGLISH, undefined],
    ['-£7', ENGLISH, -7],
    ['EUR 12.50', ENGLISH, 12.5],
    ['1280 °C', ENGLISH, 1280],
    ['7.5 kW', ENGLISH, 7.5],
    ['.5', ENGLISH, 0.5],
    ['lots', ENGLISH, undefined],
    // As table programs and JavaScript write them (ECMA-262, Number::toString).
    ['4.00632E+12', ENGLISH, 4.00632e12],
    ['1,5E-07', GERMAN, 1.5e-7],
    ['1e+999', ENGLISH, undefined],
    // An article, not 120,000.
    ['12E4', ENGLISH, undefined],
    // Words with a number in them are none.
    ['Price of 12.5 kg', ENGLISH, undefined],
    ['Lot 5', ENGLISH, undefined],
    ['', ENGLISH, undefined],
  ])('%s is read', (written, format, value) => {
    expect(readNumber(written, format)).toBe(value)
  })

  it('is read as Intl writes it, in every language of a site', () => {
    fc.assert(
      fc.property(
        fc.double({ min: -1e9, max: 1e9, noNaN: true }),
        fc.constantFrom('en-GB', 'de-DE', 'fr-FR', 'es-ES', 'pl-PL'),
        (value, locale) => {
          const rounded = Math.round(value * 100) / 100
          const written = new Intl.NumberFormat(locale, { minimumFractionDigits: 2, maximumFractionDigits: 2 })
            .format(rounded)
            .replace('−', '-')
          const decimal = new Intl.NumberFormat(locale).formatToParts(1.5).find(({ type }) => type === 'decimal')!.value as '.' | ','
          expect(readNumber(written, { decimal })).toBeCloseTo(rounded, 6)
        },
      ),
    )
  })
})

describe('a day', () => {
  it.each([
    ['2027-01-31', ENGLISH, '2027-01-31'],
    ['31.01.2027', ENGLISH, '2027-01-31'],
    ['3/4/2027', ENGLISH, '2027-03-04'],
    ['3/4/2027', GERMAN, '2027-04-03'],
    ['2027-01-31T10:00:00Z', ENGLISH, '2027-01-31'],
    ['30.02.2027', GERMAN, undefined],
    ['29.02.2028', GERMAN, '2028-02-29'],
    ['tomorrow', GERMAN, undefined],
  ])('%s is read', (written, format, day) => {
    expect(readDay(written, format)).toBe(day)
  })
})

describe('a cell', () => {
  it.each<[FieldKind, object, string, unknown]>([
    ['text', {}, ' two\n lines ', 'two lines'],
    ['longText', {}, 'one\n\ntwo', 'one\n\ntwo'],
    ['yesNo', {}, 'Ja', true],
    ['yesNo', {}, 'no', false],
    ['choice', CHOICE, 'PORCELAIN', 'b'],
    ['choices', CHOICE, 'porcelain; stoneware', ['b', 'a']],
    ['link', {}, 'www.clay.example/a', 'https://www.clay.example/a'],
    ['email', {}, 'yard@marlpit.example', 'yard@marlpit.example'],
    ['phone', {}, '+44 20 7946 0000', '+44 20 7946 0000'],
  ])('of %s %o reads “%s”', (kind, more, written, value) => {
    expect(readCell(field(kind, more), written, PLAIN_FORMAT)).toEqual({ value })
  })

  it.each<[FieldKind, object, string]>([
    ['choice', CHOICE, 'bronze'],
    ['yesNo', {}, 'perhaps'],
    ['link', {}, 'javascript:alert(1)'],
    ['email', {}, 'nobody'],
    ['file', {}, 'missing.pdf'],
    ['date', {}, 'soon'],
  ])('of %s refuses “%s” %s', (kind, more, written) => {
    expect(readCell(field(kind, more), written, PLAIN_FORMAT)).toHaveProperty('fault')
  })

  it('empty is nothing, whatever the field', () => {
    for (const kind of ['text', 'number', 'date', 'choice', 'file'] as const) expect(readCell(field(kind), '  ', PLAIN_FORMAT)).toEqual({})
  })

  it('finds files by the names that are written', () => {
    const fileNamed = (name: string) => ({ 'a.pdf': 'id1', 'b.pdf': 'id2' })[name]
    expect(readCell(field('file'), 'a.pdf', PLAIN_FORMAT, { fileNamed })).toEqual({ value: 'id1' })
    expect(readCell(field('files'), 'a.pdf; b.pdf', PLAIN_FORMAT, { fileNamed })).toEqual({ value: ['id1', 'id2'] })
  })

  it('of several is read again as it is written, whatever their names', () => {
    const options = [
      { id: 'a', name: 'Red, iron-rich' },
      { id: 'b', name: 'Buff; "toasted"' },
      { id: 'c', name: 'White' },
    ]
    const choices = field('choices', { options })
    expect(readCell(choices, writeCell(choices, ['b', 'a', 'c']), PLAIN_FORMAT)).toEqual({ value: ['b', 'a', 'c'] })
    const names: Record<string, string> = { id1: 'Kilns; their care', id2: 'Terms, and more' }
    const fileNamed = (name: string) => Object.keys(names).find(id => names[id] === name)
    const files = field('files')
    expect(
      readCell(
        files,
        writeCell(files, ['id1', 'id2'], id => names[id]!),
        PLAIN_FORMAT,
        { fileNamed },
      ),
    ).toEqual({ value: ['id1', 'id2'] })
  })

  it('is read again as it is written', () => {
    const kinds = {
      text: fc.constant('Crank, coarse'),
      number: fc.double({ noNaN: true, noDefaultInfinity: true }),
      yesNo: fc.boolean(),
      date: fc.constant('2027-02-28'),
    }
    for (const [kind, values] of Object.entries(kinds))
      fc.assert(
        fc.property(values as fc.Arbitrary<string | number | boolean>, value => {
          const written = writeCell(field(kind as FieldKind), value)
          const read = readCell(field(kind as FieldKind), written, PLAIN_FORMAT)
          expect(read).toEqual({ value: Object.is(value, -0) ? 0 : value })
        }),
      )
  })
})

it('what a field cannot hold is refused, by what it holds', () => {
  expect(faultOf(field('number'), 'much' as never)).toBeDefined()
  expect(faultOf(field('number'), Infinity)).toBeDefined()
  expect(faultOf(field('choice', CHOICE), 'c')).toBeDefined()
  expect(faultOf(field('choices', CHOICE), ['a', 'b'])).toBeUndefined()
  expect(faultOf(field('file'), '../etc/passwd')).toBeDefined()
  expect(faultOf(field('link'), 'javascript:alert(1)')).toBeDefined()
})

it('what visitors read is in the site’s language', () => {
  const [en, de] = [speechOf('en'), speechOf('de')]
  expect(sayValue(field('money', { currency: 'EUR' }), 12.5, de)).toBe('12,50\u00A0€')
  expect(sayValue(field('number', { unit: 'kg', decimals: 1 }), 12, en)).toBe('12.0\u00A0kg')
  expect(sayValue(field('yesNo'), true, de)).toBe('Ja')
  expect(sayValue(field('choices', CHOICE), ['b', 'a'], en)).toBe('Porcelain, Stoneware')
})

it('choices sort by their own order, words by the rules of the language, and what is empty comes last', () => {
  const speech = speechOf('de')
  const sorted = (kind: FieldKind, more: object, values: (string | number | undefined)[]) =>
    [...values].sort(compareValues(field(kind, more), speech))
  expect(sorted('choice', CHOICE, ['b', 'a'])).toEqual(['a', 'b'])
  expect(sorted('number', {}, [10, undefined, 9])).toEqual([9, 10, undefined])
  // By the collation of CLDR (German: ä beside a), with numbers by their value.
  const words = ['Zinn', 'Äther', 'Ton 10', 'Ton 9', 'Asche']
  expect(sorted('text', {}, words)).toEqual([...words].sort(new Intl.Collator('de', { numeric: true }).compare))
})
