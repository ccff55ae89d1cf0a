import { expect, it } from 'vitest'
import { createRoom } from './room'

const GB = 1_000_000_000
const roomOn = (free: number, capacity: number) => createRoom({ free: async () => free, capacity: async () => capacity })
const outcome = (taken: Promise<unknown>) =>
  taken.then(
    () => 'taken',
    ({ status }: { status: number }) => status,
  )

it('leaves a tenth of a small disk free, five gigabytes of a large one, with what is on its way counted in', async () => {
  const small = roomOn(3 * GB, 20 * GB)
  const first = await small.take(0.9 * GB, '203.0.113.1')
  expect(await outcome(small.take(0.2 * GB, '203.0.113.2'))).toBe(507)
  first()
  expect(await outcome(small.take(0.2 * GB, '203.0.113.2'))).toBe('taken')
  const large = roomOn(6 * GB, 1000 * GB)
  expect(await outcome(large.take(2 * GB, '203.0.113.1'))).toBe(507)
  expect(await outcome(large.take(0.5 * GB, '203.0.113.1'))).toBe('taken')
})

it('lets three come from one network at once, and ten in all; who was refused keeps no place', async () => {
  const room = roomOn(100 * GB, 100 * GB)
  const same = await Promise.all([1, 2, 3, 4].map(() => outcome(room.take(1, '203.0.113.9'))))
  expect(same).toEqual(['taken', 'taken', 'taken', 429])
  const others = await Promise.all(Array.from({ length: 8 }, (_, at) => outcome(room.take(1, `198.51.100.${at}`))))
  expect(others.filter(one => one === 'taken')).toHaveLength(7)
  expect(others.at(-1)).toBe(429)
})

it('takes an IPv6 network for one (RFC 4291: a site has 64 bits of hosts)', async () => {
  const room = roomOn(100 * GB, 100 * GB)
  const addresses = ['2001:db8:1:2::1', '2001:db8:1:2:ffff::2', '2001:db8:1:2:3:4:5:6', '2001:db8:1:2::9']
  expect(await Promise.all(addresses.map(address => outcome(room.take(1, address))))).toEqual(['taken', 'taken', 'taken', 429])
})
