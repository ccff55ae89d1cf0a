import { describe, expect, it } from 'vitest'
import { LANGUAGE_CODES } from './languages'
import { roundedDown } from './rounded'
import { speechOf } from './speech'

describe('counts that are rounded', () => {
  it.each([
    [0, 0],
    [19, 19],
    [20, 20],
    [87, 80],
    [437, 430],
    [999, 990],
    [1000, 1000],
    [1234, 1200],
    [98_765, 98_000],
    [1_299_999, 1_200_000],
  ])('%i is told as %i', (count, told) => expect(roundedDown(count)).toBe(told))

  it('are never more than they are, grow with them, and are told again as they are', () => {
    let before = 0
    for (let count = 0; count < 30_000; count++) {
      const told = roundedDown(count)
      expect(told <= count && told >= before && roundedDown(told) === told).toBe(true)
      before = told
    }
  })

  it('say so, in the plural of what is told', () => {
    const [exact, rounded] = [speechOf('en', {}), speechOf('en', {}, 'rounded')]
    expect([1, 19, 40, 1234].map(exact.downloads)).toEqual(['1 download', '19 downloads', '40 downloads', '1,234 downloads'])
    expect([1, 19, 40, 1234].map(rounded.downloads)).toEqual(['1 download', '19 downloads', '40 downloads', '1,200+ downloads'])
    expect(speechOf('de', {}, 'rounded').downloads(1234)).toBe('1.200+-mal heruntergeladen')
    for (const language of LANGUAGE_CODES) expect(speechOf(language, {}, 'rounded').downloads(98_765)).toMatch(/98\D?000\+/)
  })
})
