import { expect, it } from 'vitest'
import type { Values } from './entry'
import { newField } from './field'
import { losses, refitted, withChoicesFrom } from './fieldChange'

const TITLE = newField('title', 'Name')
const OPTIONS = [
  { id: 's', name: 'Stoneware' },
  { id: 'p', name: 'Porcelain' },
]

it('what is written goes with a field as far as it can, and what would be lost is said before', () => {
  const before = [TITLE, newField('price', 'Price', 'text'), newField('body', 'Body', 'choice', { options: OPTIONS })]
  const after = [TITLE, newField('price', 'Price', 'money'), newField('body', 'Body', 'text')]
  const all: Values[] = [
    { title: 'a', price: '12.50', body: 's' },
    { title: 'b', price: 'on request' },
  ]
  expect(losses(before, after, all)).toMatchObject([{ field: 'price', entries: 1 }])
  expect(all.map(values => refitted(before, after, values))).toEqual([{ title: 'a', price: 12.5, body: 'Stoneware' }, { title: 'b' }])
  // The same object where nothing changes: nothing is written anew.
  expect(refitted(before, before, all[0]!)).toBe(all[0])
})

it('a field of several keeps all of them, and one of one says what it would cut', () => {
  const one = [TITLE, newField('f', 'Files', 'file')]
  const many = [TITLE, newField('f', 'Files', 'files')]
  expect(refitted(one, many, { title: 'a', f: 'x' })).toEqual({ title: 'a', f: ['x'] })
  expect(
    losses(many, one, [
      { title: 'a', f: ['x', 'y'] },
      { title: 'b', f: ['x'] },
    ]),
  ).toMatchObject([{ field: 'f', entries: 1 }])
  // Any file may be no picture; a picture is a file.
  expect(losses(one, [TITLE, newField('f', 'Files', 'picture')], [{ title: 'a', f: 'x' }])).toHaveLength(1)
})

it('words become choices with those that are written, each once', () => {
  const before = newField('body', 'Body')
  const after = withChoicesFrom(before, newField('body', 'Body', 'choice'), ['Stoneware', 'stoneware', undefined, 'Porcelain'])
  expect(after.options.map(({ name }) => name)).toEqual(['stoneware', 'Porcelain'])
  expect(refitted([TITLE, before], [TITLE, after], { title: 'a', body: 'STONEWARE' })).toEqual({ title: 'a', body: after.options[0]!.id })
})
