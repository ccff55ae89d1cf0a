import { expect, it } from 'vitest'
import { Suggester, type Candidate } from './suggest'

const file = (id: string, title: string, ...names: string[]): Candidate => ({
  target: { kind: 'file', id },
  title,
  names: [title, ...names],
  ending: names[0]!.slice(names[0]!.lastIndexOf('.')),
  weight: id === 'used' ? 3 : 0,
})
const CANDIDATES = [
  file('list', 'Price list', 'price-list-2026-11.pdf'),
  file('trade', 'Trade price list', 'trade-price-list-2026-11.pdf'),
  file('k60', 'K60 kiln manual', 'marlpit-k60-manual.pdf'),
  file('tiles', 'Test tile: oribe', 'test-tile-oribe.png'),
  file('twin', 'Rules', 'rules.pdf'),
  file('twin2', 'Rules', 'rules.pdf'),
  file('unused', 'Stock', 'stock.csv'),
  file('used', 'Stock', 'stock.csv'),
  {
    target: { kind: 'page', id: 'clay' },
    title: 'Clay & glaze',
    names: ['Clay & glaze', 'clay-and-glaze'],
    ending: '',
    weight: 0,
  } as Candidate,
]
const suggester = new Suggester(CANDIDATES)
const named = (path: string) => (suggester.suggest(path)?.target as { id: string } | undefined)?.id

it.each([
  ['/downloads/price_list_2024.pdf', 'list'],
  ['/pdf/Price%20List%20final%20(2).pdf', 'list'],
  ['/trade/trade-price-list-05-2023.pdf', 'trade'],
  ['/wp/k60-manual.pdf', 'k60'],
  ['/clay-and-glaze.html', 'clay'],
  ['/img/oribe-test-tile.png', 'tiles'],
  ['/about-us', undefined],
  ['/', undefined],
  ['/2024/', undefined],
  ['/stock.csv', 'used'],
  // Two have as much in common: neither is offered.
  ['/rules.pdf', undefined],
  ['/%zz.pdf', undefined],
])('%s is likely %s now', (path, id) => expect(named(path)).toBe(id))

it('the same words in another kind of file are less alike', () => {
  const [same, other] = ['/price-list.pdf', '/price-list.zip'].map(path => suggester.suggest(path)!.likeness)
  expect(same).toBe(1)
  expect(other).toBeLessThan(1)
})
