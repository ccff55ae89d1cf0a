import { createHmac, hkdfSync, timingSafeEqual } from 'node:crypto'

/** Longest text that is looked at: longer ones were not sealed here. */
const LONGEST = 4000

/**
 * Seals texts that go through visitors' hands, so that nobody else can make or change one (HMAC-SHA-256, RFC 2104).
 *
 * @param purpose a text sealed for one is no good for another; each has a key of its own (HKDF, RFC 5869)
 */
export function createSeal(secret: string, purpose: string) {
  const key = Buffer.from(hkdfSync('sha256', secret, '', purpose, 32))
  const markOf = (text: string) => createHmac('sha256', key).update(text).digest('base64url')

  return {
    seal: (text: string): string => `${text}~${markOf(text)}`,

    /** The text that was sealed; undefined where it was not sealed here, or not as it is. */
    open(sealed: string): string | undefined {
      const at = sealed.lastIndexOf('~')
      if (at < 0 || sealed.length > LONGEST) return undefined
      const text = sealed.slice(0, at)
      const [given, own] = [Buffer.from(sealed.slice(at + 1)), Buffer.from(markOf(text))]
      return given.length === own.length && timingSafeEqual(given, own) ? text : undefined
    },
  }
}
export type Seal = ReturnType<typeof createSeal>
