import { describe, expect, it } from 'vitest'
import { siteSchema } from './site'

const addressOf = (address: string) => siteSchema.safeParse({ name: 'Marlpit', address }).data?.address

describe("the site's address", () => {
  it.each([
    ['https://www.marlpit.example', 'https://www.marlpit.example'],
    ['http://localhost:4180/', 'http://localhost:4180'],
    ['', ''],
    ['HTTPS://WWW.Marlpit.example', 'https://www.marlpit.example'],
  ])('%j is kept as %j: scheme and host (RFC 3986, section 6.2.2.1)', (given, kept) => expect(addressOf(given)).toBe(kept))

  it.each([
    'www.marlpit.example',
    'javascript:alert(1)',
    'ftp://marlpit.example',
    'https://marlpit.example/shop',
    'https://',
    'not an address',
  ])('refuses %j', given => {
    expect(addressOf(given)).toBeUndefined()
  })
})
