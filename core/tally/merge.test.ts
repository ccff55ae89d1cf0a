import { expect, it } from 'vitest'
import { mergeDownloads } from './merge'
import { NO_PARTICULARS as told } from './particulars'

const download = (change = {}) => ({
  file: 'f',
  edition: 1,
  placement: 'p',
  at: 5_000_100,
  bytes: 10,
  course: 'whole' as const,
  took: 5,
  told,
  ...change,
})

it('joins what happened within a second, and keeps apart what differs', () => {
  const merged = mergeDownloads([
    download(),
    download({ at: 5_000_999, bytes: 12 }),
    download({ at: 5_001_000 }),
    download({ edition: 2 }),
    download({ placement: undefined }),
    download({ file: 'g' }),
    download({ told: { ...told, country: 'GB' } }),
  ])
  expect(merged).toEqual([
    { file: 'f', edition: 1, placement: 'p', at: 5_000_000, bytes: 22, course: 'whole', took: 10, told, count: 2 },
    { file: 'f', edition: 1, placement: 'p', at: 5_001_000, bytes: 10, course: 'whole', took: 5, told, count: 1 },
    { file: 'f', edition: 2, placement: 'p', at: 5_000_000, bytes: 10, course: 'whole', took: 5, told, count: 1 },
    { file: 'f', edition: 1, placement: undefined, at: 5_000_000, bytes: 10, course: 'whole', took: 5, told, count: 1 },
    { file: 'g', edition: 1, placement: 'p', at: 5_000_000, bytes: 10, course: 'whole', took: 5, told, count: 1 },
    {
      file: 'f',
      edition: 1,
      placement: 'p',
      at: 5_000_000,
      bytes: 10,
      course: 'whole',
      took: 5,
      told: { ...told, country: 'GB' },
      count: 1,
    },
  ])
  expect(mergeDownloads([])).toEqual([])
})
