import { describe, expect, it } from 'vitest'
import { meantPath, namesTwoHosts, originForm } from './target'

describe('request targets', () => {
  it.each([
    ['/files/a.pdf?save', '/files/a.pdf?save'],
    // RFC 9112, section 3.2.2: "GET http://www.example.org/pub/WWW/TheProject.html HTTP/1.1"
    ['http://www.example.org/pub/WWW/TheProject.html', '/pub/WWW/TheProject.html'],
    ['HTTPS://shop.example:8443/?a=1', '/?a=1'],
    ['http://shop.example', '/'],
    ['http://shop.example?a=1', '/?a=1'],
    ['shop.example:443', undefined],
    ['*', undefined],
    ['ftp://shop.example/', undefined],
  ])('%s', (target, path) => expect(originForm(target)).toBe(path))

  it.each([
    [['Host', 'a', 'Accept', '*/*'], false],
    [['Host', 'a', 'host', 'a'], true],
    [['Accept', 'host'], false],
  ])('two hosts in %j: %s', (fields, two) => expect(namesTwoHosts(fields)).toBe(two))
})

describe('addresses that were meant', () => {
  it.each([
    // RFC 3986, section 6.2.2: "example://a/b/c/%7Bfoo%7D" and "eXAMPLE://a/./b/../b/%63/%7bfoo%7d" are the same.
    ['/b/%63/%7bfoo%7d', '/b/c/%7Bfoo%7D'],
    ['/files/Price-List.PDF', '/files/price-list.pdf'],
    ['/files/price-list.pdf/', '/files/price-list.pdf'],
    ['/files/price-list.pdf.', '/files/price-list.pdf'],
    ['/files/price-list.pdf).', '/files/price-list.pdf'],
    ['/files/price-list.pdf%29', '/files/price-list.pdf'],
    ['//files///price-list.pdf', '/files/price-list.pdf'],
    ['/files/price%2Dlist%2Epdf', '/files/price-list.pdf'],
    ['/files/%D0%BF%D1%80.pdf', '/files/%D0%BF%D1%80.pdf'],
    ['/', '/'],
    ['//', '/'],
    ['/kilns', '/kilns'],
    ['/a%2Fb', '/a%2Fb'],
  ])('%s: %s', (path, meant) => expect(meantPath(path)).toBe(meant))
})
