import { Readable } from 'node:stream'
import { utils, write } from '@e965/xlsx'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newField } from '../../../core/catalogue/field'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => (test = await openTestTrough()))
afterAll(() => test.close())

async function bring(look: Awaited<ReturnType<TestTrough['trough']['importing']['lookAtFile']>>, more = {}) {
  const { job, catalogue } = await test.trough.importing.bring(look.id, { ...look.plan, ...more }, '')
  await test.trough.jobs.ended(job.id)
  return catalogue
}

describe('a table of the library', () => {
  it('is followed from edition to edition, each looked at before it comes in', async () => {
    const { importing, catalogues, entries } = test.trough
    const file = await test.put('clays.csv', 'No,Name,Secret\nC1,White,a\nC2,Black,b\n')
    const look = await importing.lookAtFile(file.id, null)
    expect(look.ofLibrary).toBe(true)
    const mapping = look.plan.mapping.with(2, { to: 'nowhere' })
    const id = await bring(look, { mapping, follow: true })
    expect((await catalogues.get(id)).source).toMatchObject({ file: file.id, edition: 1, key: 'No' })

    await test.putInto('clays.csv', 'Secret,Name,No\nx,White stoneware,C1\ny,Red,C3\n', { editionOf: file.id })
    const again = async () => {
      const looked = await importing.lookAtFile(file.id, id)
      return [looked.id, looked.plan] as const
    }
    // Nothing comes in by itself.
    expect((await entries.list(id)).map(({ values }) => values.title)).toEqual(['White', 'Black'])
    const next = await importing.lookAtFile(file.id, id)
    expect(next.plan).toMatchObject({ follow: true, key: 2, mapping: [{ to: 'nowhere' }, { to: 'field' }, { to: 'field' }] })
    expect((await importing.forecast(next.id, next.plan)).counts).toMatchObject({ new: 1, changed: 1, others: 1 })
    await bring(next)
    expect((await entries.list(id)).map(({ values }) => values.title)).toEqual(['White stoneware', 'Black', 'Red'])
    expect((await catalogues.get(id)).source?.edition).toBe(2)

    // Taken back, that edition is offered again; it was in when the job had ended, and not before.
    const [latest] = await importing.list(id)
    await importing.undo(latest!.id)
    expect((await catalogues.get(id)).source?.edition).toBe(0)
    const { job } = await importing.bring(...(await again()), '')
    expect((await catalogues.get(id)).source?.edition).toBe(0)
    await test.trough.jobs.ended(job.id)
    expect((await catalogues.get(id)).source?.edition).toBe(2)

    // A table from elsewhere leaves it as it is; brought in without following, it is followed no more.
    const other = await importing.look(Readable.from([Buffer.from('No,Name\nC4,Grey\n')]), 'other.csv', id)
    await bring(other)
    expect((await catalogues.get(id)).source?.edition).toBe(2)
    await bring(await importing.lookAtFile(file.id, id), { follow: false })
    expect((await catalogues.get(id)).source).toBeNull()
  })

  it('is a place where its file is used: another takes it over, and one that goes is let go', async () => {
    const { importing, catalogues, library, replacing } = test.trough
    const [file, other] = [await test.put('list.csv', 'Name\nWhite\n'), await test.put('list 2.csv', 'Name\nBlack\n')]
    const id = await bring(await importing.lookAtFile(file.id, null), { follow: true, name: 'Lists', one: 'list' })
    await replacing.replace({ kind: 'file', id: file.id }, { kind: 'file', id: other.id })
    expect((await catalogues.get(id)).source?.file).toBe(other.id)
    await expect(library.remove({ files: [other.id], folders: [] })).rejects.toMatchObject({ status: 409 })
    await library.remove({ files: [other.id], folders: [] }, { takeOff: true })
    await library.emptyBin(null)
    expect((await catalogues.get(id)).source).toBeNull()
  })
})

it('goes out with its files as a zip that unzips, and comes back as it was', async () => {
  const { catalogues, entries, entryExport, importing } = test.trough
  const { id } = await catalogues.create({
    name: 'Kilns',
    one: 'kiln',
    fields: [newField('title', 'Name'), newField('manual', 'Manual', 'file')],
  })
  const [one, two] = [await test.put('manual.txt', 'first'), await test.put('Manual.txt', 'second')]
  await entries.create(id, [
    { title: 'K60', manual: one.id },
    { title: 'K80', manual: two.id },
  ])
  const { layout, fileName } = await entryExport.zip(id, async items => items)
  expect(fileName).toBe('kilns.zip')
  expect(layout.members.map(({ name }) => name)).toEqual(['kilns.csv', 'files/manual.txt', 'files/Manual 2.txt'])
  const csv = (layout.members[0]!.source as Buffer).toString()
  expect(csv).toBe('\uFEFFName,Manual\r\nK60,manual.txt\r\nK80,Manual 2.txt\r\n')
  const again = await importing.look(Readable.from([Buffer.from(csv)]), 'kilns.csv', id)
  expect((await importing.forecast(again.id, again.plan)).counts).toMatchObject({ new: 0, wrong: 1 })
})

it('amounts of a workbook keep their currencies, as the formats of its cells say them (ECMA-376 part 1, 18.8.31)', async () => {
  const sheet = utils.aoa_to_sheet([
    ['Name', 'Price', 'Fee'],
    ['White', 12.5, 3],
    ['Black', 9, 4.25],
  ])
  for (const [cell, format] of Object.entries({
    B2: '[$$-409]#,##0.00',
    B3: '[$$-409]#,##0.00',
    C2: '[$CHF] #,##0.00',
    C3: '[$CHF] #,##0.00',
  }))
    (sheet[cell] as { z: string }).z = format
  const book = utils.book_new()
  utils.book_append_sheet(book, sheet, 'Clays')
  const { id, columns, plan } = await test.trough.importing.look(
    Readable.from([write(book, { type: 'buffer', bookType: 'xlsx' }) as Buffer]),
    'prices.xlsx',
    null,
  )
  expect(columns.map(({ kind, currency }) => [kind, currency]).slice(1)).toEqual([
    ['money', 'USD'],
    ['money', 'CHF'],
  ])
  expect((await test.trough.importing.forecast(id, plan)).samples).toEqual([
    { Name: 'White', Price: '12.5', Fee: '3' },
    { Name: 'Black', Price: '9', Fee: '4.25' },
  ])
})
