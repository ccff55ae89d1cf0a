import { describe, expect, it } from 'vitest'
import type { ComparedEdition } from './comparison'
import { doubtsAbout } from './doubts'

const edition = (given: Partial<ComparedEdition> = {}): ComparedEdition => ({
  number: 1,
  fileName: 'price-list-2026-10.pdf',
  mediaType: 'application/pdf',
  tag: 'PDF',
  size: 240_000,
  sha256: 'a',
  note: '',
  pinned: false,
  withdrawn: false,
  by: '',
  created: '2026-10-01T08:00:00.000Z',
  facts: { pages: 4 },
  preview: 'ready',
  ...given,
})
const next = (given: Partial<ComparedEdition> = {}) => edition({ number: 2, fileName: 'price-list-2026-11.pdf', sha256: 'b', ...given })
const texts = (inCommon: number) => ({ changes: [], total: 0, inCommon, apart: false })

describe('doubts about an edition', () => {
  it.each<[string, Partial<ComparedEdition>, number, string[]]>([
    ['the next one of its kind', {}, 0.9, []],
    ['the same bytes', { sha256: 'a' }, 1, ['same-bytes']],
    ['another type', { mediaType: 'application/zip', facts: {} }, 0.9, ['other-type']],
    ['a page of four', { facts: { pages: 1 } }, 0.6, ['far-smaller']],
    ['two pages of four', { facts: { pages: 2 } }, 0.6, []],
    ['a tenth of the bytes, of a kind without pages', { facts: {}, size: 24_000 }, 0.9, ['far-smaller']],
    ['another document', {}, 0.1, ['little-in-common']],
    ['that of September', { fileName: 'price-list-2026-09.pdf' }, 0.9, ['older']],
    ['that of the same month, to the day', { fileName: 'price-list-2026-10-02.pdf' }, 0.9, []],
    ['one that says it is older itself', { fileName: 'price-list.pdf', facts: { pages: 4, dated: '2026-08-01' } }, 0.9, ['older']],
    [
      'all at once',
      { fileName: 'list-2025.zip', mediaType: 'application/zip', size: 10, facts: {} },
      0,
      ['other-type', 'far-smaller', 'little-in-common', 'older'],
    ],
  ])('%s', (_, given, inCommon, expected) => {
    expect(doubtsAbout(edition(), next(given), texts(inCommon))).toEqual(expected)
  })

  it('are none about words while those are not read', () => {
    expect(doubtsAbout(edition(), next(), undefined)).toEqual([])
  })
})
