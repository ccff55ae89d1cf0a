import { expect, it } from 'vitest'
import { chooseEncoding } from './encoding'

it.each([
  [undefined, 'identity'],
  ['', 'identity'],
  ['gzip, deflate, br', 'br'],
  ['gzip', 'gzip'],
  ['br;q=0, gzip', 'gzip'],
  ['*', 'br'],
  ['gzip;q=1, br;q=0.5', 'gzip'],
  ['identity', 'identity'],
])('%s is answered with %s (RFC 9110, section 12.5.3)', (accept, encoding) => expect(chooseEncoding(accept)).toBe(encoding))
