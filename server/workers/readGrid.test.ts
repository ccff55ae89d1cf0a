import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { utils, write } from '@e965/xlsx'
import papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { columnsOf, withHeading } from '../../core/catalogue/planning'
import { NoGrid, readGrid } from './readGrid'

const SAMPLES = join(import.meta.dirname, '../testing/samples')
let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-grid-'))
})
afterAll(() => rm(folder, { recursive: true }))

async function readText(text: string | Buffer, name = 'table.csv') {
  const path = join(folder, name)
  await writeFile(path, text)
  return readGrid(path, name)
}

const NAMES = ['Article no.', 'Name', 'Price', 'Weight', 'First sold', 'Food safe', 'About']

// Written by LibreOffice 7.4 from one table of comma separated values, with English (USA) as its language:
// `soffice --headless --convert-to ods clays.csv`, and that to xlsx and to text in UTF-16 with semicolons.
describe.each([
  ['clays.xlsx', '2019-11-03', '$ 11.4'],
  ['clays.ods', '2019-11-03', '$11.40'],
  ['clays-utf16.csv', '11/03/2019', '11.4'],
])('%s, as LibreOffice writes it', (name, day, price) => {
  it('has all its cells, letters of all scripts and lines within them', async () => {
    const [head, first, second, third, fourth] = await readGrid(join(SAMPLES, name), name)
    expect(head).toEqual(NAMES)
    expect(first).toEqual(['C-101', 'Marl stoneware, smooth', price, '12.5', day, 'yes', 'Throws well.\nDries evenly.'])
    expect([second![1], second![6]]).toEqual(['“Crank” grogged', 'Größe zwölf, café crème'])
    expect(third!.slice(1, 6)).toEqual(['釉薬 white', price.replace('11.4', '24.5'), '5', '', 'yes'])
    expect(fourth![6]).toBe('quote "inside"; and, commas')
  })

  it('has its columns known for what they are', async () => {
    const { names, body } = withHeading(await readGrid(join(SAMPLES, name), name))
    const kinds = Object.fromEntries(columnsOf(names, body).map(column => [column.name, column.kind]))
    expect(kinds).toMatchObject({ 'Price': 'money', 'Weight': 'number', 'First sold': 'date', 'Food safe': 'yesNo' })
  })
})

describe('a table of comma separated values', () => {
  // RFC 4180, section 2: lines end in CRLF, quotes hold commas, line ends and doubled quotes.
  it('is read as RFC 4180 has it', async () => {
    expect(await readText('"aaa","b\r\nbb","ccc"\r\nzzz,"y""yy",xxx\r\n')).toEqual([
      ['aaa', 'b\r\nbb', 'ccc'],
      ['zzz', 'y"yy', 'xxx'],
    ])
  })

  it.each(['utf16le', 'latin1', 'utf8'] as const)('is read in %s, with semicolons and decimal commas', async encoding => {
    const text = 'Größe;Preis\r\nzwölf;1.234,50 €\r\n'.replace('€', encoding === 'latin1' ? 'EUR' : '€')
    const bytes = Buffer.concat([Buffer.from(encoding === 'utf16le' ? [0xff, 0xfe] : []), Buffer.from(text, encoding)])
    expect(await readText(bytes)).toEqual(papa.parse<string[]>(text.trim(), { delimiter: ';' }).data)
  })

  it('that is longer than a catalogue may be is refused, as is what is no table', async () => {
    // Rows of a sheet in Excel: 1,048,576 (published limit).
    await expect(readText('a\n'.repeat(1_048_576))).rejects.toThrow(NoGrid)
    await expect(readText('{"a": 1}', 'table.json')).rejects.toThrow(NoGrid)
  })
})

it('a workbook of another library has the same cells', async () => {
  const rows = [
    ['Name', 'Price', 'Sold'],
    ['Raku body', 9.5, new Date(2026, 1, 28)],
  ]
  const path = join(folder, 'own.xlsx')
  await writeFile(
    path,
    write({ SheetNames: ['Clays'], Sheets: { Clays: utils.aoa_to_sheet(rows) } }, { type: 'buffer', bookType: 'xlsx' }) as Buffer,
  )
  expect(await readGrid(path, 'own.xlsx')).toEqual([
    ['Name', 'Price', 'Sold'],
    ['Raku body', '9.5', '2026-02-28'],
  ])
})
