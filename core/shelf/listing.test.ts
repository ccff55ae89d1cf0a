import { describe, expect, it } from 'vitest'
import { Tree } from '../folders/folderTree'
import { filesListed, listingOf, mapListing, placedIn } from './listing'

const tree = new Tree([
  { id: 'kilns', parent: null, name: 'Kilns' },
  { id: 'parts', parent: 'kilns', name: 'Spare parts' },
  { id: 'old', parent: 'parts', name: 'Older' },
  { id: 'empty', parent: 'kilns', name: 'Nothing yet' },
  { id: 'other', parent: null, name: 'Guides' },
])
const file = (id: string, folder: string | null) => ({ id, folder })
const files = [file('b', 'parts'), file('a', 'kilns'), file('c', 'old'), file('d', 'parts'), file('e', 'other'), file('f', null)]

describe('a listing', () => {
  const listing = listingOf('kilns', tree, files)

  it('has each file in its folder, in the order they came in, and no folder without any', () => {
    expect(listing).toEqual({
      files: [file('a', 'kilns')],
      folders: [
        {
          id: 'parts',
          name: 'Spare parts',
          files: [file('b', 'parts'), file('d', 'parts')],
          folders: [{ id: 'old', name: 'Older', files: [file('c', 'old')], folders: [] }],
        },
      ],
    })
  })

  it('gives its files one after another, made into something else, or with their paths', () => {
    expect(filesListed(listing).map(({ id }) => id)).toEqual(['a', 'b', 'd', 'c'])
    expect(filesListed(mapListing(listing, ({ id }) => id.toUpperCase()))).toEqual(['A', 'B', 'D', 'C'])
    expect(placedIn(listing).map(({ item, folder }) => folder + item.id)).toEqual([
      'a',
      'Spare parts/b',
      'Spare parts/d',
      'Spare parts/Older/c',
    ])
  })

  it('ends where folders lie in each other', () => {
    const ring = new Tree([
      { id: 'one', parent: 'two', name: 'One' },
      { id: 'two', parent: 'one', name: 'Two' },
    ])
    expect(filesListed(listingOf('one', ring, [file('x', 'two'), file('y', 'one')])).map(({ id }) => id)).toEqual(['y', 'x'])
  })
})
