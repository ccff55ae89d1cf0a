import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { outdatedIn } from './dateWords'

describe('words with an older date', () => {
  it.each([
    ['Price list, October 2026', '2026-11', 'Price list, November 2026'],
    ['price list oct 2026', '2026-11-20', 'price list nov 2026'],
    ['Dates from May 2026 on', '2026-06', 'Dates from June 2026 on'],
    ['List 2026-09', '2026-11-20', 'List 2026-11'],
    ['List 2026-11-13', '2026-11-20', 'List 2026-11-20'],
    ['List 20261113', '2026-11-20', 'List 20261120'],
    ['As of 13.11.2026', '2026-11-20', 'As of 20.11.2026'],
    ['Summer 2025', '2026-11', 'Summer 2026'],
  ])('%s, with a file of %s', (text, dated, mended) => {
    expect(outdatedIn(text, dated)?.mended).toBe(mended)
  })

  it.each([
    ['Price list', '2026-11'],
    ['Price list, November 2026', '2026-11'],
    ['Price list, December 2026', '2026-11'],
    ['Winter 2027', '2026-11'],
    // The file says no more than its year: October may be right.
    ['Price list, October 2026', '2026'],
    // Day and month, or month and day.
    ['As of 03/04/2026', '2026-11-20'],
  ])('says nothing of %s, with a file of %s', (text, dated) => {
    expect(outdatedIn(text, dated)).toBeUndefined()
  })

  it('gives a text that is no longer outdated, whatever the dates (property)', () => {
    const iso = fc
      .date({ min: new Date('2001-01-01'), max: new Date('2099-12-31'), noInvalidDate: true })
      .map(date => date.toISOString().slice(0, 10))
    fc.assert(
      fc.property(iso, iso, fc.constantFrom(10, 7, 4), (named, dated, precision) => {
        const text = `List ${named.slice(0, precision)}`
        const outdated = outdatedIn(text, dated)
        expect(!!outdated).toBe(named.slice(0, precision) < dated.slice(0, precision))
        if (outdated) expect(outdated.mended).toBe(`List ${dated.slice(0, precision)}`)
      }),
    )
  })
})
