import { describe, expect, it } from 'vitest'
import { canBeAsked, normalPath, waysToRead } from './path'
import { readAddresses } from './readAddressList'

const paths = (text: string, hosts: string[] = []) => readAddresses(text, hosts).addresses.map(({ path }) => path)

describe('a list of old addresses', () => {
  it('is read from a sitemap as the protocol has it', () => {
    // The sample of sitemaps.org, protocol 0.9 (from memory), with a second place whose ampersand is escaped as it asks.
    const text =
      '<?xml version="1.0" encoding="UTF-8"?>\n<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">\n<url>\n<loc>http://www.example.com/</loc>\n<lastmod>2005-01-01</lastmod>\n</url>\n<url><loc>http://www.example.com/catalog?item=12&amp;desc=vacation_hawaii</loc></url></urlset>'
    expect(readAddresses(text, [])).toEqual({ addresses: [{ path: '/catalog?item=12&desc=vacation_hawaii' }], left: 1 })
  })

  it('is read from a table, with what each leads to where that is said, and from plain lines', () => {
    expect(readAddresses('old,new\r\nhttp://old.example/a.pdf,/files/a.pdf\r\n"/b, c.pdf",\r\nnot an address\r\n', [])).toEqual({
      addresses: [{ path: '/a.pdf', leadsTo: '/files/a.pdf' }, { path: '/b,%20c.pdf' }],
      left: 1,
    })
    expect(paths('/one.pdf\n/two.pdf\n/one.pdf\n')).toEqual(['/one.pdf', '/two.pdf'])
  })

  // RFC 3986, 5.4.1 and 5.4.2: references within http://a/b/c/d;p?q. "g:h" is none of the web, and of "http:g" it allows two readings.
  it.each([
    ['g', '/b/c/g'],
    ['./g', '/b/c/g'],
    ['g/', '/b/c/g/'],
    ['/g', '/g'],
    ['//a/g', '/g'],
    ['?y', '/b/c/d;p?y'],
    ['g?y', '/b/c/g?y'],
    ['g#s', '/b/c/g'],
    ['g?y#s', '/b/c/g?y'],
    [';x', '/b/c/;x'],
    ['g;x', '/b/c/g;x'],
    ['g;x?y#s', '/b/c/g;x?y'],
    ['', '/b/c/d;p?q'],
    ['.', '/b/c/'],
    ['./', '/b/c/'],
    ['..', '/b/'],
    ['../', '/b/'],
    ['../g', '/b/g'],
    ['../../g', '/g'],
    ['../../../g', '/g'],
    ['../../../../g', '/g'],
    ['/./g', '/g'],
    ['/../g', '/g'],
    ['g.', '/b/c/g.'],
    ['.g', '/b/c/.g'],
    ['g..', '/b/c/g..'],
    ['..g', '/b/c/..g'],
    ['./../g', '/b/g'],
    ['./g/.', '/b/c/g/'],
    ['g/./h', '/b/c/g/h'],
    ['g/../h', '/b/c/h'],
    ['g;x=1/./y', '/b/c/g;x=1/y'],
    ['g;x=1/../y', '/b/c/y'],
    ['g?y/./x', '/b/c/g?y/./x'],
    ['g#s/../x', '/b/c/g'],
  ])('of a page resolves %j as RFC 3986 has it', (reference, path) => {
    expect(paths(`<base href="http://a/b/c/d;p?q"><a href="${reference}">x</a>`)).toEqual([path])
  })

  it('of a page has its links and pictures on hosts of the site, and leaves the others', () => {
    const page =
      '<!doctype html><body><a href="/list.pdf">List</a><a href="http://old.example/b.html">B</a><a href="https://elsewhere.example/">C</a><a href="mailto:x@old.example">D</a><a href="#top">top</a><img src="tiles/red.jpg"><a href="javascript:alert(1)">E</a>'
    expect(readAddresses(page, ['old.example'])).toEqual({
      addresses: [{ path: '/list.pdf' }, { path: '/b.html' }, { path: '/tiles/red.jpg' }],
      left: 3,
    })
  })

  it('has none that Trough itself answers at, and none that is too long', () => {
    expect(paths(`/\n/desk\n/desk/checks\n/api/files\n/_nuxt/x.js\n/desks\n/${'a'.repeat(2001)}\n`)).toEqual(['/desks'])
    expect([canBeAsked('/files/list.pdf'), canBeAsked('/api')]).toEqual([true, false])
  })

  it('is read whole where it has 100,000 lines', () => {
    expect(paths(Array.from({ length: 100_000 }, (_, index) => `http://old.example/downloads/file-${index}.pdf`).join('\n'))).toHaveLength(
      100_000,
    )
  })

  it.each(['<urlset><url><loc>', '<html><a href="', '"', '\0\0', '<a href="http://[">x</a>'])(
    'that is broken off or nonsense (%j) gives no error',
    text => expect(paths(text)).toEqual([]),
  )
})

// RFC 3986, 6.2.2: the same place written in several ways.
it.each([
  ['/%7Esmith/home.html', '/~smith/home.html'],
  ['/a%c2%b1b', '/a%C2%B1b'],
  ['/%41?q=%2f', '/A?q=%2F'],
  ['/%zz', '/%zz'],
])('%s means %s', (written, normal) => expect(normalPath(written)).toBe(normal))

it('an address that is asked for is looked for without its query, slash or index file, too', () => {
  expect(waysToRead('/shop/index.html?ref=mail')).toEqual(['/shop/index.html?ref=mail', '/shop/index.html', '/shop', '/shop/'])
  expect(waysToRead('/a%7e')).toEqual(['/a~', '/a~/'])
})
