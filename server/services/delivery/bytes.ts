import { createHash } from 'node:crypto'
import { LRUCache } from 'lru-cache'
import type { Store } from '../../store/store'
import type { Events } from '../events'
import type { Deliverable } from './deliverable'
import { Damaged, Filler } from './filler'
import type { ReadRange } from './send'

/** Files this small, in bytes, are kept in memory after their first delivery. */
const SMALL = 64 * 1024
const MEMORY = 32 * 1024 * 1024

/** Where the bytes of an answer come from. */
export function createBytes(store: Store, events: Events) {
  const small = new LRUCache<string, Buffer>({ maxSize: MEMORY, sizeCalculation: bytes => bytes.length + 1 })
  // Counts the changes, so that what was read before one is not remembered after it.
  let age = 0
  events.on('bytes', hashes => {
    age++
    for (const sha256 of hashes) small.delete(sha256)
  })

  /** @throws Damaged where they are not what they were: what is kept in memory is given out many times */
  async function readWhole(sha256: string, size: number): Promise<Buffer> {
    const bytes = Buffer.allocUnsafeSlow(size)
    const filler = new Filler(store, [{ source: sha256, start: 0, end: size }])
    try {
      for (let at = 0, count = 1; count; at += count) count = await filler.fill(bytes.subarray(at))
    } finally {
      await filler.close()
    }
    if (createHash('sha256').update(bytes).digest('hex') !== sha256) throw new Damaged(sha256, 'damaged', 'are not what they were')
    return bytes
  }

  async function remember(sha256: string, size: number): Promise<Buffer> {
    const asked = age
    const bytes = await readWhole(sha256, size)
    if (asked === age) small.set(sha256, bytes)
    return bytes
  }

  return {
    readWhole,

    /** Whether an answer is read from the disk while it is sent. */
    areStored: ({ bytes, saved: { size } }: Deliverable): boolean => 'layout' in bytes || size > SMALL,

    /** The whole of a small file, where it is in memory already. */
    inMemory: ({ bytes }: Deliverable): Buffer | undefined => ('sha256' in bytes ? small.get(bytes.sha256) : undefined),

    /** Small files come from memory, others are read as they are sent. */
    readerOf({ bytes, saved: { size } }: Deliverable): ReadRange {
      if ('layout' in bytes) return range => new Filler(store, bytes.layout.stretches(range))
      const { sha256 } = bytes
      return ({ start, end }) => {
        const known = small.get(sha256)
        if (known) return known.subarray(start, end)
        if (size <= SMALL) return remember(sha256, size).then(whole => whole.subarray(start, end))
        return new Filler(store, [{ source: sha256, start, end }])
      }
    },
  }
}
export type Bytes = ReturnType<typeof createBytes>
