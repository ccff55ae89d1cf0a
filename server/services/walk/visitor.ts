import { createHash } from 'node:crypto'
import type { Answer } from '../../../core/walk/facts'

/** The User-Agent of the walk. Robots are not counted: it says what it is. */
export const WALK_AGENT = 'Trough-walk/1.0 (robot; checks the links of its own site)'
const PATIENCE = 20_000

const NO_ANSWER: Answer = { status: 0, mediaType: '', size: 0 }

/** Asks this site for what its placements lead to, over HTTP and without a session, as any visitor would. */
export function createWalkVisitor(site: string) {
  /** Hashes a body as it arrives. */
  async function read(body: ReadableStream<Uint8Array>): Promise<{ size: number; sha256: string }> {
    const hash = createHash('sha256')
    let size = 0
    for await (const chunk of body as unknown as AsyncIterable<Uint8Array>) {
      hash.update(chunk)
      size += chunk.length
    }
    return { size, sha256: hash.digest('hex') }
  }

  return {
    /**
     * @param path root-relative
     * @param sha256 of the bytes that should come, to read them all; without it only what is said of them is asked for
     * @param cookie passes for the gates it stands behind
     */
    async ask(path: string, { sha256, cookie }: { sha256?: string; cookie?: string } = {}): Promise<Answer> {
      try {
        const response = await fetch(site + path, {
          method: sha256 ? 'GET' : 'HEAD',
          redirect: 'follow',
          signal: AbortSignal.timeout(PATIENCE),
          headers: { 'User-Agent': WALK_AGENT, 'Accept-Encoding': 'identity', ...(cookie && { Cookie: cookie }) },
        })
        const { status, headers, body } = response
        const said = { status, mediaType: headers.get('content-type')?.split(';')[0] ?? '', size: Number(headers.get('content-length')) }
        // A front server has the bytes; what it does with them is seen by those who ask it.
        if (!sha256 || !body || status !== 200 || headers.has('x-accel-redirect')) {
          await body?.cancel()
          return said
        }
        const { size, sha256: found } = await read(body)
        return { ...said, size, whole: found === sha256 }
      } catch {
        // Whatever went wrong on the way, a visitor would have had no answer; the finding says so.
        return NO_ANSWER
      }
    },
  }
}
export type WalkVisitor = ReturnType<typeof createWalkVisitor>
