import { execFileSync } from 'node:child_process'
import { createRequire } from 'node:module'
import { afterAll, describe, expect, it } from 'vitest'
import { createDescribing } from '../services/tally/describing'

const { describe: describeVisitors, close } = createDescribing()
afterAll(close)
const DATA = createRequire(import.meta.url).resolve('@ip-location-db/geo-whois-asn-country-mmdb/geo-whois-asn-country.mmdb')

/** What Debian's `mmdblookup`, of another hand than the reader used, finds in the same data. */
function lookedUp(address: string): string {
  try {
    return (
      /"([A-Z]{2})"/.exec(
        execFileSync('mmdblookup', ['--file', DATA, '--ip', address, 'country_code'], { stdio: 'pipe' }).toString(),
      )?.[1] ?? ''
    )
  } catch {
    return ''
  }
}

describe('visitors', () => {
  it('are from the country that another reader of the same data says', async () => {
    // Spread over all networks of version 4, and some of version 6; those kept for documents (RFC 5737, RFC 3849) are nowhere.
    const addresses = [
      ...Array.from({ length: 60 }, (_, part) => `${(part * 37) % 224}.${(part * 91) % 256}.${(part * 53) % 256}.7`),
      ...['2001:4860:4860::8888', '2a00:1450:4009::1', '2001:db8::1', '::1', '192.0.2.1', '127.0.0.1'],
    ]
    const found = await describeVisitors(addresses.map(address => ({ address, userAgent: '' })))
    expect(found.map(({ country }) => country)).toEqual(addresses.map(lookedUp))
    expect(new Set(found.map(({ country }) => country)).size).toBeGreaterThan(8)
    expect(found.at(-2)!.country).toBe('')
  })

  it('are told in broad words by what they come with, and not at all where that is no browser', async () => {
    const told = await describeVisitors(
      [
        // As browsers wrote it in 2026, from memory.
        'Mozilla/5.0 (iPhone; CPU iPhone OS 18_5 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/18.5 Mobile/15E148 Safari/604.1',
        'Mozilla/5.0 (Windows NT 10.0; Win64; x64; rv:140.0) Gecko/20100101 Firefox/140.0',
        'Mozilla/5.0 (iPad; CPU OS 16_6 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/16.6 Mobile/15E148 Safari/604.1',
        '',
        '<script>alert(1)</script>',
      ].map(userAgent => ({ address: 'no address', userAgent })),
    )
    expect(told).toMatchObject([
      { country: '', device: 'phone', browser: 'Safari', system: 'iOS' },
      { device: 'computer', browser: 'Firefox', system: 'Windows' },
      { device: 'tablet', browser: 'Safari', system: 'iOS' },
      { device: '', system: '' },
      { device: '', system: '' },
    ])
  })
})
