import { expect, it } from 'vitest'
import { visitorAddress } from './forwarded'

const fronts = new Set(['127.0.0.1', '10.0.0.2'])

it.each([
  ['203.0.113.7', undefined, '203.0.113.7'],
  // Only a front server of ours is believed.
  ['203.0.113.7', '198.51.100.1', '203.0.113.7'],
  ['127.0.0.1', '198.51.100.1', '198.51.100.1'],
  ['::ffff:127.0.0.1', '198.51.100.1, 10.0.0.2', '198.51.100.1'],
  ['127.0.0.1', 'made up, 198.51.100.1', '198.51.100.1'],
  ['127.0.0.1', undefined, '127.0.0.1'],
  ['127.0.0.1', '', '127.0.0.1'],
  [undefined, undefined, ''],
])('from %s, forwarded for %s: %s', (connection, forwardedFor, address) => expect(visitorAddress(connection, forwardedFor, fronts)).toBe(address))
