import { describe, expect, it } from 'vitest'
import { formatExactSize, formatSize } from './size'

// IEC 80000-13 and the SI prefixes: 1 kB is 1000 bytes.
describe('formatSize', () => {
  it.each([
    [0, '0 B'],
    [1, '1 B'],
    [999, '999 B'],
    [1000, '1 kB'],
    [1024, '1 kB'],
    [1500, '1.5 kB'],
    [9949, '9.9 kB'],
    [9950, '10 kB'],
    [240_113, '240 kB'],
    [999_499, '999 kB'],
    [999_500, '1 MB'],
    [1_400_000, '1.4 MB'],
    [524_288_000, '524 MB'],
    [4_700_000_000, '4.7 GB'],
  ])('%d is %s', (bytes, words) => expect(formatSize(bytes)).toBe(words))
})

it('formatExactSize counts every byte', () => {
  expect(formatExactSize(240_113)).toBe('240,113 bytes')
  expect(formatExactSize(1)).toBe('1 byte')
})
