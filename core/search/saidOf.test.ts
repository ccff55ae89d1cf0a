import { expect, it } from 'vitest'
import { fileItem } from '../testing/items'
import { isSaidOf } from './saidOf'

it('finds what is behind a gate by what pages say of it alone', () => {
  const file = fileItem({
    title: 'Trade price list',
    handle: 'trade.pdf',
    description: 'For schools',
    tags: ['Größen'],
    fileName: 'secret-name.pdf',
    facts: { documentTitle: 'Inner title' },
  })
  for (const q of ['trade', 'PRICE list', 'schools trade', 'grossen', '']) expect(isSaidOf(file, q), q).toBe(true)
  for (const q of ['secret-name', 'inner', 'trade zirconium']) expect(isSaidOf(file, q), q).toBe(false)
})
