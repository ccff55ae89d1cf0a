import { afterAll, beforeAll, expect, it } from 'vitest'
import { pageOf, words } from '../../../core/testing/pages'
import type { FirstFacts } from '../../../core/site/firstFacts'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const FACTS: FirstFacts = {
  name: 'Marlpit',
  about: 'Clay and kilns.',
  hours: 'Monday to Friday, 8 to 5',
  phone: '01632 960146',
  email: '',
  language: 'de',
  file: null,
}

it('writes what is still empty, goes on where it was broken off, and touches nothing that somebody wrote', async () => {
  const { firstPages, pages, site } = test.trough
  const { id, revision } = await pages.create({ title: 'Home' }, { home: true })
  const first = await firstPages.make(FACTS)
  expect(first).toMatchObject({ home: id, written: [id, expect.any(String), 'foot'] })
  expect(await site.get()).toMatchObject({ name: 'Marlpit', language: 'de' })
  expect(await pages.get(id)).toMatchObject({ title: 'Marlpit', published: null })
  expect(JSON.stringify((await pages.get(id)).draft)).toContain('Öffnungszeiten')
  expect((await pages.list()).filter(({ edge }) => !edge).map(({ slug }) => slug)).toEqual(['', 'downloads'])

  // As if the process had ended before the foot: asked for again, it alone is written.
  const foot = await pages.get('foot')
  await pages.saveDraft('foot', { title: foot.title, draft: pageOf({ type: 'paragraph' }), revision: foot.revision })
  await pages.saveDraft(id, { title: 'Marlpit', draft: pageOf(words('Written by hand')), revision: revision + 1 })
  expect(await firstPages.make({ ...FACTS, name: 'Marlpit Yard' })).toMatchObject({ written: ['foot'] })
  expect((await pages.get(id)).draft).toEqual(pageOf(words('Written by hand')))
  expect((await pages.list()).filter(({ edge }) => !edge)).toHaveLength(2)
})

it('refuses a file that is not there, and makes nothing of it', async () => {
  const before = await test.trough.site.get()
  await expect(test.trough.firstPages.make({ ...FACTS, name: 'Elsewhere', file: 'none' })).rejects.toMatchObject({ status: 404 })
  expect(await test.trough.site.get()).toEqual(before)
})
