import { expect, it } from 'vitest'
import { newField } from './field'
import { looseFiles, placeFiles, type FolderFile } from './folderFiles'
import { entryMatcher } from './match'

const FIELDS = [newField('title', 'Name'), newField('number', 'Number', 'text', { unique: true }), newField('sheet', 'Sheet', 'file')]
const SHEET = FIELDS[2]!
const ENTRIES = [
  { id: 'white', values: { title: 'White stoneware', number: 'C-101' } },
  { id: 'black', values: { title: 'Black stoneware', number: 'C-102' } },
]
const file = (id: string, name: string, created: number): FolderFile => ({ id, name, created })
function place(files: FolderFile[], entries: Parameters<typeof placeFiles>[2] = ENTRIES, field = SHEET) {
  const loose = looseFiles(field, files, entries)
  const { values, strays } = placeFiles(field, files, entries, loose.map(entryMatcher(entries, FIELDS, null)))
  return { values: Object.fromEntries(values), strays: strays.map(({ file: id }) => id) }
}

it('files find their entries by what is in their names; what fits none beyond doubt is told', () =>
  expect(
    place([file('a', 'C-101 sheet.pdf', 1), file('b', 'c102.pdf', 2), file('c', 'stoneware.pdf', 3), file('d', 'terms.pdf', 4)]),
  ).toEqual({
    values: { white: 'a', black: 'b' },
    strays: ['c', 'd'],
  }))

it("next year's file takes the place of this year's, whatever order they are read in, and not the other way round", () => {
  const [old, young] = [file('old', 'C-101 2026.pdf', 1), file('young', 'C-101 2027.pdf', 2)]
  expect(place([young, old]).values).toEqual({ white: 'young' })
  const held = [{ id: 'white', values: { title: 'White stoneware', number: 'C-101', sheet: 'young' } }]
  expect(place([young, old], held)).toEqual({ values: {}, strays: [] })
  expect(place([young, old], [{ ...held[0]!, values: { ...held[0]!.values, sheet: 'old' } }]).values).toEqual({ white: 'young' })
})

it('what somebody put in from elsewhere stays', () =>
  expect(
    place([file('a', 'C-101.pdf', 1)], [{ id: 'white', values: { title: 'White', number: 'C-101', sheet: 'elsewhere' } }]).values,
  ).toEqual({}))

it('a field of several takes all that fit', () =>
  expect(place([file('a', 'C-101 en.pdf', 1), file('b', 'C-101 de.pdf', 2)], ENTRIES, newField('sheet', 'Sheets', 'files')).values).toEqual(
    {
      white: ['a', 'b'],
    },
  ))
