import { describe, expect, it } from 'vitest'
import { ZipLayout } from './layout'
import { distinctPaths, isSafePath } from './safePaths'

// APPNOTE.TXT 4.4.17.1, and what every guide to unpacking warns of.
const LEADING_OUT = [
  '../evil.txt',
  '../../evil.txt',
  'a/../../evil.txt',
  '/etc/evil.txt',
  'C:/evil.txt',
  'x\\..\\y/evil.txt',
  'a//evil.txt',
  './evil.txt',
  'evil\0.txt',
  '',
]

describe('paths in a zip', () => {
  it.each(LEADING_OUT)('%j is not safe, and the layout of a zip refuses it', name => {
    expect(isSafePath(name)).toBe(false)
    expect(() => new ZipLayout([{ name, size: 1, crc32: 0, modified: new Date(0), source: 'x' }])).toThrow(RangeError)
  })
  it.each(['evil.txt', 'a/b/c.pdf', '..a/b.pdf', 'a..b/c', '価格表.pdf', 'kilns: a.pdf'])('%j is safe', name =>
    expect(isSafePath(name)).toBe(true),
  )
  it('are made safe, and stay apart', () => {
    const safe = distinctPaths([...LEADING_OUT, 'a.pdf', 'A.pdf'])
    expect(safe.every(isSafePath)).toBe(true)
    expect(new Set(safe.map(path => path.toLowerCase())).size).toBe(safe.length)
    expect(distinctPaths(['../Sheets/a.pdf', 'C:/a.pdf', 'x\\..\\y/b.pdf'])).toEqual(['Sheets/a.pdf', 'C/a.pdf', 'x/y/b.pdf'])
  })
  it('are counted on where many have one name, past those that have a number already', () => {
    expect(distinctPaths(['a.pdf', 'a 2.pdf', 'a.pdf', 'A.PDF', 'b/a.pdf', 'a 2.pdf', 'a.pdf'])).toEqual([
      'a.pdf',
      'a 2.pdf',
      'a 3.pdf',
      'A 4.PDF',
      'b/a.pdf',
      'a 2 2.pdf',
      'a 5.pdf',
    ])
  })
  it('are given to twenty thousand of one name', () => {
    const many = 20_000
    expect(distinctPaths(Array.from({ length: many }, () => 'photo.jpg')).at(-1)).toBe(`photo ${many}.jpg`)
  })
})
