import { afterAll, beforeAll, expect, it } from 'vitest'
import { buttonsIn } from '../../../core/page/looks'
import { button, pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

it('another file is put in the place of one everywhere, and that is taken back', async () => {
  const { library, pages, signposts, bundles } = test.trough
  const [old, next] = [await test.put('old.txt', 'old'), await test.put('next.txt', 'next one')]
  const page = await pages.create({ title: 'Page' })
  // The other file is there already, too: that place stays its own when the change is taken back.
  const before = pageOf(button({ target: { kind: 'file', id: old.id } }), button({ placement: 'cccccccccc', target: { kind: 'file', id: next.id } }))
  await pages.saveDraft(page.id, { title: 'Page', draft: before, revision: 1 })
  await pages.publish(page.id)
  const post = await signposts.create({ title: 'Current', file: old.id })
  const bundle = await bundles.create({ title: 'Pack', folder: null, files: [old.id], folders: [] })

  const { places, undo } = await library.replace(old.id, next.id)
  expect(places).toBe(3)
  const targets = async () => {
    const { draft, live } = await pages.get(page.id)
    return [draft, live!.document].map(document => buttonsIn(document).map(({ target }) => (target as { id: string }).id))
  }
  const members = async () => (await bundles.details(bundle.id)).entries.map(entry => 'file' in entry && entry.file)
  expect([await targets(), (await signposts.get(post.id)).file, await members()]).toEqual([[[next.id, next.id], [next.id, next.id]], next.id, [next.id]])
  expect((await library.get(old.id)).uses).toBe(0)
  await library.takeReplacementBack(undo)
  expect([await targets(), (await signposts.get(post.id)).file, await members()]).toEqual([[[old.id, next.id], [old.id, next.id]], old.id, [old.id]])
  await expect(library.takeReplacementBack(undo)).rejects.toThrow('can no longer be taken back')
})

it('is refused whole where the other file cannot be put everywhere', async () => {
  const { library, bundles, signposts } = test.trough
  const one = await test.put('one.txt', 'one')
  const pack = await bundles.create({ title: 'One', folder: null, files: [one.id], folders: [] })
  const post = await signposts.create({ title: 'One', file: one.id })
  // A bundle cannot lie in a bundle.
  await expect(library.replace(one.id, pack.id)).rejects.toThrow('is a bundle')
  expect((await signposts.get(post.id)).file).toBe(one.id)
  await expect(library.replace(one.id, one.id)).rejects.toThrow('cannot take its own place')
})

it('two who replace the same file at once leave everything with one of the two, never some with each', async () => {
  const { library, pages } = test.trough
  const [old, one, other] = await Promise.all(['o.txt', 'p.txt', 'q.txt'].map(name => test.put(name, name)))
  const made = await Promise.all(['A', 'B', 'C'].map(async (title) => {
    const page = await pages.create({ title }, { draft: pageOf(button({ target: { kind: 'file', id: old!.id } })) })
    await pages.publish(page.id)
    return page.id
  }))
  await Promise.all([library.replace(old!.id, one!.id), library.replace(old!.id, other!.id)])
  const led = new Set<string>()
  for (const id of made) for (const { target } of buttonsIn((await pages.get(id)).live!.document)) led.add((target as { id: string }).id)
  expect(led.size).toBe(1)
  expect(led.has(old!.id)).toBe(false)
})
