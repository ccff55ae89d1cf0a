import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fileQuerySchema } from '../../../core/files/query'
import { moveSchema } from '../../../core/files/selection'
import { button, pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const folder = async (name: string, parent: string | null = null) => (await test.trough.library.folders.create({ name, parent })).id
const put = async (name: string, into: string | null = null) => {
  const file = await test.put(name, `%PDF-1.7 ${name} ${Math.random()}`)
  await test.trough.library.move({ files: [file.id], folders: [], to: into })
  return file
}
const move = (files: string[], folders: string[], to: string | null, before?: string) =>
  test.trough.library.move({ ...moveSchema.parse({ files, folders, to }), before })
const titles = async (query: object) =>
  (await test.trough.library.list(fileQuerySchema.parse({ sort: 'title', ...query }))).items.map(item => item.title)
const nameOf = async (id: string) => (await test.trough.library.folders.get(id)).name

describe('folders', () => {
  it('are made in each other, renamed, marked and described; two beside each other never share a name', async () => {
    const { folders } = test.trough.library
    const kilns = await folder('Kilns')
    const parts = await folder('Spare parts', kilns)
    await expect(folders.create({ name: 'KILNS', parent: null })).rejects.toMatchObject({ status: 409, extra: { field: 'name' } })
    await expect(folders.create({ name: 'x', parent: 'nowhere' })).rejects.toMatchObject({ status: 404 })
    expect(await folders.change(parts, { name: 'Parts', mark: 'clay', description: 'By model', ownOrder: true })).toMatchObject({
      name: 'Parts',
      mark: 'clay',
      description: 'By model',
      ownOrder: true,
      parent: kilns,
    })
    await folder('Manuals', kilns)
    await expect(folders.change(parts, { name: 'manuals' })).rejects.toMatchObject({ status: 409 })
  })

  it('count the files right in them', async () => {
    const id = await folder('Counted')
    await put('one.pdf', id)
    await put('two.pdf', id)
    expect((await test.trough.library.folders.get(id)).files).toBe(2)
    expect(await titles({ folder: id })).toEqual(['One', 'Two'])
  })

  it('are made along a path as files come in, and found again whatever the case', async () => {
    const { library } = test.trough
    const top = await folder('Dropped')
    const into = (within: string[]) => test.putInto('list.pdf', `%PDF ${Math.random()}`, { folder: top, within })
    const [a, b] = [await into(['2026', 'Clay']), await into(['2026', 'clay'])]
    expect(b.folder).toBe(a.folder)
    expect(await titles({ folder: top, below: 'true' })).toEqual(['List', 'List'])
    expect((await library.folders.list()).filter(({ name }) => /^clay$/i.test(name))).toHaveLength(1)
  })
})

describe('moving', () => {
  it('goes into a folder and back by what it answers', async () => {
    const [from, to] = [await folder('From'), await folder('To')]
    const [a, b] = [await put('a.pdf', from), await put('b.pdf')]
    const inner = await folder('Inner', from)
    const moved = await move([a.id, b.id], [inner], to)
    expect(moved.groups).toEqual(
      expect.arrayContaining([
        { to: from, files: [a.id], folders: [inner] },
        { to: null, files: [b.id], folders: [] },
      ]),
    )
    expect(await titles({ folder: to })).toEqual(['A', 'B'])
    for (const group of moved.groups) await move(group.files, group.folders, group.to)
    expect(await titles({ folder: from })).toEqual(['A'])
    expect((await test.trough.library.folders.get(inner)).parent).toBe(from)
  })

  it('lets no folder lie in itself, not even when two move at once', async () => {
    const [a, b] = [await folder('Loop A'), await folder('Loop B')]
    await expect(move([], [a], a)).rejects.toMatchObject({ status: 409 })
    const outcomes = await Promise.allSettled([move([], [a], b), move([], [b], a)])
    expect(outcomes.map(outcome => outcome.status).sort()).toEqual(['fulfilled', 'rejected'])
    const [first, second] = [await test.trough.library.folders.get(a), await test.trough.library.folders.get(b)]
    expect([first.parent, second.parent].filter(parent => parent !== null)).toHaveLength(1)
  })

  it('gives a folder another name where its own is taken there', async () => {
    const [to, other] = [await folder('Taken'), await folder('Same name')]
    await folder('same NAME', to)
    expect((await move([], [other], to)).renamed).toEqual([{ from: 'Same name', to: 'Same name 2' }])
    expect(await nameOf(other)).toBe('Same name 2')
  })

  it('takes what lies in a chosen folder along only once', async () => {
    const [top, to] = [await folder('Outer'), await folder('Target')]
    const inner = await folder('Within', top)
    await move([], [inner, top], to)
    expect((await test.trough.library.folders.get(inner)).parent).toBe(top)
  })

  it('keeps an own order, changed by dropping before another, and undone', async () => {
    const id = await folder('Ordered')
    await test.trough.library.folders.change(id, { ownOrder: true })
    const [one, two, three] = [await put('one.pdf', id), await put('two.pdf', id), await put('three.pdf', id)]
    const own = async () =>
      (await test.trough.library.list(fileQuerySchema.parse({ folder: id, sort: 'own' }))).items.map(item => item.title)
    expect(await own()).toEqual(['One', 'Two', 'Three'])
    const { order } = await move([three.id], [], id, one.id)
    expect(await own()).toEqual(['Three', 'One', 'Two'])
    await move([three.id], [], id)
    expect(await own()).toEqual(['One', 'Two', 'Three'])
    await move([two.id], [], id, one.id)
    await test.trough.library.order(id, order!)
    expect(await own()).toEqual(['One', 'Two', 'Three'])
  })

  it('says what is gone', async () => {
    await expect(move(['nothing'], [], null)).rejects.toMatchObject({ status: 404 })
    await expect(move([], ['nothing'], null)).rejects.toMatchObject({ status: 404 })
  })
})

describe('copying', () => {
  it('makes files of their own that share the bytes', async () => {
    const source = await folder('Original')
    const inner = await folder('Deep', source)
    const file = await put('shared.pdf', inner)
    await test.trough.library.change(file.id, { tags: ['kept'], description: 'Kept' })
    const made = await test.trough.library.copy({ files: [], folders: [source] }, null)
    expect(await nameOf(made.folders[0]!)).toBe('Original 2')
    const [copy] = await test.trough.library.byId(made.files)
    expect(copy).toMatchObject({
      title: 'Shared',
      handle: 'shared-2.pdf',
      sha256: file.sha256,
      tags: ['kept'],
      description: 'Kept',
      folder: made.folders[1],
    })
    const beside = await test.trough.library.copy({ files: [file.id], folders: [] }, inner)
    expect((await test.trough.library.get(beside.files[0]!)).title).toBe('Shared, copy')
  })

  it('keeps what is said of each, and bundles as bundles', async () => {
    const source = await folder('Said')
    const file = await put('said.pdf', source)
    const said = { tags: ['clay, wet', 'the "best"', '{1}'], description: 'Two\nlines with \\ and “quotes”' }
    await test.trough.library.change(file.id, said)
    await test.trough.bundles.create({ title: 'Held', folder: source, files: [file.id], folders: [] })
    const made = await test.trough.library.copy({ files: [], folders: [source] }, null)
    const copies = await test.trough.library.byId(made.files)
    expect(copies.find(({ bundle }) => !bundle)).toMatchObject({ ...said, edition: 1, deleted: null, sha256: file.sha256 })
    const held = copies.find(({ bundle }) => bundle)!
    expect((await test.trough.bundles.details(held.id)).members).toEqual([{ path: 'said.pdf', size: file.size }])
  })

  it('beside the original cuts a long title between characters', async () => {
    const file = await put('long.pdf', null)
    await test.trough.library.change(file.id, { title: `${'a'.repeat(189)}😀 clay` })
    const made = await test.trough.library.copy({ files: [file.id], folders: [] }, null)
    expect((await test.trough.library.get(made.files[0]!)).title).toBe(`${'a'.repeat(189)}, copy`)
  })

  it('of thousands of one name gives each an address', async () => {
    const source = await folder('Thousands')
    let there = [(await put('one.pdf', source)).id]
    while (there.length < 1500) there = there.concat((await test.trough.library.copy({ files: there, folders: [] }, source)).files)
    const handles = (await test.trough.library.byId(there)).map(({ handle }) => handle)
    expect(new Set(handles).size).toBe(there.length)
    expect(handles).toContain(`one-${there.length}.pdf`)
  })

  it('of a folder into itself ends', async () => {
    const id = await folder('Selfish')
    await put('x.pdf', id)
    const made = await test.trough.library.copy({ files: [], folders: [id] }, id)
    expect([made.folders.length, made.files.length]).toEqual([1, 1])
  })
})

describe('deleting a folder', () => {
  it('takes along what is in it, and brings just that back', async () => {
    const top = await folder('Doomed')
    const inner = await folder('Below', top)
    const [a, b, gone] = [await put('a.pdf', top), await put('b.pdf', inner), await put('earlier.pdf', inner)]
    await test.trough.library.remove({ files: [gone.id], folders: [] })
    await new Promise(resolve => setTimeout(resolve, 5))
    const removed = await test.trough.library.remove({ files: [], folders: [top] })
    expect(removed.files.toSorted()).toEqual([a.id, b.id].toSorted())
    await expect(test.trough.library.list(fileQuerySchema.parse({ folder: top }))).rejects.toMatchObject({ status: 404 })
    expect(await test.trough.library.binnedFolders()).toMatchObject([{ id: top, name: 'Doomed', files: 2 }])
    await folder('Doomed')
    await test.trough.library.restore({ files: [], folders: [top] })
    expect(await nameOf(top)).toBe('Doomed 2')
    expect(await titles({ folder: top, below: 'true' })).toEqual(['A', 'B'])
    expect((await test.trough.library.get(gone.id)).deleted).not.toBeNull()
  })

  it('is held back by files in use, with the places and three ways on', async () => {
    const { library, pages } = test.trough
    const id = await folder('In use')
    const file = await put('used.pdf', id)
    const page = await pages.create({ title: 'Uses it' })
    await pages.saveDraft(page.id, {
      title: page.title,
      draft: pageOf(button({ target: { kind: 'file', id: file.id }, label: 'Used' })),
      revision: page.revision,
    })
    await expect(library.remove({ files: [], folders: [id] })).rejects.toMatchObject({
      status: 409,
      extra: { uses: [{ label: 'Used', fileId: file.id }] },
    })
    await expect(library.remove({ files: [], folders: [id] }, { replaceBy: file.id })).rejects.toMatchObject({ status: 422 })
    const other = await put('other.pdf')
    await library.remove({ files: [], folders: [id] }, { replaceBy: other.id })
    expect(await library.uses(other.id)).toMatchObject([{ label: 'Used' }])
  })

  it('while another tab renames it: it goes under its new name, or the other tab is told', async () => {
    const id = await folder('Raced')
    const [removal, renaming] = await Promise.allSettled([
      test.trough.library.remove({ files: [], folders: [id] }),
      test.trough.library.folders.change(id, { name: 'Renamed' }),
    ])
    expect(removal.status).toBe('fulfilled')
    if (renaming.status === 'rejected') expect(renaming.reason).toMatchObject({ status: 404, title: 'There is no such folder.' })
    expect((await test.trough.library.binnedFolders()).find(binned => binned.id === id)!.name).toBe(
      renaming.status === 'rejected' ? 'Raced' : 'Renamed',
    )
  })

  it('sends what arrives for it to the top of the library', async () => {
    const id = await folder('Vanishing')
    await test.trough.library.remove({ files: [], folders: [id] })
    expect((await test.putInto('late.pdf', '%PDF late', { folder: id, within: ['sub'] })).folder).not.toBe(id)
    expect(await titles({ q: 'late' })).toEqual(['Late'])
  })

  it('restores a file of it to the top', async () => {
    const id = await folder('Half back')
    const file = await put('back.pdf', id)
    await test.trough.library.remove({ files: [], folders: [id] })
    await test.trough.library.restore({ files: [file.id], folders: [] })
    expect(await test.trough.library.get(file.id)).toMatchObject({ deleted: null, folder: null })
  })

  it('for good after 30 days, the lowest folders first', async () => {
    const top = await folder('Old')
    const inner = await folder('Older', top)
    await put('old.pdf', inner)
    await test.trough.library.remove({ files: [], folders: [top] })
    await test.trough.library.emptyOldBin(new Date(Date.now() + 24 * 60 * 60 * 1000))
    expect((await test.trough.library.binnedFolders()).some(({ id }) => id === top)).toBe(false)
    expect(await titles({ bin: 'true', q: 'old' })).toEqual([])
  })
})

describe('describing many', () => {
  it('adds and takes off tags, and says what was before', async () => {
    const { library } = test.trough
    const [a, b] = [await put('p.pdf'), await put('q.pdf')]
    await library.change(a.id, { tags: ['old'] })
    const before = await library.describe({ files: [a.id, b.id], addTags: ['new'], removeTags: ['old'], description: 'Both', each: [] })
    expect((await library.byId([a.id, b.id])).map(({ tags, description }) => [tags, description])).toEqual([
      [['new'], 'Both'],
      [['new'], 'Both'],
    ])
    expect((await library.tags()).find(({ tag }) => tag === 'new')).toEqual({ tag: 'new', files: 2 })
    expect(await titles({ tag: 'new' })).toEqual(['P', 'Q'])
    await library.describe({ files: [], each: before })
    expect((await library.get(a.id)).tags).toEqual(['old'])
  })

  it('takes only a picture for a picture', async () => {
    const [file, other] = [await put('r.pdf'), await put('s.pdf')]
    await expect(test.trough.library.change(file.id, { picture: other.id })).rejects.toMatchObject({
      status: 422,
      extra: { field: 'picture' },
    })
  })
})

describe('editions', () => {
  it('come where a name is there already and the owner says so; one can go back', async () => {
    const { library } = test.trough
    const id = await folder('Editions')
    const first = await test.putInto('list.pdf', '%PDF first', { folder: id })
    expect(await library.clashes({ folder: null, names: ['Editions/list.pdf', 'Editions/other.pdf', 'nowhere/list.pdf'] })).toMatchObject([
      { name: 'Editions/list.pdf', file: { id: first.id } },
    ])
    const second = await test.putInto('list.pdf', '%PDF second', { folder: id, asEdition: true })
    expect(second).toMatchObject({ id: first.id, handle: first.handle, edition: 2, waits: false })
    expect((await test.putInto('list.pdf', '%PDF third', { folder: id })).id).not.toBe(first.id)
    expect(await library.showEdition(first.id, 1)).toMatchObject({ edition: 1, sha256: first.sha256, waits: true })
    expect(await titles({ waits: 'true' })).toEqual(['List'])
    await expect(library.showEdition(first.id, 9)).rejects.toMatchObject({ status: 404 })
    expect((await library.editions(first.id)).map(({ number }) => number)).toEqual([1, 2])
  })
})

describe('advice on names', () => {
  it('has the day where two of a kind came in one month', async () => {
    const { library } = test.trough
    const [a] = [await put('newsletter final.pdf')]
    const month = new Date().toISOString().slice(0, 7)
    expect((await library.adviceOn(await library.get(a.id)))!.better).toBe(`newsletter-${month}.pdf`)
    await put('newsletter new.pdf')
    expect((await library.adviceOn(await library.get(a.id)))!.better).toMatch(new RegExp(`^newsletter-${month}-\\d\\d\\.pdf$`))
  })
})
