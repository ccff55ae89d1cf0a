import { describe, expect, it } from 'vitest'
import { fileFilterSchema } from '../files/query'
import { fileItem } from '../testing/items'
import { Cards } from './cards'

const filter = (given: object = {}) => fileFilterSchema.parse({ sort: 'title', ...given })
const find = (cards: Cards, given: { q?: string } & object = {}, folders?: Set<string | null>, inside?: Set<string>) =>
  cards.narrow(filter(given), folders).find(given.q, inside)
const idsOf = (cards: Cards, given: object = {}, folders?: Set<string | null>, inside?: Set<string>) =>
  find(cards, given, folders, inside)
    .slice(0, Infinity)
    .map(({ item }) => item.id)

function cardsOf(...items: Parameters<typeof fileItem>[0][]): Cards {
  const cards = new Cards()
  cards.update(items.map(fileItem))
  return cards
}

describe('filters', () => {
  const cards = cardsOf(
    {
      id: 'a',
      title: 'Ärmel',
      folder: 'f1',
      size: 10,
      uses: 2,
      tags: ['x', 'y'],
      created: '2026-01-31T23:59:59.999Z',
      changed: '2026-03-01T00:00:00.000Z',
      family: 'picture',
      mediaType: 'image/png',
      tag: 'PNG',
    },
    { id: 'b', title: 'Bowl', folder: 'f2', size: 20, tags: ['x'], created: '2026-02-01T00:00:00.000Z', reading: 'failed' },
    { id: 'c', title: 'Cup', size: 30, created: '2026-02-02T08:00:00.000Z', waits: true },
    { id: 'd', title: 'Dish', deleted: '2026-02-02T08:00:00.000Z', size: 20 },
  )

  it.each<[string, object, Set<string | null> | undefined, string[]]>([
    ['all but the bin', {}, undefined, ['a', 'b', 'c']],
    ['the bin', { bin: 'true' }, undefined, ['d']],
    ['folders', {}, new Set(['f1', 'f2']), ['a', 'b']],
    ['the top', {}, new Set([null]), ['c']],
    ['a family', { type: 'picture' }, undefined, ['a']],
    ['any of some types', { type: ['image/png', 'document'] }, undefined, ['a', 'b', 'c']],
    ['every tag', { tag: ['x', 'y'] }, undefined, ['a']],
    ['used', { used: 'yes' }, undefined, ['a']],
    ['not used', { used: 'no' }, undefined, ['b', 'c']],
    ['a newer edition', { waits: 'true' }, undefined, ['c']],
    ['could not be read', { reading: 'failed' }, undefined, ['b']],
    ['sizes, both ends in', { least: '10', most: '20' }, undefined, ['a', 'b']],
    ['a day as the end is all of it', { addedTo: '2026-01-31' }, undefined, ['a']],
    ['a day as the beginning', { addedFrom: '2026-02-01' }, undefined, ['b', 'c']],
    ['a moment', { addedFrom: '2026-02-01T09:00:00+01:00', addedTo: '2026-02-02T07:59:59Z' }, undefined, []],
    ['changed', { changedFrom: '2026-02-01', changedTo: '2026-03-01' }, undefined, ['a']],
    ['several together', { tag: 'x', used: 'no', least: 15 }, undefined, ['b']],
  ])('%s', (_, given, folders, expected) => expect(idsOf(cards, given, folders)).toEqual(expected))

  it.each([
    ['-taken30', ['c', 'a', 'b']],
    ['taken30', ['a', 'b', 'c']],
  ])('in the order of %s, files taken alike stand by their titles', (sort, expected) => {
    const alike = cardsOf({ id: 'b', title: 'Cup' }, { id: 'c', title: 'Ärmel' }, { id: 'a', title: 'Bowl' })
    const { slice } = alike.narrow(filter({ sort }), undefined, undefined, new Map([['c', 3]])).find('', undefined)
    expect(slice(0, Infinity).map(({ item }) => item.id)).toEqual(expected)
  })

  it('says what an order or a date has to look like', () => {
    expect(fileFilterSchema.safeParse({ sort: 'colour' }).error!.issues[0]!.message).toMatch(/Sort by title/)
    expect(fileFilterSchema.safeParse({ addedFrom: '24.11.2026' }).error!.issues[0]!.message).toMatch(/Give a day such as/)
  })
})

describe('words', () => {
  const cards = cardsOf(
    { id: 'list', title: 'Price list', fileName: 'preisliste.pdf', tags: ['trade'] },
    { id: 'chart', title: 'Firing chart', description: 'for stoneware, with prices' },
    { id: 'cafe', title: 'Café menu', sha256: 'c'.repeat(64) },
  )

  // Worked by hand: each piece has to stand somewhere in title, file name, handle, description or tags.
  it.each<[string, string[]]>([
    ['price', ['chart', 'list']],
    ['PRICE list', ['list']],
    ['liste', ['list']],
    ['trade pri', ['list']],
    ['stonew', ['chart']],
    ['cafe', ['cafe']],
    ['café MENU', ['cafe']],
    ['%', []],
    ['price trade chart', []],
  ])('“%s”', (q, expected) => expect(idsOf(cards, { q })).toEqual(expected))

  it('forgives slips of typing in titles, where nothing is right', () => {
    expect(find(cards, { q: 'pirce' }).slice(0, 9)).toMatchObject([{ item: { id: 'list' }, by: 'slip' }])
    expect(idsOf(cards, { q: 'chrat firng' })).toEqual(['chart'])
    expect(idsOf(cards, { q: 'pric' })).toEqual(['chart', 'list'])
  })

  it('puts names before words inside, and counts both', () => {
    const hits = find(cards, { q: 'price' }, undefined, new Set(['c'.repeat(64)]))
    expect(hits.slice(0, 9).map(({ item, by }) => [item.id, by])).toEqual([
      ['chart', 'name'],
      ['list', 'name'],
      ['cafe', 'inside'],
    ])
    expect([hits.total, hits.named]).toEqual([3, 2])
    expect(hits.slice(1, 3).map(({ by }) => by)).toEqual(['name', 'inside'])
    expect(hits.slice(2, 9).map(({ by }) => by)).toEqual(['inside'])
  })
})

describe('orders', () => {
  it('put 2 before 10, ignore case and accents, and go both ways', () => {
    const cards = cardsOf(
      { id: 'ten', title: 'Part 10' },
      { id: 'two', title: 'part 2' },
      { id: 'e', title: 'Éclair' },
      { id: 'f', title: 'fan' },
    )
    expect(idsOf(cards)).toEqual(['e', 'f', 'two', 'ten'])
    expect(idsOf(cards, { sort: '-title' })).toEqual(['ten', 'two', 'f', 'e'])
  })

  it('go by extent and by tags', () => {
    const cards = cardsOf(
      { id: 'long', facts: { pages: 30 }, tags: ['b'] },
      { id: 'short', facts: { sheets: 2 }, tags: ['A', 'z'] },
      { id: 'none' },
    )
    expect(idsOf(cards, { sort: '-pages' })).toEqual(['long', 'short', 'none'])
    expect(idsOf(cards, { sort: 'tags' })).toEqual(['none', 'short', 'long'])
  })

  it('stay right while files come, change and go, one or many at a time', () => {
    const cards = new Cards()
    const known = new Map<string, ReturnType<typeof fileItem>>()
    let seed = 7
    const random = (below: number) => (seed = (seed * 1103515245 + 12345) % 2 ** 31) % below
    for (const sort of ['title', '-size', 'used', 'own']) idsOf(cards, { sort })
    for (let round = 0; round < 60; round++) {
      const items = Array.from({ length: round === 30 ? 300 : 1 + random(5) }, () =>
        fileItem({ id: `f${random(200)}`, title: `T${random(50)}`, size: random(9), uses: random(3), position: random(20) }),
      )
      const gone = [`f${random(200)}`].filter(id => !items.some(item => item.id === id))
      cards.update(items, gone)
      for (const item of items) known.set(item.id, item)
      for (const id of gone) known.delete(id)
      const bySize = [...known.values()].sort((a, b) => b.size - a.size || (a.id < b.id ? 1 : -1)).map(item => item.id)
      const byPlace = [...known.values()].sort((a, b) => a.position - b.position || (a.id < b.id ? -1 : 1)).map(item => item.id)
      expect(idsOf(cards, { sort: '-size' })).toEqual(bySize)
      expect(idsOf(cards, { sort: 'own' })).toEqual(byPlace)
      const [one] = known.values()
      if (one)
        expect(idsOf(cards, { q: one.title })).toEqual(
          idsOf(cards).filter(id => known.get(id)!.title.toLowerCase().includes(one.title.toLowerCase())),
        )
    }
  })
})

it('what is narrowed down says which contents it has, where they are few', () => {
  const narrowed = cardsOf({ sha256: 'a'.repeat(64), size: 5 }, { sha256: 'b'.repeat(64), size: 6 }).narrow(filter({ least: 6 }))
  expect([narrowed.contents(1), narrowed.contents(0)]).toEqual([['b'.repeat(64)], undefined])
})
