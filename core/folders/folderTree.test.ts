import { describe, expect, it } from 'vitest'
import { cleanFolderName, folderNameSchema, sameName } from './folderItem'
import { Tree, freeName } from './folderTree'

const node = (id: string, parent: string | null) => ({ id, parent })
const tree = new Tree([node('a', null), node('b', 'a'), node('c', 'b'), node('d', 'a'), node('x', 'y'), node('y', 'x')])

describe('a tree', () => {
  it('knows the ways up and down', () => {
    expect(tree.pathTo('c').map(({ id }) => id)).toEqual(['a', 'b', 'c'])
    expect(tree.below('a').map(({ id }) => id)).toEqual(['a', 'b', 'd', 'c'])
    expect(tree.childrenOf(null).map(({ id }) => id)).toEqual(['a'])
    expect(tree.below('nowhere')).toEqual([])
  })
  it('ends at loops', () => {
    expect(tree.pathTo('x').map(({ id }) => id)).toEqual(['y', 'x'])
    expect(tree.below('x').map(({ id }) => id)).toEqual(['x', 'y'])
  })
  it.each([
    ['a', 'c', true],
    ['a', 'a', true],
    ['b', 'd', false],
    ['b', null, false],
  ])('%s into %s would loop: %s', (id, into, loops) => expect(tree.wouldLoop(id, into)).toBe(loops))
})

describe('names of folders', () => {
  it.each([
    ['  Price   lists ', 'Price lists'],
    ['a/b\\c', 'a b c'],
    ['..', ''],
    ['.', ''],
    ['\u202Ecod', 'cod'],
    ['a\0b', 'a b'],
    ['n'.repeat(300), 'n'.repeat(120)],
  ])('%j becomes %j', (raw, clean) => expect(cleanFolderName(raw)).toBe(clean))
  it('have to be there', () => expect(folderNameSchema.safeParse(' / ').error!.issues[0]!.message).toBe('Give the folder a name.'))
  it('are the same whatever case and accents', () => expect([sameName('Café', 'CAFE'), sameName('a', 'b')]).toEqual([true, false]))
  it('get a number where they are taken', () => expect(freeName('a', name => ['a', 'a 2'].includes(name))).toBe('a 3'))
})
