import { describe, expect, it } from 'vitest'
import { newField } from './field'
import type { CatalogueItem } from './catalogue'
import { matchFiles } from './match'
import { columnsOf, firstPlan, namesFrom, planImport, withHeading } from './planning'

const TABLE = [
  ['No.', 'Bezeichnung', 'Preis', 'Ab', 'Lagernd', 'Blatt'],
  ['001', 'Steinzeug, weiß', '1.234,50 €', '31.01.2027', 'ja', 'a.pdf'],
  ['002', 'Steinzeug, rot', '12,00 €', '01.02.2027', 'nein', 'b.pdf'],
]
const look = (rows: string[][]) => {
  const { names, body, first } = withHeading(rows)
  return { columns: columnsOf(names, body), body, first }
}
const planned = (
  rows: string[][],
  {
    catalogue,
    entries = [],
    key,
  }: { catalogue?: CatalogueItem; entries?: { id: string; values: Record<string, string> }[]; key?: number } = {},
) => {
  const { columns, body, first } = look(rows)
  const plan = { ...firstPlan(columns, body, catalogue), ...(key !== undefined && { key }) }
  return planImport({
    columns,
    body,
    first,
    plan,
    fields: catalogue?.fields ?? [newField('title', 'Name')],
    entries,
    fileNamed: name => `id-${name[0]}`,
  })
}

describe('a table', () => {
  it('is told by what is in it: numbers, prices, days, yes and no, files, and what names its rows', () => {
    const { columns, body } = look(TABLE)
    expect(columns.map(({ kind }) => kind)).toEqual(['text', 'text', 'money', 'date', 'yesNo', 'file'])
    expect(columns[2]).toMatchObject({ decimal: ',', currency: 'EUR' })
    expect(firstPlan(columns, body, undefined)).toMatchObject({
      key: 0,
      mapping: [{ to: 'new' }, { to: 'field', field: 'title' }, { to: 'new' }, { to: 'new' }, { to: 'new' }, { to: 'new' }],
    })
    const { rows, fields } = planned(TABLE)
    const of = (name: string) => rows[0]!.values[fields.find(field => field.name === name)!.id]
    expect([of('Name'), of('Preis'), of('Ab'), of('Lagernd'), of('Blatt')]).toEqual(['Steinzeug, weiß', 1234.5, '2027-01-31', true, 'id-a'])
  })

  it('has its heading told from what is below it, numbers in it included', () => {
    expect(
      withHeading([
        ['Number', 'Price of 12.5 kg'],
        ['C1', '9.50'],
      ]).names,
    ).toEqual(['Number', 'Price of 12.5 kg'])
  })

  it('without a heading has one made up', () => {
    const { names, body, first } = withHeading([
      ['1', 'Clay'],
      ['2', 'Glaze'],
    ])
    expect([names, body.length, first]).toEqual([['Column 1', 'Column 2'], 2, 1])
  })

  it('tells rows that are doubled, and cells that cannot be, by row and column as a spreadsheet counts', () => {
    const { counts, wrong } = planned(
      [
        ['Number', 'Name', 'Price'],
        ['1', 'Crank', '9.00'],
        ['1', 'Buff', '9.50'],
        ['3', '', '1.00'],
      ],
      { key: 0 },
    )
    expect(counts).toMatchObject({ new: 1, left: 2 })
    expect(wrong.map(({ row, column }) => [row, column])).toEqual([
      [3, 'Number'],
      [4, 'Name'],
    ])
  })

  it('makes choices that are not there yet, and changes only what it names', () => {
    const body = newField('body', 'Body', 'choice', { options: [{ id: 's', name: 'Stoneware' }] })
    const catalogue = { id: 'c', fields: [newField('title', 'Name'), body], key: null, entries: 1 } as unknown as CatalogueItem
    const { rows, fields, counts } = planned(
      [
        ['Name', 'Body'],
        ['Crank', ''],
        ['P40', 'Porcelain'],
      ],
      { catalogue, entries: [{ id: 'e1', values: { title: 'Crank', body: 's' } }] },
    )
    expect(counts).toMatchObject({ new: 1, changed: 0, same: 1 })
    expect(fields[1]!.options.map(({ name }) => name)).toEqual(['Stoneware', 'Porcelain'])
    expect(rows).toHaveLength(1)
  })

  it.each([
    ['products.csv', 'Products', 'product'],
    ['clay_bodies-2026-11.xlsx', 'Clay bodies', 'clay body'],
    ['Classes.ods', 'Classes', 'class'],
    ['price list.csv', 'Price', 'price'],
    ['2026.csv', 'Entries', 'entry'],
  ])('%s is called after its file', (file, name, one) => {
    expect(namesFrom(file)).toEqual({ name, one })
  })
})

describe('files', () => {
  const FIELDS = [newField('title', 'Name'), newField('number', 'Number', 'text', { unique: true }), newField('sheet', 'Sheet', 'file')]
  const ENTRIES = [
    { id: 'a', values: { title: 'Stoneware', number: 'C101' } },
    { id: 'b', values: { title: 'White stoneware', number: 'C102' } },
    { id: 'c', values: { title: 'Porcelain P40', number: 'C103' } },
  ]
  const match = (...names: string[]) =>
    matchFiles(
      names.map(name => ({ id: name, name })),
      ENTRIES,
      FIELDS,
      'number',
    ).map(({ entry, sure }) => [entry, sure])

  it('find their entries by number or by name, the longer name before the shorter', () => {
    expect(match('C103.pdf', 'sds-white-stoneware-2026-11.pdf', 'Stoneware data sheet.pdf')).toEqual([
      ['c', true],
      ['b', true],
      ['a', true],
    ])
  })

  it('fit no number that is only a part of theirs, however names are parted', () => {
    expect(match('C1015.pdf', 'EC101.pdf', '2-C10 1.pdf', 'kiln C-103 manual.pdf')).toEqual([
      [null, false],
      [null, false],
      ['a', true],
      ['c', true],
    ])
  })

  it('are doubtful where they fit in part, or two fit alike, and belong nowhere where none does', () => {
    expect(match('porcelain.pdf')).toEqual([['c', false]])
    expect(match('price list.pdf')).toEqual([[null, false]])
    expect(match('C101.pdf', 'C101 old.pdf').map(([, sure]) => sure)).toEqual([false, false])
  })
})
