import { expect, it } from 'vitest'
import { mergeDownloads } from './merge'

const download = (change = {}) => ({ file: 'f', edition: 1, placement: 'p', at: 5_000_100, bytes: 10, ...change })

it('joins what happened within a second, and keeps apart what differs', () => {
  const merged = mergeDownloads([
    download(),
    download({ at: 5_000_999, bytes: 12 }),
    download({ at: 5_001_000 }),
    download({ edition: 2 }),
    download({ placement: undefined }),
    download({ file: 'g' }),
  ])
  expect(merged).toEqual([
    { file: 'f', edition: 1, placement: 'p', at: 5_000_000, bytes: 22, count: 2 },
    { file: 'f', edition: 1, placement: 'p', at: 5_001_000, bytes: 10, count: 1 },
    { file: 'f', edition: 2, placement: 'p', at: 5_000_000, bytes: 10, count: 1 },
    { file: 'f', edition: 1, placement: undefined, at: 5_000_000, bytes: 10, count: 1 },
    { file: 'g', edition: 1, placement: 'p', at: 5_000_000, bytes: 10, count: 1 },
  ])
  expect(mergeDownloads([])).toEqual([])
})
