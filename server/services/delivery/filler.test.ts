import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { Stretch } from '../../../core/http/stretch'
import type { OpenBlob, Store } from '../../store/store'
import { Filler } from './filler'

/** A store in memory that tells how many of its blobs are open; each read gives at most some bytes. */
function storeOf(blobs: Record<string, Buffer>, most = Infinity) {
  const open = { now: 0, most: 0 }
  const store = {
    async open(source: string): Promise<OpenBlob> {
      const bytes = blobs[source]
      if (!bytes) throw Object.assign(new Error(`no ${source}`), { code: 'ENOENT' })
      open.most = Math.max(open.most, ++open.now)
      return {
        size: async () => bytes.length,
        read: async (into, position) => bytes.copy(into, 0, position, Math.min(bytes.length, position + Math.min(most, into.length))),
        close: async () => void open.now--,
      }
    },
  } as unknown as Store
  return { store, open }
}

/** All that a filler gives, in buffers of one size. */
async function allOf(filler: Filler, size: number): Promise<Buffer> {
  const parts: Buffer[] = []
  for (;;) {
    const buffer = Buffer.alloc(size)
    const count = await filler.fill(buffer)
    if (!count) return Buffer.concat(parts)
    parts.push(buffer.subarray(0, count))
  }
}

describe('stretches of bytes', () => {
  it('come one behind the other, however they are cut, and what was opened is closed', async () => {
    const piece = fc.oneof(
      fc.record({ bytes: fc.uint8Array({ maxLength: 40 }) }),
      fc.record({ source: fc.constantFrom('a', 'b', 'c'), start: fc.nat(60), length: fc.nat(60) }),
    )
    await fc.assert(
      fc.asyncProperty(
        fc.array(piece, { maxLength: 60 }),
        fc.integer({ min: 1, max: 90 }),
        fc.integer({ min: 1, max: 30 }),
        async (pieces, size, most) => {
          const blobs = { a: Buffer.alloc(120, 'clay '), b: Buffer.alloc(120, 'glaze '), c: Buffer.alloc(120, 'kiln ') }
          const { store, open } = storeOf(blobs, most)
          const stretches = pieces.map((one): Stretch =>
            'bytes' in one ? one.bytes : { source: one.source, start: one.start, end: one.start + one.length },
          )
          const whole = Buffer.concat(
            stretches.map(one => (one instanceof Uint8Array ? one : blobs[one.source as 'a'].subarray(one.start, one.end))),
          )
          const filler = new Filler(store, stretches)
          expect((await allOf(filler, size)).equals(whole)).toBe(true)
          await filler.close()
          expect(open.now).toBe(0)
          expect(open.most).toBeLessThanOrEqual(3)
        },
      ),
    )
  })

  it('are taken as they are needed: a zip of a hundred thousand files has as many records at its end', async () => {
    let taken = 0
    function* records(): Generator<Stretch> {
      for (; taken < 100_000; taken++) yield Buffer.from(`record ${taken}\n`)
    }
    const filler = new Filler(storeOf({}).store, records())
    await filler.fill(Buffer.alloc(100))
    expect(taken).toBeLessThan(100)
    expect((await allOf(filler, 65_536)).toString()).toMatch(/record 99999\n$/)
  })
})
