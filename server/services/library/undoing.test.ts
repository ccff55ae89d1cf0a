import sharp from 'sharp'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { newField } from '../../../core/catalogue/field'
import type { Appearance } from '../../../core/look/appearance'
import { DEFAULT_LOOK } from '../../../core/look/builtin'
import { button, heading, linkMark, pageOf, shelf, words } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const png = (background: string) =>
  sharp({ create: { width: 60, height: 40, channels: 3, background } })
    .png()
    .toBuffer()

/** A file that is also a picture, in a folder, used wherever a file and a folder can be used. */
async function usedEverywhere(name: string) {
  const { library, pages, signposts, bundles, looks, catalogues, entries } = test.trough
  const folder = await library.folders.create({ name, parent: null })
  const file = await test.putInto(`${name}.png`, await png('#123456'), { folder: folder.id })
  const other = await test.put(`${name} other.txt`, name)
  const post = await signposts.create({ title: `To ${name}`, file: file.id })
  const page = await pages.create(
    { title: name },
    {
      draft: pageOf(
        heading('Here'),
        button({ target: { kind: 'file', id: file.id } }),
        words('linked', linkMark('llllllllll', file.id)),
        button({ placement: 'ssssssssss', target: { kind: 'signpost', id: post.id } }),
        shelf({ placement: 'ffffffffff', source: { kind: 'folder', id: folder.id, below: 'no' } as never }),
      ),
    },
  )
  await pages.change(page.id, { picture: file.id })
  await pages.publish(page.id)
  const bundle = await bundles.create({ title: `Pack ${name}`, folder: null, files: [file.id, other.id], folders: [folder.id] })
  const fill = { kind: 'picture' as const, file: file.id, veil: 40, colour: 'ink' }
  const look = await looks.create({ name: `Filled ${name}`, appearance: { ...DEFAULT_LOOK.appearance, fill } as Appearance })
  const catalogue = await catalogues.create({
    name: `Things ${name}`,
    one: 'thing',
    fields: [newField('title', 'Name'), newField('sheet', 'Sheet', 'file', { folder: folder.id }), newField('more', 'More', 'files')],
  })
  const [entry] = await entries.create(catalogue.id, [{ title: 'One', sheet: file.id, more: [other.id, file.id] }])
  await entries.publish(catalogue.id, undefined)
  const known = async () => {
    const { draft, live, picture, waiting } = await pages.get(page.id)
    return {
      page: { draft, live: live?.document, picture, waiting },
      post: (await signposts.get(post.id)).file,
      bundle: (await bundles.details(bundle.id)).entries,
      look: (await looks.list()).find(({ id }) => id === look.id)!.appearance,
      fields: (await catalogues.get(catalogue.id)).fields,
      entry: (await entries.list(catalogue.id)).map(({ values, live: shown }) => ({ values, shown })),
      uses: (await library.get(file.id)).uses,
    }
  }
  return { folder, file, other, page, entry: entry!, known }
}

it('a file that was deleted and taken off its places is in all of them again, once that is undone', async () => {
  const { library } = test.trough
  const { file, known } = await usedEverywhere('Off')
  const before = await known()
  const { undo, ...gone } = await library.remove({ files: [file.id], folders: [] }, { takeOff: true })
  const without = await known()
  expect(without).toMatchObject({ post: null, uses: 0, page: { picture: null } })
  expect(without.page.live!.content).toHaveLength(3)
  await library.restore(gone, undo)
  expect(await known()).toEqual(before)
  await expect(library.restore(gone, undo)).rejects.toMatchObject({ status: 404 })
})

it('as is a folder with the shelves that list it and the fields it feeds', async () => {
  const { library } = test.trough
  const { folder, known } = await usedEverywhere('Folder')
  const before = await known()
  const { undo } = await library.remove({ files: [], folders: [folder.id] }, { takeOff: true })
  expect((await known()).page.live!.content).toHaveLength(2)
  await library.restore({ files: [], folders: [folder.id] }, undo)
  expect(await known()).toEqual(before)
})

it('one that another took the place of is where it was', async () => {
  const { library } = test.trough
  const { file, known } = await usedEverywhere('Instead')
  const instead = await test.put('instead.png', await png('#654321'))
  const before = await known()
  const { undo, ...gone } = await library.remove({ files: [file.id], folders: [] }, { replaceBy: instead.id })
  expect((await known()).post).toBe(instead.id)
  await library.restore(gone, undo)
  expect(await known()).toEqual(before)
})

it('where a page was written on since, nothing is undone, and it can come back by itself', async () => {
  const { library, pages } = test.trough
  const { file, page, known } = await usedEverywhere('Since')
  const { undo, ...gone } = await library.remove({ files: [file.id], folders: [] }, { takeOff: true })
  const { draft, revision } = await pages.get(page.id)
  await pages.saveDraft(page.id, { title: 'Since', draft: pageOf(...draft.content, heading('More')), revision })
  const since = await known()
  await expect(library.restore(gone, undo)).rejects.toMatchObject({ status: 409 })
  expect((await library.get(file.id)).deleted).not.toBeNull()
  await library.restore(gone)
  expect(await known()).toEqual(since)
})

it('of what was in no place nothing is kept for that', async () => {
  const file = await test.put('nowhere.txt', 'nowhere')
  expect(await test.trough.library.remove({ files: [file.id], folders: [] }, { takeOff: true })).not.toHaveProperty('undo')
})
