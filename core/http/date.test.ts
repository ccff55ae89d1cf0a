import { describe, expect, it } from 'vitest'
import { parseHttpDate } from './date'

describe('parseHttpDate', () => {
  // The three examples of RFC 9110, section 5.6.7, all the same moment.
  it.each(['Sun, 06 Nov 1994 08:49:37 GMT', 'Sunday, 06-Nov-94 08:49:37 GMT', 'Sun Nov  6 08:49:37 1994'])('%s', text => {
    expect(parseHttpDate(text)).toBe(Date.UTC(1994, 10, 6, 8, 49, 37))
  })

  it('takes a two-digit year more than 50 years ahead for the past', () => {
    const now = new Date('2026-11-24')
    expect(new Date(parseHttpDate('Friday, 06-Nov-76 08:49:37 GMT', now)!).getUTCFullYear()).toBe(2076)
    expect(new Date(parseHttpDate('Saturday, 06-Nov-77 08:49:37 GMT', now)!).getUTCFullYear()).toBe(1977)
  })

  it.each(['', 'yesterday', '1994-11-06T08:49:37Z', 'Sun, 06 Nov 1994 08:49:37 CET', 'Sun, 06 Foo 1994 08:49:37 GMT'])(
    'knows that %j is none',
    text => {
      expect(parseHttpDate(text)).toBeUndefined()
    },
  )
})
