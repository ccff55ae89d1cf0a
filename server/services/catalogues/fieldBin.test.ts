import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newField } from '../../../core/catalogue/field'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => (test = await openTestTrough()))
afterAll(() => test.close())

const TITLE = newField('title', 'Name')
const SHADE = newField('shade', 'Shade')
const SHEETS = newField('sheets', 'Sheets', 'files')

/** A catalogue with one entry that visitors see in another shade than is written. */
async function glazes() {
  const { catalogues, entries } = test.trough
  const catalogue = await catalogues.create({ name: 'Glazes', one: 'glaze', fields: [TITLE, SHADE, SHEETS] })
  const files = [await test.put('one.txt', '1'), await test.put('two.txt', '2')]
  const [entry] = await entries.create(catalogue.id, [{ title: 'Celadon', shade: 'green', sheets: files.map(({ id }) => id) }])
  await entries.publish(catalogue.id, undefined)
  await entries.change(catalogue.id, [{ id: entry!.id, revision: 1, values: { shade: 'blue' } }])
  return { catalogue, entry: entry!, files }
}
const without = (id: string, field: string, revision: number) =>
  test.trough.catalogues.changeFields(id, { fields: [TITLE, SHADE, SHEETS].filter(each => each.id !== field), revision, despite: false })
const valuesOf = async (id: string) => (await test.trough.entries.list(id))[0]!.values

describe('a field that is taken out', () => {
  it('lies in the bin with what was written and what visitors saw, and comes back to its place', async () => {
    const { catalogue } = await glazes()
    await without(catalogue.id, 'shade', 1)
    expect(await valuesOf(catalogue.id)).not.toHaveProperty('shade')
    const [kept] = await test.trough.fieldBin.binned(catalogue.id)
    expect(kept).toMatchObject({ name: 'Shade', entries: 1 })
    await test.trough.fieldBin.restore(catalogue.id, kept!.id)
    expect((await test.trough.catalogues.get(catalogue.id)).fields.map(({ name }) => name)).toEqual(['Name', 'Shade', 'Sheets'])
    expect((await valuesOf(catalogue.id)).shade).toBe('blue')
    expect((await test.trough.entryIndex.entriesOf(catalogue.id)).live[0]!.values.shade).toBe('green')
    expect(await test.trough.fieldBin.binned(catalogue.id)).toEqual([])
    await expect(test.trough.fieldBin.restore(catalogue.id, kept!.id)).rejects.toMatchObject({ status: 404 })
  })

  it('comes back under another name where its own is taken, and without files that are gone', async () => {
    const { catalogue, files } = await glazes()
    await without(catalogue.id, 'sheets', 1)
    const { fields, revision } = await test.trough.catalogues.get(catalogue.id)
    await test.trough.catalogues.changeFields(catalogue.id, { fields: [...fields, newField('other', 'sheets')], revision, despite: false })
    await test.trough.library.remove({ files: [files[0]!.id], folders: [] }, { despite: true })
    await test.trough.library.emptyBin(null)
    const [kept] = await test.trough.fieldBin.binned(catalogue.id)
    await test.trough.fieldBin.restore(catalogue.id, kept!.id)
    const restored = (await test.trough.catalogues.get(catalogue.id)).fields.find(({ id }) => id === 'sheets')
    expect(restored?.name).toBe('Sheets 2')
    expect((await valuesOf(catalogue.id)).sheets).toEqual([files[1]!.id])
  })

  it('is forgotten when its time in the bin is over', async () => {
    const { catalogue } = await glazes()
    await without(catalogue.id, 'shade', 1)
    await test.trough.fieldBin.clean(new Date(Date.now() - 1000))
    expect(await test.trough.fieldBin.binned(catalogue.id)).toHaveLength(1)
    await test.trough.fieldBin.clean(new Date(Date.now() + 1000))
    expect(await test.trough.fieldBin.binned(catalogue.id)).toEqual([])
  })
})

it('what new entries begin with is in them, but in copies and where something else is written', async () => {
  const fields = [TITLE, newField('stock', 'In stock', 'yesNo', { initial: 'Yes' }), newField('kg', 'Weight', 'number', { initial: '10' })]
  const { id } = await test.trough.catalogues.create({ name: 'Bags', one: 'bag', fields })
  await test.trough.entries.create(id, [{ title: 'a' }, { title: 'b', kg: 2 }])
  await test.trough.entries.create(id, [{ title: 'c' }], { copies: true })
  expect((await test.trough.entries.list(id)).map(({ values }) => values)).toEqual([
    { title: 'a', stock: true, kg: 10 },
    { title: 'b', stock: true, kg: 2 },
    { title: 'c' },
  ])
})
