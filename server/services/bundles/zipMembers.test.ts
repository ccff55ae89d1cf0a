import { crc32 } from 'node:zlib'
import { expect, it } from 'vitest'
import { fingerprintOf, packMembers, unpackMembers } from './zipMembers'

const HASH = 'ab'.repeat(32)
const members = (created: number, body = 'one\ntwo\r\n') =>
  unpackMembers(
    packMembers(
      [
        { entry: 'a', path: 'list.pdf', file: { id: 'f', folder: null, fileName: 'list.pdf', sha256: HASH, size: 7, crc32: 9, created } },
        { entry: 'b', path: 'read-me.txt', body },
      ],
      5000,
    ),
  )

it('members come through as one string, texts with the line ends of every desktop', () => {
  const bytes = Buffer.from('one\r\ntwo\r\n')
  expect(members(1000)).toEqual([
    { name: 'list.pdf', size: 7, crc32: 9, modified: new Date(1000), source: HASH },
    { name: 'read-me.txt', size: bytes.length, crc32: crc32(bytes), modified: new Date(5000), source: bytes },
  ])
})

it('the same contents have the same fingerprint, others another', () => {
  const prints = [members(1000), members(1999), members(2000), members(1000, 'other')].map(fingerprintOf)
  // A zip tells times to the second at the finest.
  expect(prints[1]).toBe(prints[0])
  expect(new Set(prints).size).toBe(3)
})
