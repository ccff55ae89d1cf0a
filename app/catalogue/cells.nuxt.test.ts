import { expect, it } from 'vitest'
import { useLibrary } from '~/stores/library'
import { useSession } from '~/stores/session'
import { newField } from '~~/core/catalogue/field'
import { fileItem } from '~~/core/testing/items'
import { cellDraft, cellWords, readDraft } from './cells'

const price = newField('p', 'Price', 'money')

it('a number is typed and shown as the site’s language writes it, and read as elsewhere where it can only be meant so', () => {
  const { site } = useSession()
  site.language = 'de'
  expect(cellDraft(price, 1234.5)).toBe('1234,5')
  for (const [typed, value] of [
    ['1234,5', 1234.5],
    ['1.500', 1500],
    ['1.234,50', 1234.5],
    ['12.5', 12.5],
  ] as const)
    expect(readDraft(price, typed)).toBe(value)
  site.language = 'en'
  expect(cellDraft(price, 1234.5)).toBe('1234.5')
  expect(readDraft(price, '1.500')).toBe(1.5)
  expect(readDraft(price, '1,500')).toBe(1500)
  expect(readDraft(price, '12,5')).toBe(12.5)
  expect(() => readDraft(price, 'plenty')).toThrow('Price: “plenty” is no number.')
})

it('several files, and several choices, are what they were once they are copied and pasted', () => {
  const { known } = useLibrary()
  for (const [id, title] of Object.entries({ a: 'Kilns; their care', b: 'Terms, and more' })) known.set(id, fileItem({ id, title }))
  const files = newField('f', 'Files', 'files')
  expect(cellWords(files, ['a', 'b'])).toBe('Kilns; their care, Terms, and more')
  expect(readDraft(files, cellDraft(files, ['a', 'b']))).toEqual(['a', 'b'])
  const choices = newField('c', 'Bodies', 'choices', {
    options: [
      { id: 'r', name: 'Red, iron-rich' },
      { id: 'w', name: 'White' },
    ],
  })
  expect(cellWords(choices, ['r', 'w'])).toBe('Red, iron-rich, White')
  expect(readDraft(choices, cellDraft(choices, ['r', 'w']))).toEqual(['r', 'w'])
})
