import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fileFilterSchema, fileQuerySchema } from '../../../core/files/query'
import { readyRights } from '../../../core/rights/ready'
import type { Rights } from '../../../core/rights/rights'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
let folders: Record<'yard' | 'notes' | 'papers', string>
let files: Record<'top' | 'note' | 'paper', string>
beforeAll(async () => {
  test = await openTestTrough()
  const { library } = test.trough
  const make = async (name: string, parent: string | null = null) => (await library.folders.create({ name, parent })).id
  const [yard, papers] = [await make('Yard'), await make('Papers')]
  folders = { yard, papers, notes: await make('Notes', yard) }
  files = {
    top: (await test.put('top.txt', 'top')).id,
    note: (await test.putInto('note.txt', 'note', { folder: folders.notes })).id,
    paper: (await test.putInto('paper.txt', 'paper', { folder: papers })).id,
  }
  for (const id of Object.values(files)) await library.describe({ files: [id], addTags: [`tag of ${id}`], each: [] })
})
afterAll(() => test.close())

const of = (rights: Rights | null) => test.trough.access.of(rights, 'yard@marlpit.example')

describe('what is seen', () => {
  it('is a folder with all below it: lists, identities and tags hold nothing else', async () => {
    const { library } = test.trough
    const { sight } = await of(readyRights('puts', [folders.yard]))
    const query = fileQuerySchema.parse({})
    expect((await library.list(query, sight)).items.map(({ id }) => id)).toEqual([files.note])
    expect((await library.list({ ...query, folder: folders.yard, below: true }, sight)).total).toBe(1)
    expect((await library.list({ ...query, folder: null }, sight)).total).toBe(0)
    expect((await library.list({ ...query, among: [folders.papers, folders.notes] }, sight)).total).toBe(1)
    expect(await library.ids(fileFilterSchema.parse({ q: 'paper' }), sight)).toEqual([])
    expect((await library.tags(sight)).map(({ tag }) => tag)).toEqual([`tag of ${files.note}`])
    expect((await library.list(query, (await of(null)).sight)).total).toBe(3)
  })

  it('follows where folders go, into the bin too', async () => {
    const { library } = test.trough
    const access = () => of(readyRights('library', [folders.yard]))
    await expect((await access()).mustFiles('edit', [files.paper])).rejects.toMatchObject({ status: 404 })
    await library.move({ files: [], folders: [folders.papers], to: folders.yard })
    await (await access()).mustFiles('edit', [files.paper])
    await library.remove({ files: [], folders: [folders.papers] })
    await (await access()).mustFiles('delete', [files.paper])
    await library.restore({ files: [], folders: [folders.papers] })
    await library.move({ files: [], folders: [folders.papers], to: null })
    await expect((await access()).mustFiles('edit', [files.paper])).rejects.toMatchObject({ status: 404 })
  })

  it('says how often files were taken only to who may know', async () => {
    const items = await test.trough.library.byId(Object.values(files))
    const counted = items.map(item => ({ ...item, downloads: 7 }))
    expect((await of(readyRights('puts', null))).shown(counted).map(({ downloads }) => downloads)).toEqual([0, 0, 0])
    expect((await of(readyRights('library', null))).shown(counted).map(({ downloads }) => downloads)).toEqual([7, 7, 7])
    const byDownloads = fileFilterSchema.parse({ sort: '-downloads' })
    const unknowing = await of(readyRights('puts', null))
    expect(() => unknowing.filter(byDownloads)).toThrow(expect.objectContaining({ status: 403 }))
  })
})

describe('what may be done', () => {
  it('is refused as if it were not there where it is not seen, and by name where it is', async () => {
    const access = await of(readyRights('puts', [folders.yard]))
    expect(() => access.mustPlace('put', folders.papers)).toThrow(expect.objectContaining({ status: 404 }))
    expect(() => access.mustPlace('put', null)).toThrow(expect.objectContaining({ status: 404 }))
    expect(() => access.mustPlace('edit', folders.notes)).toThrow('You may not edit details and move here.')
    expect(() => access.mustPlace('put', folders.notes)).not.toThrow()
    // Its own name and place are matters of the folder it lies in.
    const keeper = await of(readyRights('library', [folders.yard]))
    expect(() => keeper.mustFolders('edit', [folders.yard])).toThrow(expect.objectContaining({ status: 403 }))
    expect(() => keeper.mustFolders('edit', [folders.notes])).not.toThrow()
    expect(() => keeper.mustFolders('edit', [folders.papers])).toThrow(expect.objectContaining({ status: 404 }))
  })

  it('is everything for an owner', async () => {
    const access = await of(null)
    await access.mustFiles('delete', Object.values(files))
    access.mustFolders('delete', Object.values(folders))
    access.mustPlace('put', null)
    access.mustBeOwner()
  })

  it('shows one’s own jobs alone, and an owner all', async () => {
    const jobs = [{ by: 'yard@marlpit.example' }, { by: 'other@marlpit.example' }, { by: '' }]
    expect(jobs.filter((await of(readyRights('everything', null))).isOwn)).toEqual([jobs[0]])
    expect(jobs.filter((await of(null)).isOwn)).toEqual(jobs)
  })

  it('tells those who do not work on pages of no draft', async () => {
    const use = {
      fileId: files.note,
      folderId: null,
      pageTitle: 'Guides',
      placement: 'p',
      kind: 'button',
      label: '',
      section: '',
      by: null,
    } as const
    const uses = [
      { ...use, pageId: 'a', draft: true, live: true },
      { ...use, pageId: 'b', draft: true, live: false },
      { ...use, pageId: null, draft: false, live: false },
    ]
    expect((await of(readyRights('puts', null))).uses(uses)).toEqual([uses[0], uses[2]])
    expect((await of(readyRights('pages', null))).uses(uses)).toEqual(uses)
  })
})
