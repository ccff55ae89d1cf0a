import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newField } from '../../../core/catalogue/field'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => (test = await openTestTrough()))
afterAll(() => test.close())

let made = 0
/** A catalogue whose sheets come from a folder, with two entries that visitors see. */
async function fed() {
  const folder = await test.trough.library.folders.create({ name: `Sheets ${++made}`, parent: null })
  const fields = [
    newField('title', 'Name'),
    newField('number', 'Number', 'text', { unique: true }),
    newField('sheet', 'Sheet', 'file', { folder: folder.id }),
  ]
  const { id } = await test.trough.catalogues.create({ name: `Clays ${made}`, one: 'clay', fields })
  await test.trough.entries.create(id, [
    { title: 'White', number: 'C-101' },
    { title: 'Black', number: 'C-102' },
  ])
  await test.trough.entries.publish(id, undefined)
  const put = async (name: string, to: string | null = folder.id) => {
    const file = await test.putInto(name, name, { folder: to })
    await test.trough.folderFields.run()
    return file
  }
  const sheets = async (side: 'all' | 'live' = 'all') =>
    (await test.trough.entryIndex.entriesOf(id))[side].map(({ values }) => values.sheet)
  return { id, folder, put, sheets }
}

describe('a field that a folder feeds', () => {
  it('has the files that come into the folder and below, for visitors too; next year’s take the place of this year’s', async () => {
    const { put, sheets, folder } = await fed()
    const old = await put('C-101 2026.pdf')
    expect(await sheets('live')).toEqual([old.id, undefined])
    const below = await test.trough.library.folders.create({ name: '2027', parent: folder.id })
    const young = await put('c101-2027.pdf', below.id)
    await put('C-102.pdf', null)
    expect(await sheets()).toEqual([young.id, undefined])
    expect(await sheets('live')).toEqual([young.id, undefined])
  })

  it('leaves what somebody put in from elsewhere, and tells what fits none', async () => {
    const { id, put, sheets } = await fed()
    const own = await put('own.pdf', null)
    const [white] = await test.trough.entries.list(id)
    await test.trough.entries.change(id, [{ id: white!.id, revision: white!.revision, values: { sheet: own.id } }])
    await put('C-101.pdf')
    const terms = await put('terms.pdf')
    expect(await sheets()).toEqual([own.id, undefined])
    // What waits in the field is not put live by a file that comes.
    expect(await sheets('live')).toEqual([undefined, undefined])
    expect(await test.trough.folderFields.strays(id)).toEqual([{ field: 'sheet', files: [{ file: terms.id, entry: null, sure: false }] }])
  })

  it('is a place where the folder is used, and lets go of one that goes', async () => {
    const { id, folder, put } = await fed()
    await put('C-101.pdf')
    await test.trough.library.remove({ files: [], folders: [folder.id] }, { takeOff: true })
    await test.trough.library.emptyBin(null)
    await test.trough.folderFields.run()
    expect((await test.trough.catalogues.get(id)).fields[2]).toMatchObject({ id: 'sheet', folder: null })
  })
})
