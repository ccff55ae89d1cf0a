import { describe, expect, it } from 'vitest'
import { brokenPlacements } from '../walk/broken'
import { button, heading, linkMark, pageOf, shelf, words } from '../testing/pages'
import { newPicture } from './insert'
import { blockOf, giveShelf, giveTarget, idOf, keyOf, mapTargets, placementsOf } from './targets'
import {
  buttonAttrsSchema,
  pageDocumentSchema,
  type Block,
  type PageDocument,
  type PlainBlock,
  type Reference,
  type SectionBlock,
} from './schema'

const list = (...content: PlainBlock[]): PlainBlock => ({ type: 'bulletList', content: [{ type: 'listItem', content }] })
const document = pageOf(
  words('See the list', linkMark('bbbbbbbbbb', 'pdf')),
  list(words('one'), button({ placement: 'cccccccccc', target: { kind: 'file', id: 'zip' }, label: 'Zip' })),
  button({ placement: 'dddddddddd', target: null, label: 'Later' }),
)

describe('placementsOf', () => {
  it('finds buttons and links, also in lists', () => {
    expect(placementsOf(document).map(({ id, kind, label, targets }) => [id, kind, label, idOf(targets[0])])).toEqual([
      ['bbbbbbbbbb', 'link', 'See the list', 'pdf'],
      ['cccccccccc', 'button', 'Zip', 'zip'],
      ['dddddddddd', 'button', 'Later', undefined],
    ])
  })

  it('reads a link over several pieces of text as one', () => {
    const mark = linkMark('bbbbbbbbbb', 'pdf')
    const [only, ...rest] = placementsOf(
      pageOf({
        type: 'paragraph',
        content: [
          { type: 'text', text: 'price ', marks: [mark] },
          { type: 'text', text: 'list', marks: [{ type: 'bold' }, mark] },
        ],
      }),
    )
    expect(only!.label).toBe('price list')
    expect(rest).toEqual([])
  })
})

describe('blockOf', () => {
  const [one, other] = [button({ placement: 'aaaaaaaaaa' }), button({ placement: 'bbbbbbbbbb' })]
  const linked = words('the list', linkMark('cccccccccc', 'pdf'))
  const dark = { type: 'section', attrs: { tone: 'dark' }, content: [words('Before'), other] } as unknown as SectionBlock

  it('is what a placement is, or stands in; within a section it keeps what is behind it', () => {
    const page = pageOf(one, linked, dark)
    expect(blockOf(page, 'aaaaaaaaaa')).toBe(one)
    expect(blockOf(page, 'cccccccccc')).toBe(linked)
    expect(blockOf(page, 'bbbbbbbbbb')).toEqual({ ...dark, content: [other] })
    expect(blockOf(page, 'dddddddddd')).toBeUndefined()
  })
})

describe('giveTarget', () => {
  const file = { kind: 'file', id: 'new' } as const
  const targetsAfter = (page: PageDocument, placement: string) =>
    placementsOf(giveTarget(page, placement, file)).map(({ id, targets }) => [id, targets.map(idOf)])

  it('gives a button or link, and no other, what it was waiting for', () => {
    expect(targetsAfter(document, 'dddddddddd')).toEqual([
      ['bbbbbbbbbb', ['pdf']],
      ['cccccccccc', ['zip']],
      ['dddddddddd', ['new']],
    ])
  })

  it('lets a picture that waited for its file show it, and one that has its file lead there', () => {
    const picture = (shown: string | null): PlainBlock => ({ type: 'picture', attrs: { ...newPicture(shown), placement: 'pppppppppp' } })
    expect(targetsAfter(pageOf(picture(null)), 'pppppppppp')).toEqual([['pppppppppp', ['new']]])
    expect(targetsAfter(pageOf(picture('tile')), 'pppppppppp')).toEqual([['pppppppppp', ['tile', 'new']]])
  })
})

describe('a shelf', () => {
  const targetsOf = (page: PageDocument) =>
    placementsOf(page).map(({ kind, targets }) => [kind, targets.map(target => `${target.kind} ${idOf(target)}`)])
  const folder = shelf({ source: { kind: 'folder', id: 'sheets', order: 'title', below: 'no' } })

  it('leans on its files or its folder, also inside a list', () => {
    expect(targetsOf(pageOf(shelf()))).toEqual([['shelf', ['file pdf', 'file zip']]])
    expect(targetsOf(pageOf(list(words('x'), folder)))).toEqual([['shelf', ['folder sheets']]])
    expect(targetsOf(pageOf(shelf({ source: null })))).toEqual([['shelf', []]])
  })

  it('lists what it was waiting for, once that is known', () => {
    const page = pageOf(shelf({ source: null, placement: 'ssssssssss' }), shelf({ placement: 'tttttttttt' }))
    expect(targetsOf(giveShelf(page, 'ssssssssss', { kind: 'folder', id: 'sheets', order: 'own', below: 'no' }))).toEqual([
      ['shelf', ['folder sheets']],
      ['shelf', ['file pdf', 'file zip']],
    ])
  })

  it('gets another file in the place of one, once; loses one; and goes when nothing is left of it', () => {
    const decided = (to: 'remove' | 'zip') =>
      targetsOf(mapTargets(pageOf(shelf()), target => (idOf(target) !== 'pdf' ? target : to === 'remove' ? to : { kind: 'file', id: to })))
    expect(decided('zip')).toEqual([['shelf', ['file zip']]])
    expect(decided('remove')).toEqual([['shelf', ['file zip']]])
    expect(targetsOf(mapTargets(pageOf(shelf()), () => 'remove'))).toEqual([])
    expect(targetsOf(mapTargets(pageOf(folder, shelf()), target => target, 'sheets'))).toEqual([['shelf', ['file pdf', 'file zip']]])
  })

  it('is broken where it has no source, or one thing of it is out of reach', () => {
    const faults = (block: Block, reachable: string[]) =>
      brokenPlacements(pageOf(block), target => reachable.includes(idOf(target)!)).map(({ fault }) => fault)
    expect(faults(shelf(), ['pdf', 'zip'])).toEqual([])
    expect(faults(shelf(), ['pdf'])).toEqual(['in-bin'])
    expect(faults(folder, [])).toEqual(['in-bin'])
    expect(faults(shelf({ source: null }), [])).toEqual(['no-target'])
  })
})

describe('mapTargets', () => {
  it('gives placements another target and touches nothing else', () => {
    const mapped = mapTargets(document, target => (idOf(target) === 'zip' ? { kind: 'file', id: 'new' } : target))
    expect(placementsOf(mapped).map(({ targets }) => idOf(targets[0]))).toEqual(['pdf', 'new', undefined])
    expect(mapTargets(mapped, target => (idOf(target) === 'new' ? { kind: 'file', id: 'zip' } : target))).toEqual(document)
  })

  it('can go by placement', () => {
    const mapped = mapTargets(document, (target, placement) => (placement === 'dddddddddd' ? { kind: 'file', id: 'late' } : target))
    expect(placementsOf(mapped).map(({ targets }) => idOf(targets[0]))).toEqual(['pdf', 'zip', 'late'])
  })

  it('takes buttons off and leaves the words of links; what is left is still a page', () => {
    const mapped = mapTargets(
      pageOf(button(), words('list', linkMark('bbbbbbbbbb', 'pdf')), list(button({ placement: 'cccccccccc' }))),
      () => 'remove',
    )
    expect(placementsOf(mapped)).toEqual([])
    expect(JSON.stringify(mapped)).toContain('"text":"list"')
    expect(pageDocumentSchema.safeParse(mapped).success).toBe(true)
    expect(pageDocumentSchema.safeParse(mapTargets(pageOf(button()), () => 'remove')).success).toBe(true)
  })
})

describe('brokenPlacements', () => {
  it('tells what has no target from what cannot be reached', () => {
    expect(brokenPlacements(document, target => idOf(target) === 'pdf').map(({ placement, fault }) => [placement.label, fault])).toEqual([
      ['Zip', 'in-bin'],
      ['Later', 'no-target'],
    ])
  })
})

describe('pageDocumentSchema', () => {
  it('takes the document and refuses what no renderer knows', () => {
    expect(pageDocumentSchema.parse(document)).toEqual(document)
    for (const content of [
      [],
      [{ type: 'iframe' }],
      [{ type: 'heading', attrs: { level: 1 } }],
      [{ type: 'paragraph', content: [{ type: 'text', text: '' }] }],
    ]) {
      expect(pageDocumentSchema.safeParse({ type: 'doc', content }).success).toBe(false)
    }
  })

  it('refuses labels of 10,000 characters and placements that are none', () => {
    const { attrs } = button() as Extract<Block, { type: 'downloadButton' }>
    expect(buttonAttrsSchema.safeParse(attrs).success).toBe(true)
    expect(buttonAttrsSchema.safeParse({ ...attrs, label: 'x'.repeat(10_000) }).success).toBe(false)
    expect(buttonAttrsSchema.safeParse({ ...attrs, placement: '"><script>' }).success).toBe(false)
  })
})

describe('the section of a placement', () => {
  it('is the heading it stands under, be it in columns; a link in a heading stands under that', () => {
    const document = pageOf(
      button({ placement: 'above' }),
      heading('Clay'),
      {
        type: 'columns',
        content: [
          { type: 'column', content: [heading('Stoneware', 3), button({ placement: 'stone' })] },
          { type: 'column', content: [words('Read it', linkMark('read', 'pdf'))] },
        ],
      },
      {
        type: 'heading',
        attrs: { level: 2 },
        content: [
          { type: 'text', text: 'The ' },
          { type: 'text', text: 'list', marks: [linkMark('inside', 'pdf')] },
        ],
      },
      { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: ' ' }] },
      shelf({ placement: 'shelf' }),
    )
    expect(placementsOf(document).map(({ id, section }) => [id, section])).toEqual([
      ['above', ''],
      ['stone', 'Stoneware'],
      ['read', 'Stoneware'],
      ['inside', 'The list'],
      ['shelf', 'The list'],
    ])
  })
})

describe('the key of a target', () => {
  const address = (href: string): Reference => ({ kind: 'address', href })
  // RFC 3986, 6.2.2 and 6.2.3: case of scheme and host, percent-encoding, dot segments, a port that is usual anyway, an empty path.
  it.each([
    ['HTTP://EXAMPLE.com:80', 'http://example.com/'],
    ['http://example.com/a/./b/../c', 'http://example.com/a/c'],
  ])('is the same for %s and %s', (one, other) => expect(keyOf(address(one))).toBe(keyOf(address(other))))

  it.each([
    [address('http://example.com/a'), address('https://example.com/a')],
    [address('https://example.com/A'), address('https://example.com/a')],
    [
      { kind: 'file', id: 'x' },
      { kind: 'page', id: 'x' },
    ],
    [
      { kind: 'email', address: 'shop@example.com' },
      { kind: 'email', address: 'Shop@example.com' },
    ],
  ] as [Reference, Reference][])('tells %j from %j', (one, other) => expect(keyOf(one)).not.toBe(keyOf(other)))
})
