import { describe, expect, it } from 'vitest'
import { fittingLabel } from './fittingLabel'

const OCTOBER = { title: 'Price list', dated: '2026-10' }
const NOVEMBER = { title: 'Price list', dated: '2026-11' }

describe('the label that fits another file', () => {
  it.each([
    ['Price list, October 2026', 'Price list, November 2026'],
    ['Price list 10/2026', undefined],
    ['Prices 2026-10', 'Prices 2026-11'],
    ['Prices of Oct 2026', 'Prices of Nov 2026'],
    ['Price list 2026', undefined],
    ['Our prices', undefined],
    ['', undefined],
  ])('%s', (label, fits) => expect(fittingLabel(label, NOVEMBER, OCTOBER)).toBe(fits))

  it('has the date of an older file, too, where the label named the one it led to', () => {
    expect(fittingLabel('Price list, November 2026', OCTOBER, NOVEMBER)).toBe('Price list, October 2026')
  })

  it('leaves a later date alone that was never that of the file: an announcement, such as of a fair', () => {
    expect(fittingLabel('For the fair of December 2026', OCTOBER, NOVEMBER)).toBeUndefined()
  })

  it('is its title where the label was that of the one before', () => {
    expect(fittingLabel('K60 manual', { title: 'K80 manual' }, { title: 'K60 manual' })).toBe('K80 manual')
    expect(fittingLabel('Read this first', { title: 'K80 manual' }, { title: 'K60 manual' })).toBeUndefined()
    expect(fittingLabel('K60 manual', { title: 'K60 manual' }, { title: 'K60 manual' })).toBeUndefined()
  })

  it('names the date of the next edition, of which nothing is known before', () => {
    expect(fittingLabel('Price list, October 2026', NOVEMBER)).toBe('Price list, November 2026')
  })
})
