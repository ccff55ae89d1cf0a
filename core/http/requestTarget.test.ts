import { describe, expect, it } from 'vitest'
import { namesTwoHosts, originForm } from './requestTarget'

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
