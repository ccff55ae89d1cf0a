import { expect, it } from 'vitest'
import { Tree } from '../folders/folderTree'
import { mayBeSeen, type Said } from './mayBeSeen'

const folder = (id: string, parent: string | null, see: Said) => ({ id, parent, see })
const tree = new Tree([
  folder('trade', null, false),
  folder('lists', 'trade', null),
  folder('open', 'lists', true),
  folder('guides', null, null),
])
const seen = (see: Said, where: string | null, site = true) => mayBeSeen({ see, folder: where }, tree, { see: site })

it('the nearest folder counts, and what is said of the file before it', () => {
  expect(seen(null, 'lists')).toBe(false)
  expect(seen(null, 'open')).toBe(true)
  expect(seen(true, 'lists')).toBe(true)
  expect(seen(false, 'open')).toBe(false)
})

it('the site counts where nothing is said on the way up', () => {
  for (const site of [true, false]) for (const where of ['guides', null, 'gone']) expect(seen(null, where, site)).toBe(site)
})
