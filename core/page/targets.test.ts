import { describe, expect, it } from 'vitest'
import { button, heading, linkMark, pageOf, shelf, words } from '../testing/pages'
import type { Reference } from './schema'
import { keyOf, placementsOf } from './targets'

describe('the section of a placement', () => {
  it('is the heading it stands under, be it in columns; a link in a heading stands under that', () => {
    const document = pageOf(
      button({ placement: 'above' }),
      heading('Clay'),
      { type: 'columns', content: [{ type: 'column', content: [heading('Stoneware', 3), button({ placement: 'stone' })] }, { type: 'column', content: [words('Read it', linkMark('read', 'pdf'))] }] },
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'The ' }, { type: 'text', text: 'list', marks: [linkMark('inside', 'pdf')] }] },
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: ' ' }] },
      shelf({ placement: 'shelf' }),
    )
    expect(placementsOf(document).map(({ id, section }) => [id, section])).toEqual([['above', ''], ['stone', 'Stoneware'], ['read', 'Stoneware'], ['inside', 'The list'], ['shelf', 'The list']])
  })
})

describe('the key of a target', () => {
  const address = (href: string): Reference => ({ kind: 'address', href })
  // RFC 3986, 6.2.2 and 6.2.3: case of scheme and host, percent-encoding, dot segments, a port that is usual anyway, an empty path.
  it.each([
    ['HTTP://EXAMPLE.com:80', 'http://example.com/'], ['http://example.com/a/./b/../c', 'http://example.com/a/c'],
  ])('is the same for %s and %s', (one, other) => expect(keyOf(address(one))).toBe(keyOf(address(other))))

  it.each([
    [address('http://example.com/a'), address('https://example.com/a')], [address('https://example.com/A'), address('https://example.com/a')],
    [{ kind: 'file', id: 'x' }, { kind: 'page', id: 'x' }], [{ kind: 'email', address: 'shop@example.com' }, { kind: 'email', address: 'Shop@example.com' }],
  ] as [Reference, Reference][])('tells %j from %j', (one, other) => expect(keyOf(one)).not.toBe(keyOf(other)))
})
