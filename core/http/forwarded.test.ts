import { expect, it } from 'vitest'
import { networkOf, visitorAddress } from './forwarded'

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
])('from %s, forwarded for %s: %s', (connection, forwardedFor, address) =>
  expect(visitorAddress({ connection, forwardedFor }, fronts)).toBe(address),
)

// The examples of RFC 7239, section 4.
it.each([
  ['for="_gazonk"', '_gazonk'],
  ['For="[2001:db8:cafe::17]:4711"', '2001:db8:cafe::17'],
  ['for=192.0.2.60;proto=http;by=203.0.113.43', '192.0.2.60'],
  ['for=192.0.2.43, for=198.51.100.17', '198.51.100.17'],
])('Forwarded: %s names %s', (forwarded, address) =>
  expect(visitorAddress({ connection: '127.0.0.1', forwardedFor: undefined, forwarded }, fronts)).toBe(address),
)

it.each([
  ['203.0.113.7', '203.0.113.7'],
  ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'],
  ['2001:0db8:0001:0002::9', '2001:db8:1:2::/64'],
  ['2001:db8::1', '2001:db8:0:0::/64'],
  ['::1', '0:0:0:0::/64'],
  ['fe80::1%eth0', 'fe80:0:0:0::/64'],
])('%s is of the network %s', (address, network) => expect(networkOf(address)).toBe(network))
