import { evaluatePreconditions, headerOf, rangeApplies, type RequestHeaders, type Validators } from './conditional'
import { parseRange, type ByteRange } from './range'

/** The bytes to be sent and what is known of them before the first is read. */
export interface Representation extends Validators {
  /** bytes */
  size: number
  contentType: string
  /** fields of every answer that carries or stands for the representation, such as Content-Disposition */
  headers: Record<string, string>
}

/** A piece of the body: literal text, or a stretch of the representation. */
export type Part = string | ByteRange

export interface Answer {
  status: 200 | 206 | 304 | 412 | 416
  headers: Record<string, string | number>
  /** empty for HEAD, 304, 412 and 416 */
  body: Part[]
}

/** Fields that a 304 repeats (RFC 9110, section 15.4.5). */
const NOT_MODIFIED_FIELDS = ['cache-control', 'content-location', 'expires', 'vary']

/**
 * The whole answer to a GET or HEAD for a representation, by RFC 9110: preconditions, then ranges,
 * one as it is and several as multipart/byteranges. Range is defined for GET alone (section 14.2).
 *
 * @param boundary separates the parts of a multipart answer; must not occur in the bytes
 */
export function respond(method: string, request: RequestHeaders, representation: Representation, boundary: () => string): Answer {
  const { etag, lastModified, size, contentType } = representation
  const common = {
    'ETag': etag,
    ...lastModified && { 'Last-Modified': lastModified.toUTCString() },
    'Accept-Ranges': 'bytes',
  }

  const verdict = evaluatePreconditions(request, representation)
  if (verdict === 412) return { status: 412, headers: { ...common, 'Content-Length': 0 }, body: [] }
  if (verdict === 304) {
    const kept = Object.entries(representation.headers).filter(([name]) => NOT_MODIFIED_FIELDS.includes(name.toLowerCase()))
    return { status: 304, headers: { ...common, ...Object.fromEntries(kept) }, body: [] }
  }

  const headers = { ...common, ...representation.headers }
  const range = headerOf(request, 'range')
  const ranges = method === 'GET' && range !== undefined && rangeApplies(request, representation)
    ? parseRange(range, size)
    : undefined

  if (ranges === 'unsatisfiable') {
    return { status: 416, headers: { ...common, 'Content-Range': `bytes */${size}`, 'Content-Length': 0 }, body: [] }
  }
  if (!ranges) {
    return {
      status: 200,
      headers: { ...headers, 'Content-Type': contentType, 'Content-Length': size },
      body: method === 'HEAD' || size === 0 ? [] : [{ start: 0, end: size }],
    }
  }
  if (ranges.length === 1) {
    const { start, end } = ranges[0]!
    return {
      status: 206,
      headers: { ...headers, 'Content-Type': contentType, 'Content-Range': contentRange(ranges[0]!, size), 'Content-Length': end - start },
      body: ranges,
    }
  }
  const separator = boundary()
  const body = multipart(ranges, size, contentType, separator)
  return {
    status: 206,
    headers: { ...headers, 'Content-Type': `multipart/byteranges; boundary=${separator}`, 'Content-Length': lengthOf(body) },
    body,
  }
}

/** Content-Range counts its last byte inclusively (RFC 9110, section 14.4). */
function contentRange({ start, end }: ByteRange, size: number): string {
  return `bytes ${start}-${end - 1}/${size}`
}

/** The body of several ranges (RFC 9110, section 14.6). */
function multipart(ranges: ByteRange[], size: number, contentType: string, separator: string): Part[] {
  return [
    ...ranges.flatMap((range, index): Part[] => [
      `${index ? '\r\n' : ''}--${separator}\r\nContent-Type: ${contentType}\r\nContent-Range: ${contentRange(range, size)}\r\n\r\n`,
      range,
    ]),
    `\r\n--${separator}--\r\n`,
  ]
}

function lengthOf(body: Part[]): number {
  return body.reduce((sum, part) => sum + (typeof part === 'string' ? part.length : part.end - part.start), 0)
}
