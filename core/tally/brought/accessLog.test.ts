import { describe, expect, it } from 'vitest'
import { createW3cReader, formatOf, readCombined, readCount } from './accessLog'

describe('the Combined Log Format', () => {
  // Apache HTTP Server documentation, "Log Files", Combined Log Format: its own example.
  const EXAMPLE =
    '127.0.0.1 - frank [10/Oct/2000:13:55:36 -0700] "GET /apache_pb.gif HTTP/1.0" 200 2326 "http://www.example.com/start.html" "Mozilla/4.08 [en] (Win98; I ;Nav)"'

  it('is read as its own documentation says', () => {
    expect(readCombined(EXAMPLE)).toEqual({
      at: Date.UTC(2000, 9, 10, 20, 55, 36),
      address: '127.0.0.1',
      method: 'GET',
      path: '/apache_pb.gif',
      status: 200,
      bytes: 2326,
      referer: 'http://www.example.com/start.html',
      userAgent: 'Mozilla/4.08 [en] (Win98; I ;Nav)',
    })
  })

  it('is read without what only the Combined one has, with escapes, and with zones ahead and by half hours', () => {
    expect(readCombined('2001:db8::1 - - [01/Jan/2025:00:15:00 +0530] "HEAD /a HTTP/1.1" 304 -')).toMatchObject({
      at: Date.UTC(2024, 11, 31, 18, 45),
      address: '2001:db8::1',
      bytes: null,
      userAgent: '',
    })
    expect(
      readCombined(String.raw`192.0.2.1 - - [01/Jan/2025:00:00:00 -0330] "GET /a%20b HTTP/2.0" 200 7 "-" "a \"quoted\" \\ name"`),
    ).toMatchObject({
      at: Date.UTC(2025, 0, 1, 3, 30),
      referer: '',
      userAgent: String.raw`a "quoted" \ name`,
    })
  })

  it.each([
    'nonsense',
    '192.0.2.1 - - [32/Foo/2025:00:00:00 +0000] "GET /a" 200 7',
    '192.0.2.1 - - [01/Jan/2025:00:00:00 +0000] "-" 400 0',
    'x'.repeat(60_000),
  ])('is not read from %.30s', line => expect(readCombined(line)).toBeUndefined())
})

describe('the W3C Extended Log File Format', () => {
  // W3C Working Draft WD-logfile-960323, with fields as servers write them (common practice).
  it('has its fields where its header says, and again where another header stands', () => {
    const read = createW3cReader()
    expect(read('1996-05-02 17:42:15 1.2.3.4 GET /early 200')).toBeUndefined()
    expect([
      read('#Version: 1.0'),
      read('#Fields: date time c-ip cs-method cs-uri-stem cs-uri-query sc-status sc-bytes cs(User-Agent) cs(Referer)'),
    ]).toEqual([null, null])
    expect(read('2025-05-02 17:42:15 172.22.255.255 GET /images/picture.jpg from=poster 200 4096 Mozilla/5.0+(X11;+Linux) -')).toEqual({
      at: Date.UTC(2025, 4, 2, 17, 42, 15),
      address: '172.22.255.255',
      method: 'GET',
      path: '/images/picture.jpg?from=poster',
      status: 200,
      bytes: 4096,
      referer: '',
      userAgent: 'Mozilla/5.0 (X11; Linux)',
    })
    expect(read('2025-05-02 17:42:15 too few')).toBeUndefined()
    read('#Fields: time date cs-uri-stem sc-status')
    expect(read('00:00:01 2025-05-03 /a 206')).toMatchObject({ at: Date.UTC(2025, 4, 3, 0, 0, 1), path: '/a', method: 'GET', bytes: null })
  })
})

describe('a table of counts', () => {
  it.each<[string, ReturnType<typeof readCount>]>([
    ['2025-03-01,price-list.pdf,12', { day: '2025-03-01', file: 'price-list.pdf', count: 12 }],
    ['1.3.2025;Price list;3', { day: '2025-03-01', file: 'Price list', count: 3 }],
    ['2025/3/1\tSlips, glazes and clays\t1', { day: '2025-03-01', file: 'Slips, glazes and clays', count: 1 }],
    ['"2025-03-01","Slips, glazes and clays","7"', { day: '2025-03-01', file: 'Slips, glazes and clays', count: 7 }],
    // What could be March or April, a day that is none, a count that is none, and a heading.
    ['3/4/2025,a,1', undefined],
    ['2025-02-30,a,1', undefined],
    ['2025-03-01,a,-1', undefined],
    ['2025-03-01,a,0', undefined],
    ['2025-03-01,,4', undefined],
    ['day,file,count', undefined],
  ])('reads %s', (line, expected) => expect(readCount(line)).toEqual(expected))
})

it('knows each by its beginning, and nothing else', () => {
  expect(formatOf('\uFEFF#Version: 1.0\n#Fields: date')).toBe('w3c')
  expect(formatOf('broken line\n192.0.2.1 - - [01/Jan/2025:00:00:00 +0000] "GET /a HTTP/1.1" 200 7\n')).toBe('combined')
  expect(formatOf('Day;File;Downloads\r\n2025-01-01;a;1\r\n')).toBe('counts')
  expect(formatOf('%PDF-1.7')).toBeUndefined()
})
