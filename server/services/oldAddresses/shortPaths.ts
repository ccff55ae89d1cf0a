import { hash } from 'node:crypto'

/** 48 bits of a path's SHA-1. Two that fall together cost a question, no more. */
export const shortOf = (path: string): number => Number.parseInt(hash('sha1', path, 'hex').slice(0, 12), 16)

/** Some paths in short: hundreds of thousands in a few megabytes. */
export const shortPaths = (paths: string[]): Float64Array<ArrayBuffer> => Float64Array.from(paths, shortOf)

/** Whether a number is in a list in order. */
export function includes(sorted: Float64Array, wanted: number): boolean {
  let [low, high] = [0, sorted.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (sorted[middle]! < wanted) low = middle + 1
    else high = middle
  }
  return sorted[low] === wanted
}
