import type { Download } from './transfers'

/** Completed downloads of one edition within the same second that came from the same place with the same. */
export interface CountedDownload extends Download {
  count: number
}

/** Joins downloads that differ in nothing that is told of them: times are told to the second. */
export function mergeDownloads(downloads: Download[]): CountedDownload[] {
  const merged = new Map<string, CountedDownload>()
  for (const { file, edition, placement, at, bytes, course, took, told } of downloads) {
    const second = Math.floor(at / 1000) * 1000
    const key = JSON.stringify([file, edition, placement, second, course, ...Object.values(told)])
    const known = merged.get(key)
    if (known) {
      known.count++
      known.bytes += bytes
      known.took += took
    } else {
      merged.set(key, { file, edition, placement, at: second, bytes, course, took, told, count: 1 })
    }
  }
  return [...merged.values()]
}
