import { evaluatePreconditions, headerOf, rangeApplies, type RequestHeaders, type Validators } from './conditional'
import { parseRange, type ByteRange } from './range'

/** The bytes to be sent and what is known of them before the first is read. */
export interface Representation extends Validators {
  /** bytes */
  size: number
  contentType: string
  /** every field of a whole answer, ready to be sent */
  headers: Headers
  /** the fields of a 304 */
  unchanged: Headers
}

export type Headers = Record<string, string | number>

/** Names and values in turn, as Node.js's writeHead takes them. */
type FieldList = (string | number)[]
const lists = new WeakMap<Headers, FieldList>()

/**
 * The fields as they are written with the least work: those of a {@link Representation}, which are sent many times, as a list made
 * beforehand.
 */
export const readyFields = (headers: Headers): Headers | FieldList => lists.get(headers) ?? headers

/** Fields that a 304 repeats; others, Last-Modified beside an ETag among them, should not be sent with it (RFC 9110, section 15.4.5). */
const NOT_MODIFIED_FIELDS = ['ETag', 'Cache-Control', 'Content-Location', 'Expires', 'Vary']
/** The validators of any answer without the bytes. */
const VALIDATOR_FIELDS = ['ETag', 'Last-Modified', 'Accept-Ranges']

const pick = (headers: Headers, names: string[]): Headers =>
  Object.fromEntries(names.flatMap((name): [string, string | number][] => (headers[name] === undefined ? [] : [[name, headers[name]]])))

/** Puts a representation together; done once, since it is answered with many times. */
export function represent({
  size,
  contentType,
  etag,
  lastModified,
  extra,
}: Validators & {
  /** bytes */
  size: number
  contentType: string
  /** further fields, such as Content-Disposition */
  extra: Record<string, string>
}): Representation {
  const dated = lastModified && { 'Last-Modified': lastModified.toUTCString() }
  const headers = { 'ETag': etag, ...dated, 'Accept-Ranges': 'bytes', ...extra, 'Content-Type': contentType, 'Content-Length': size }
  const unchanged = pick(headers, NOT_MODIFIED_FIELDS)
  for (const sentOften of [headers, unchanged]) lists.set(sentOften, Object.entries(sentOften).flat())
  return { size, contentType, etag, lastModified, headers, unchanged }
}

/** The same with other fields in the place of some it has. */
export function withFields(representation: Representation, fields: Headers): Representation {
  const headers = { ...representation.headers, ...fields }
  const unchanged = pick(headers, NOT_MODIFIED_FIELDS)
  for (const sentOften of [headers, unchanged]) lists.set(sentOften, Object.entries(sentOften).flat())
  return { ...representation, headers, unchanged }
}

/** A piece of the body: literal text, or a stretch of the representation. */
export type Part = string | ByteRange

export interface Answer {
  status: 200 | 206 | 304 | 412 | 416
  headers: Headers
  /** empty for HEAD, 304, 412 and 416 */
  body: Part[]
}

/**
 * The whole answer to a GET or HEAD for a representation, by RFC 9110: preconditions, then ranges,
 * one as it is and several as multipart/byteranges. Range is defined for GET alone (section 14.2).
 *
 * @param boundary separates the parts of a multipart answer; must not occur in the bytes
 */
export function respond(method: string, request: RequestHeaders, representation: Representation, boundary: () => string): Answer {
  const { size, contentType, headers } = representation
  const verdict = evaluatePreconditions(request, representation)
  if (verdict === 412) return { status: 412, headers: { ...pick(headers, VALIDATOR_FIELDS), 'Content-Length': 0 }, body: [] }
  if (verdict === 304) return { status: 304, headers: representation.unchanged, body: [] }

  const range = headerOf(request, 'range')
  const ranges = method === 'GET' && range !== undefined && rangeApplies(request, representation) ? parseRange(range, size) : undefined

  if (!ranges) return { status: 200, headers, body: method === 'HEAD' || size === 0 ? [] : [{ start: 0, end: size }] }
  if (ranges === 'unsatisfiable') {
    return {
      status: 416,
      headers: { ...pick(headers, VALIDATOR_FIELDS), 'Content-Range': `bytes */${size}`, 'Content-Length': 0 },
      body: [],
    }
  }
  if (ranges.length === 1) {
    const { start, end } = ranges[0]!
    return {
      status: 206,
      headers: { ...headers, 'Content-Range': contentRange(ranges[0]!, size), 'Content-Length': end - start },
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
