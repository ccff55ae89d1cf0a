import { describe, expect, it } from 'vitest'
import { strongMatch, weakMatch } from './etag'
import { readyFields, represent, respond } from './respond'

const MODIFIED = new Date('2026-11-02T09:00:00Z')
const DATE = MODIFIED.toUTCString()
const LATER = new Date(MODIFIED.getTime() + 60_000).toUTCString()
const EARLIER = new Date(MODIFIED.getTime() - 60_000).toUTCString()
const representation = represent({
  size: 1000,
  contentType: 'application/pdf',
  etag: '"abc"',
  lastModified: MODIFIED,
  extra: { 'Cache-Control': 'no-cache', 'Content-Disposition': 'inline' },
})
const ask = (headers: Record<string, string>, method = 'GET') => respond(method, headers, representation, () => 'BOUNDARY')
const statusOf = (headers: Record<string, string>, method?: string) => ask(headers, method).status

describe('entity tag comparison, the table of RFC 9110, section 8.8.3.2', () => {
  it.each([
    ['W/"1"', 'W/"1"', false, true],
    ['W/"1"', 'W/"2"', false, false],
    ['W/"1"', '"1"', false, true],
    ['"1"', '"1"', true, true],
  ])('%s and %s', (a, b, strong, weak) => {
    expect(strongMatch(a, b)).toBe(strong)
    expect(weakMatch(a, b)).toBe(weak)
  })
})

describe('preconditions (RFC 9110, section 13)', () => {
  it.each([
    [{ 'if-none-match': '"abc"' }, 304],
    [{ 'if-none-match': 'W/"abc"' }, 304],
    [{ 'if-none-match': '"x", "abc"' }, 304],
    [{ 'if-none-match': '*' }, 304],
    [{ 'if-none-match': '"x,abc"' }, 200],
    [{ 'if-modified-since': DATE }, 304],
    [{ 'if-modified-since': LATER }, 304],
    [{ 'if-modified-since': EARLIER }, 200],
    [{ 'if-modified-since': 'nonsense' }, 200],
    // If-None-Match goes before If-Modified-Since (section 13.1.3).
    [{ 'if-none-match': '"x"', 'if-modified-since': DATE }, 200],
    [{ 'if-match': '"abc"' }, 200],
    [{ 'if-match': '*' }, 200],
    [{ 'if-match': '"x"' }, 412],
    [{ 'if-match': 'W/"abc"' }, 412],
    [{ 'if-unmodified-since': DATE }, 200],
    [{ 'if-unmodified-since': EARLIER }, 412],
    // If-Match goes before If-Unmodified-Since (section 13.1.4), and before If-None-Match (13.2.2).
    [{ 'if-match': '"abc"', 'if-unmodified-since': EARLIER }, 200],
    [{ 'if-match': '"x"', 'if-none-match': '"abc"' }, 412],
    [{ 'if-match': '"abc"', 'if-none-match': '"abc"' }, 304],
  ])('%j gives %d', (headers, status) => expect(statusOf(headers)).toBe(status))

  it('go before the range', () => {
    expect(statusOf({ 'if-none-match': '"abc"', 'range': 'bytes=0-9' })).toBe(304)
    expect(statusOf({ 'if-match': '"x"', 'range': 'bytes=0-9' })).toBe(412)
  })

  it('answer 304 with the validators and without the fields of the content (section 15.4.5)', () => {
    const { headers, body } = ask({ 'if-none-match': '"abc"' })
    // Nor Last-Modified: beside an ETag it guides no cache.
    expect(headers).toEqual({ 'ETag': '"abc"', 'Cache-Control': 'no-cache' })
    expect(body).toEqual([])
  })

  it('have their fields ready as the list that is written, in the same order', () => {
    for (const { headers } of [ask({}), ask({ 'if-none-match': '"abc"' })])
      expect(readyFields(headers)).toEqual(Object.entries(headers).flat())
    const { headers } = ask({ range: 'bytes=0-9' })
    expect(readyFields(headers)).toBe(headers)
  })
})

describe('If-Range (RFC 9110, section 13.1.5)', () => {
  it.each([
    ['"abc"', 206],
    ['"x"', 200],
    ['W/"abc"', 200],
    [DATE, 206],
    [EARLIER, 200],
    [LATER, 200],
    ['nonsense', 200],
  ])('%s gives %d', (condition, status) => expect(statusOf({ 'range': 'bytes=0-9', 'if-range': condition })).toBe(status))
})

describe('content', () => {
  it('is sent whole, with its length', () => {
    const { status, headers, body } = ask({})
    expect(status).toBe(200)
    expect(headers).toMatchObject({
      'Content-Length': 1000,
      'Accept-Ranges': 'bytes',
      'Last-Modified': DATE,
      'Content-Disposition': 'inline',
    })
    expect(body).toEqual([{ start: 0, end: 1000 }])
  })

  it('of HEAD has the same fields and no bytes, and Range does not apply to it (section 14.2)', () => {
    const head = ask({ range: 'bytes=0-9' }, 'HEAD')
    expect(head).toEqual({ ...ask({}), body: [] })
  })

  it('of one range says where it lies (section 15.3.7.1)', () => {
    const { status, headers, body } = ask({ range: 'bytes=100-199' })
    expect(status).toBe(206)
    expect(headers).toMatchObject({ 'Content-Range': 'bytes 100-199/1000', 'Content-Length': 100, 'Content-Type': 'application/pdf' })
    expect(body).toEqual([{ start: 100, end: 200 }])
  })

  it('of several ranges is multipart/byteranges without a Content-Range of its own (section 15.3.7.2)', () => {
    const { status, headers, body } = ask({ range: 'bytes=0-1,10-12' })
    expect(status).toBe(206)
    expect(headers).not.toHaveProperty('Content-Range')
    expect(headers['Content-Type']).toBe('multipart/byteranges; boundary=BOUNDARY')
    const text = body.map(part => (typeof part === 'string' ? part : 'x'.repeat(part.end - part.start))).join('')
    expect(text).toBe(
      [
        '--BOUNDARY',
        'Content-Type: application/pdf',
        'Content-Range: bytes 0-1/1000',
        '',
        'xx',
        '--BOUNDARY',
        'Content-Type: application/pdf',
        'Content-Range: bytes 10-12/1000',
        '',
        'xxx',
        '--BOUNDARY--',
        '',
      ].join('\r\n'),
    )
    expect(headers['Content-Length']).toBe(text.length)
  })

  it('that no range touches is refused with the size (section 15.5.17)', () => {
    const { status, headers } = ask({ range: 'bytes=1000-' })
    expect(status).toBe(416)
    expect(headers['Content-Range']).toBe('bytes */1000')
  })
})
