import { describe, expect, it } from 'vitest'
import { meantPath } from './forgivingPath'

describe('addresses that were meant', () => {
  it.each([
    // RFC 3986, section 6.2.2: "example://a/b/c/%7Bfoo%7D" and "eXAMPLE://a/./b/../b/%63/%7bfoo%7d" are the same.
    ['/b/%63/%7bfoo%7d', '/b/c/%7Bfoo%7D'],
    ['/files/Price-List.PDF', '/files/price-list.pdf'],
    ['/files/price-list.pdf/', '/files/price-list.pdf'],
    ['/files/price-list.pdf.', '/files/price-list.pdf'],
    ['/files/price-list.pdf).', '/files/price-list.pdf'],
    ['/files/price-list.pdf%29', '/files/price-list.pdf'],
    ['//files///price-list.pdf', '/files/price-list.pdf'],
    ['/files/price%2Dlist%2Epdf', '/files/price-list.pdf'],
    ['/files/%D0%BF%D1%80.pdf', '/files/%D0%BF%D1%80.pdf'],
    ['/files/price-list.pdf%2c%20%C2%A0', '/files/price-list.pdf'],
    ['/files/caf%C3%A0', '/files/caf%C3%A0'],
    ['/', '/'],
    ['//', '/'],
    ['/kilns', '/kilns'],
    ['/a%2Fb', '/a%2Fb'],
  ])('%s: %s', (path, meant) => expect(meantPath(path)).toBe(meant))

  it('are found in one pass over as many characters as anybody sends, that may all stand behind one or not', () => {
    // Tried from each of them anew, addresses as long as a request may be (15,000) took a second, and these would take an hour.
    const many = '.,'.repeat(500_000)
    expect(meantPath(`/kilns${many}`)).toBe('/kilns')
    expect(meantPath(`/${many}kilns`)).toBe(`/${many}kilns`)
  })
})
