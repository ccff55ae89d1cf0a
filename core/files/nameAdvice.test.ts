import { describe, expect, it } from 'vitest'
import { dateIn, monthNamed, nameAdvice, subjectOf } from './nameAdvice'

const PDF = 'application/pdf'
const better = (fileName: string, dated = '2026-11-02', oftenIssued = false) =>
  nameAdvice({ fileName, mediaType: PDF, dated, oftenIssued })?.better

describe('a better name (common practice: year and month, the day if issued more often, never "latest")', () => {
  it.each<[string, string | undefined]>([
    ['price list latest.pdf', 'price-list-2026-11.pdf'],
    ['Price List FINAL (2).PDF', 'price-list-2026-11.pdf'],
    ['price-list-final-final.pdf', 'price-list-2026-11.pdf'],
    ['price list - Copy.pdf', 'price-list-2026-11.pdf'],
    ['Copy of price list.pdf', 'price-list-2026-11.pdf'],
    ['newsletter.pdf', 'newsletter-2026-11.pdf'],
    ['price-list-v2.1.pdf', 'price-list-2026-11.pdf'],
    ['manual rev3 2026-09.pdf', 'manual-2026-09.pdf'],
    ['price-list-05-11-26.pdf', 'price-list-2026-11.pdf'],
    ['price-list-25-11-2026 new.pdf', 'price-list-2026-11-25.pdf'],
    ['timetable january 2027 latest.pdf', 'timetable-2027-01.pdf'],
    ['latest.pdf', 'document-2026-11.pdf'],
    ['price-list-2026-11.pdf', undefined],
    ['price-list-2026-11-20.pdf', undefined],
    ['timetable winter 2027.pdf', undefined],
  ])('%s: %s', (name, expected) => expect(better(name)).toBe(expected))

  it('has the day where it is issued more than once a month', () =>
    expect(better('price list.pdf', '2026-11-20', true)).toBe('price-list-2026-11-20.pdf'))
  it('asks no date of a picture, only a name that lasts', () => {
    const picture = (fileName: string) => nameAdvice({ fileName, mediaType: 'image/png', dated: '2026-11-02' })
    expect(picture('celadon.png')).toBeUndefined()
    expect(picture('celadon final.png')).toMatchObject({ better: 'celadon.png', mild: false })
  })
  it('says why, each in a sentence, and is mild where only a date is missing', () => {
    expect(nameAdvice({ fileName: 'price list new v2.pdf', mediaType: PDF, dated: '2026-11-02' })!.reasons).toEqual([
      '“v2” counts versions; visitors understand a date.',
      '“new” will not be true for long.',
      'It has no date: a visitor with two of them cannot tell which is newer.',
    ])
    expect(nameAdvice({ fileName: 'list.pdf', mediaType: PDF, dated: '2026-11-02' })!.mild).toBe(true)
  })
  it('keeps names that only look like it', () => {
    expect(better('renewal-2026-11.pdf')).toBeUndefined()
    expect(better('reviewers-2026-11.pdf')).toBeUndefined()
    expect(better('finalists-2026-11.pdf')).toBeUndefined()
    expect(better('test tiles 2026-11.pdf')).toBeUndefined()
    expect(better('tiles test 2.pdf')).toBe('tiles-2026-11.pdf')
  })
})

describe('dates in names (ISO 8601 is read as such; else the order must be certain)', () => {
  it.each<[string, string | undefined, boolean | undefined]>([
    ['list 2026-11-02', '2026-11-02', false],
    ['list 20261102', '2026-11-02', false],
    ['list 2026-11', '2026-11', false],
    ['list 31.12.2026', '2026-12-31', false],
    ['list 12-31-2026', '2026-12-31', false],
    ['list 02-11-2026', undefined, true],
    ['list 11.11.2026', '2026-11-11', false],
    ['list nov 2026', '2026-11', false],
    ['list 2026', '2026', false],
    ['list 2026-13-40', '2026', false],
  ])('%s: %s', (stem, iso, ambiguous) => expect(dateIn(stem)).toMatchObject({ iso, ambiguous }))
  it('are none in other numbers', () => expect(dateIn('K60 part 12')).toBeUndefined())
})

it('the subject of a name is what its editions share', () => {
  expect(['price-list-2026-11.pdf', 'Price List (latest).pdf', 'price_list v2.pdf', 'Price list 02.11.2026.pdf'].map(subjectOf)).toEqual(
    Array.from({ length: 4 }, () => 'price-list'),
  )
})

it('a loose word is taken out where it stands alone, and nowhere else', () => {
  expect(subjectOf('newport new.pdf')).toBe('newport')
  expect(subjectOf('Renewal now NEW final.pdf')).toBe('renewal')
})

it('the month a text names is the only one it names', () => {
  expect([
    monthNamed('Price list\nNovember 2026'),
    monthNamed('from May 2026 to June 2026'),
    monthNamed('maybe 2026'),
    monthNamed('NOVEMBER 2026 and November 2026'),
  ]).toEqual(['2026-11', undefined, undefined, '2026-11'])
})
