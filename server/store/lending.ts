import type { Store } from './store'

/** Lends several blobs at once, in the order of their hashes; see `withFile` of the store. */
export function withFiles<Result>(store: Pick<Store, 'withFile'>, hashes: string[], use: (files: { sha256: string, path: string }[]) => Promise<Result>): Promise<Result> {
  const lend = (lent: { sha256: string, path: string }[]): Promise<Result> => {
    const sha256 = hashes[lent.length]
    return sha256 === undefined ? use(lent) : store.withFile(sha256, path => lend([...lent, { sha256, path }]))
  }
  return lend([])
}
