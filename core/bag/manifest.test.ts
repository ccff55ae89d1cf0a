import { describe, expect, it } from 'vitest'
import { readManifest, writeBagInfo, writeManifest } from './manifest'

const HASH = 'e3b0c44298fc1c149afbf4c8996fb92427ae41e4649b934ca495991b7852b855'

describe('manifests (RFC 8493, section 2.1.3)', () => {
  it('have checksum and path, line ends and per cent signs in hexadecimal', () => {
    expect(
      writeManifest([
        { path: 'data/100% clay.pdf', sha256: HASH },
        { path: 'data/two\nlines\r.txt', sha256: HASH },
      ]),
    ).toBe(`${HASH}  data/100%25 clay.pdf\n${HASH}  data/two%0Alines%0D.txt\n`)
  })
  it('are read back as they were written', () => {
    const paths = ['data/100% clay.pdf', 'data/two\nlines.txt', 'data/Ünïcode/🏺.pdf', 'data/%41.txt']
    expect([...readManifest(writeManifest(paths.map(path => ({ path, sha256: HASH })))).keys()]).toEqual(paths)
  })
  it('of other programs are read: capital letters, tabs, a star, other line ends', () => {
    expect([...readManifest(`${HASH.toUpperCase()}\tdata/a.txt\r\n${HASH} *./data/b.txt\r\n\n`)]).toEqual([
      ['data/a.txt', HASH],
      ['data/b.txt', HASH],
    ])
  })
  it('that are none are refused', () => expect(() => readManifest('hello\n')).toThrow('“hello” is no line of a manifest.'))
})

it('what is said of the bag stands a line each', () =>
  expect(writeBagInfo({ 'Payload-Oxum': '10.2', 'Source-Organization': 'A\nB' })).toBe('Payload-Oxum: 10.2\nSource-Organization: A B\n'))
