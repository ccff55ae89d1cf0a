import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { LRUCache } from 'lru-cache'
import { CODINGS, chooseEncoding, type Coding } from '../../../core/http/encoding'
import type { Representation } from '../../../core/http/respond'
import { createQueue } from '../../../core/queue'
import type { Events } from '../events'
import type { Bytes } from './bytes'
import { reprDigest, type Deliverable } from './deliverable'
import type { ReadRange } from './send'
import { laterTrouble } from '../../log'

/** Below this little is saved; above it packing takes longer than anybody waits. */
const [LEAST, MOST] = [1000, 8 * 1000 * 1000]
const MEMORY = 64 * 1024 * 1024

const encoders: Record<Coding, (bytes: Buffer) => Promise<Buffer>> = {
  br: bytes =>
    promisify((text: Buffer, done: (error: Error | null, packed: Buffer) => void) =>
      brotliCompress(text, { params: { [constants.BROTLI_PARAM_QUALITY]: 6 } }, done),
    )(bytes),
  gzip: promisify<Buffer, Buffer>(gzip),
}

type Packed = Record<Coding, { bytes: Buffer; digest: string }>

/** An answer, packed for the way. */
export interface Form {
  shown: Representation
  saved: Representation
  read: ReadRange
}

/** Text-like files, packed for the way; made beside the first delivery, which goes out as it is. */
export function createEncodings(bytes: Bytes, events: Events) {
  const packed = new LRUCache<string, Packed | 'no smaller'>({
    maxSize: MEMORY,
    sizeCalculation: known => (known === 'no smaller' ? 1 : known.br.bytes.length + known.gzip.bytes.length),
  })
  events.on('bytes', hashes => hashes.forEach(sha256 => packed.delete(sha256)))
  const waiting = new Set<string>()
  const oneAtATime = createQueue()

  async function pack(sha256: string, size: number): Promise<void> {
    const whole = await bytes.readWhole(sha256, size)
    const pairs = await Promise.all(
      CODINGS.map(async coding => {
        const made = await encoders[coding](whole)
        return [coding, { bytes: made, digest: createHash('sha256').update(made).digest('hex') }] as const
      }),
    )
    const all = Object.fromEntries(pairs) as Packed
    packed.set(sha256, all.gzip.bytes.length < size ? all : 'no smaller')
  }

  /** Each coding is a representation of its own, with its own validator and digest (RFC 9110, section 8.8.3.3; RFC 9530, section 3). */
  function encode(representation: Representation, coding: Coding, { bytes: { length }, digest }: Packed[Coding]): Representation {
    const etag = representation.etag.replace(/"$/, `-${coding}"`)
    return {
      ...representation,
      etag,
      size: length,
      unchanged: { ...representation.unchanged, ETag: etag },
      headers: {
        ...representation.headers,
        'ETag': etag,
        'Content-Length': length,
        'Content-Encoding': coding,
        'Repr-Digest': reprDigest(digest),
      },
    }
  }

  return {
    /** The packed form a client likes best, where one is ready. */
    choose(deliverable: Deliverable, acceptEncoding: string | undefined): Form | undefined {
      const { shown, saved } = deliverable
      if (!deliverable.textLike || !('sha256' in deliverable.bytes) || saved.size < LEAST || saved.size > MOST) return undefined
      const coding = chooseEncoding(acceptEncoding)
      if (coding === 'identity') return undefined
      const { sha256 } = deliverable.bytes
      const ready = packed.get(sha256)
      if (!ready && !waiting.has(sha256)) {
        waiting.add(sha256)
        void oneAtATime(() => pack(sha256, saved.size))
          .catch(laterTrouble('a text could not be packed'))
          .finally(() => waiting.delete(sha256))
      }
      if (!ready || ready === 'no smaller') return undefined
      const form = ready[coding]
      return {
        shown: encode(shown, coding, form),
        saved: encode(saved, coding, form),
        read: ({ start, end }) => form.bytes.subarray(start, end),
      }
    },
  }
}
export type Encodings = ReturnType<typeof createEncodings>
