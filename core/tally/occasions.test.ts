import { describe, expect, it } from 'vitest'
import { keptText, keptWords, tenthOf } from './occasions'

describe('what is kept of text', () => {
  it('holds nothing that a database refuses, and not all of what is long', () => {
    expect(keptText(' a\u0000b\r\nc ')).toBe('a b c')
    expect(keptText('x'.repeat(5000))).toHaveLength(300)
  })
  it('takes words for the same however they were typed', () => {
    expect(keptWords('  Porcelain   GLAZE ')).toBe('porcelain glaze')
    expect(keptWords('cafe\u0301')).toBe('caf\u00e9')
  })
})

it('says how far a download came, in tenths', () => {
  expect([tenthOf(0, 100), tenthOf(9, 100), tenthOf(10, 100), tenthOf(99, 100), tenthOf(100, 100), tenthOf(0, 0)]).toEqual([
    0, 0, 1, 9, 9, 0,
  ])
})
