import type { Download } from './transfers'

/** Completed downloads of one edition within the same second that came from the same place with the same. */
export interface CountedDownload extends Download {
  count: number
}

/** Joins downloads that differ in nothing that is told of them: times are told to the second. */
export function mergeDownloads(downloads: Download[]): CountedDownload[] {
  const merged = new Map<string, CountedDownload>()
  for (const { file, edition, placement, at, bytes, told } of downloads) {
    const second = Math.floor(at / 1000) * 1000
    const key = JSON.stringify([file, edition, placement, second, ...Object.values(told)])
    const known = merged.get(key)
    if (known) {
      known.count++
      known.bytes += bytes
    } else {
      merged.set(key, { file, edition, placement, at: second, bytes, told, count: 1 })
    }
  }
  return [...merged.values()]
}
