import { createHash } from 'node:crypto'
import { promisify } from 'node:util'
import { brotliCompress, constants, gzip } from 'node:zlib'
import { chooseEncoding } from '../../../core/http/encoding'
import { represent, type Representation } from '../../../core/http/respond'
import { kept } from '../kept'

const encoders = {
  br: promisify((text: string, done: (error: Error | null, bytes: Buffer) => void) =>
    brotliCompress(text, { params: { [constants.BROTLI_PARAM_QUALITY]: 9 } }, done),
  ),
  gzip: promisify<string, Buffer>(gzip),
  identity: async (text: string) => Buffer.from(text),
}
export type Encoding = keyof typeof encoders
interface Variant {
  bytes: Buffer
  representation: Representation
}
/** A page in the encoding a client likes best, packed when it is first asked for so: few are in every one. */
export interface Made {
  (acceptEncoding: string | undefined): Promise<Variant>
  /** where it is packed so already: no turn of the loop is needed */
  now: (acceptEncoding: string | undefined) => Variant | undefined
}

/**
 * A page may load its own pictures and fonts and nothing else, and never runs script; what looks at a page from within it may ask this
 * site for more (robots.txt).
 */
const POLICY =
  "default-src 'none'; script-src 'none'; style-src 'unsafe-inline'; img-src 'self' data:; font-src 'self'; connect-src 'self'; media-src 'self'; form-action 'self'; base-uri 'none'; frame-ancestors 'self'"

export const PAGE_HEADERS = {
  'Content-Security-Policy': POLICY,
  'X-Content-Type-Options': 'nosniff',
  'Referrer-Policy': 'strict-origin-when-cross-origin',
}

async function encodeIn(name: Encoding, html: string, hash: string): Promise<Variant> {
  const bytes = await encoders[name](html)
  const representation = represent({
    size: bytes.length,
    contentType: 'text/html; charset=utf-8',
    // Each encoding is a representation of its own (RFC 9110, section 8.8.3.3).
    etag: `"${hash}-${name}"`,
    extra: {
      ...PAGE_HEADERS,
      'Cache-Control': 'no-cache',
      'Vary': 'Accept-Encoding',
      ...(name !== 'identity' && { 'Content-Encoding': name }),
    },
  })
  return { bytes, representation }
}

/** A page that is written, ready to be sent in any encoding. */
export function packed(html: string): Made {
  const hash = createHash('sha256').update(html).digest('hex').slice(0, 24)
  const each = (name: Encoding) => kept(() => encodeIn(name, html, hash))
  const variants = { br: each('br'), gzip: each('gzip'), identity: each('identity') }
  return Object.assign((acceptEncoding: string | undefined) => variants[chooseEncoding(acceptEncoding)].get(), {
    now: (acceptEncoding: string | undefined) => variants[chooseEncoding(acceptEncoding)].now(),
  })
}
