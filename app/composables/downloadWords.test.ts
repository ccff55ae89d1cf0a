import { describe, expect, it } from 'vitest'
import { barWords, changeWords, keyWords } from './downloadWords'

describe('words for downloads', () => {
  it('says how much more or less than before, where there was something', () => {
    expect([
      changeWords(12, 10),
      changeWords(5, 10),
      changeWords(3, 3),
      changeWords(3, 0),
      changeWords(0, 0),
      changeWords(9, null),
    ]).toEqual(['+20 %', '−50 %', '±0 %', 'new', '', ''])
  })
  it('names what is known, what is gone and what was never known', () => {
    const names = { file: { a: { title: 'Price list', detail: 'price-list.pdf', place: null } } }
    expect(keyWords('file', 'a', names)).toBe('Price list')
    expect(keyWords('file', 'b', names)).toBe('File that is gone')
    expect(keyWords('page', '', names)).toBe('From no page of ours')
    // ISO 3166-1, as Intl names it; a code that is none stays.
    expect(keyWords('country', 'DE', names)).toBe('Germany')
    expect(keyWords('country', '=1', names)).toBe('=1')
    expect(keyWords('language', 'pt', names)).toBe('Portuguese')
    expect(keyWords('device', 'phone', names)).toBe('Phone')
  })
  it('names bars in the time zone of the site', () => {
    const midnight = Date.parse('2026-11-26T23:00:00Z') / 1000
    expect(barWords(midnight, 'day', 'Europe/Berlin', true)).toContain('November 27')
    expect(barWords(midnight, 'hour', 'Europe/Berlin')).toMatch(/12:00\sAM/)
    expect(barWords(midnight, 'week', 'UTC', true)).toContain('Week of November 26')
  })
})
