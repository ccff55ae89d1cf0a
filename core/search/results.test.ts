import { expect, it } from 'vitest'
import { Tree } from '../folders/folderTree'
import { fileItem } from '../testing/items'
import { RESULTS_PER_PAGE, resultsOf, type Results } from './results'
import { readSearchQuery } from './searchQuery'

const tree = new Tree([
  { id: 'kilns', parent: null, name: 'Kilns' },
  { id: 'parts', parent: 'kilns', name: 'Spare parts' },
  { id: 'guides', parent: null, name: 'Guides' },
])
const hit = (given: Parameters<typeof fileItem>[0]): Results['found'][number] => ({ item: fileItem(given), by: 'name' })
const HITS = [
  hit({ title: 'Manual', folder: 'kilns', tags: ['K60', 'manual'], changed: '2026-03-01T10:00:00.000Z' }),
  hit({ title: 'Parts', folder: 'parts', family: 'sheet', tags: ['K60'], changed: '2026-03-31T23:59:59.000Z' }),
  hit({ title: 'Glaze', folder: 'guides', changed: '2026-04-01T00:00:00.000Z' }),
  hit({ title: 'Loose', folder: null, changed: '2025-01-01T00:00:00.000Z' }),
]
const results = (query: string, hits = HITS) => resultsOf(hits, readSearchQuery(new URLSearchParams(query)), tree)
const titles = (query: string) => results(query).found.map(({ item }) => item.title)
const counts = (choices: { name: string; count: number }[]) => choices.map(({ name, count }) => `${name} ${count}`)

it('narrows by folder with those below, kind, tag, and days with both ends', () => {
  expect(titles('folder=kilns')).toEqual(['Manual', 'Parts'])
  expect(titles('folder=parts')).toEqual(['Parts'])
  expect(titles('kind=document')).toEqual(['Manual', 'Glaze', 'Loose'])
  expect(titles('tag=K60&kind=sheet')).toEqual(['Parts'])
  expect(titles('from=2026-03-01&to=2026-03-31')).toEqual(['Manual', 'Parts'])
  expect(titles('folder=gone')).toEqual([])
})

it('says of each choice what it would leave, with what else holds', () => {
  const all = results('')
  expect(counts(all.folders)).toEqual(['Kilns 2', 'Guides 1'])
  expect(counts(all.kinds)).toEqual(['document 3', 'sheet 1'])
  expect(counts(all.tags)).toEqual(['K60 2', 'manual 1'])
  const sheets = results('kind=sheet')
  expect(counts(sheets.folders)).toEqual(['Kilns 1'])
  // Another kind can still be taken instead.
  expect(counts(sheets.kinds)).toEqual(['document 3', 'sheet 1'])
  const inside = results('folder=kilns')
  expect(counts(inside.folders)).toEqual(['Spare parts 1'])
  expect(inside.path).toEqual([{ id: 'kilns', name: 'Kilns' }])
})

it('gives it in pages, the last for one behind it', () => {
  const many = Array.from({ length: RESULTS_PER_PAGE * 2 + 1 }, (_, index) => hit({ title: String(index) }))
  expect(results('page=2', many)).toMatchObject({ page: 2, pages: 3, total: RESULTS_PER_PAGE * 2 + 1 })
  expect(results('page=999999999', many).found.map(({ item }) => item.title)).toEqual([String(RESULTS_PER_PAGE * 2)])
  expect(results('', [])).toMatchObject({ page: 1, pages: 1, total: 0, found: [] })
})
