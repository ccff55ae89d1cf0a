import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { newField } from '../../../core/catalogue/field'
import type { Inline } from '../../../core/page/schema'
import { pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
  await test.trough.site.set({ name: 'Marlpit', address: 'https://www.marlpit.example' })
})
afterAll(() => test.close())

const HOURS: Inline = { type: 'siteValue', attrs: { field: 'hours' } }
const line = (...content: Inline[]) => ({ type: 'paragraph' as const, content })
const html = async (slug: string) => (await test.trough.published.find(slug, undefined))!.bytes.toString()

describe('values of the site', () => {
  it('are one entry, made once, that is no list and has no page', async () => {
    const both = await Promise.all([test.trough.catalogues.ofSite(), test.trough.catalogues.ofSite()])
    expect(both[0].id).toBe(both[1].id)
    const { id } = both[0]
    const [entry, ...more] = await test.trough.entries.list(id)
    expect(more).toEqual([])
    await expect(test.trough.entries.create(id, [{ title: 'Another' }])).rejects.toMatchObject({ status: 422 })
    await expect(test.trough.entries.remove(id, [entry!.id])).rejects.toMatchObject({ status: 422 })
    await expect(test.trough.layingOut.both(id)).rejects.toMatchObject({ status: 422 })
  })

  it('stand in pages and around them as they are live, and change everywhere at once', async () => {
    const { catalogues, entries, pages } = test.trough
    const { id, fields, revision } = await catalogues.ofSite()
    await catalogues.changeFields(id, { fields: [...fields, newField('hours', 'Opening hours')], revision, despite: false })
    const page = await pages.create({ title: 'Visit us' }, { draft: pageOf(line({ type: 'text', text: 'Open: ' }, HOURS)) })
    await pages.publish(page.id)
    const foot = await pages.get('foot')
    await pages.saveDraft('foot', { title: foot.title, draft: pageOf(line(HOURS)), revision: foot.revision })
    await pages.publish('foot')
    // A line that would say nothing is not there.
    expect(await html(page.slug)).not.toContain('Open:')

    const write = async (hours: string) => {
      const [entry] = await entries.list(id)
      await entries.change(id, [{ id: entry!.id, revision: entry!.revision, values: { hours } }])
    }
    await write('9 to 5')
    expect(await html(page.slug)).not.toContain('9 to 5')
    await entries.publish(id, undefined)
    const shown = await html(page.slug)
    expect(shown).toContain('Open: 9 to 5')
    expect(shown.split('<footer')[1]).toContain('9 to 5')
    await write('10 to 4')
    await entries.publish(id, undefined)
    const after = await html(page.slug)
    expect(after).not.toContain('9 to 5')
    for (const part of after.split('<footer')) expect(part).toContain('10 to 4')

    // A file that stands around pages is called as it is now.
    const file = await test.put('hours.txt', 'x')
    const now = await catalogues.get(id)
    await catalogues.changeFields(id, { fields: [...now.fields, newField('plan', 'Plan', 'file')], revision: now.revision, despite: false })
    const [entry] = await entries.list(id)
    await entries.change(id, [{ id: entry!.id, revision: entry!.revision, values: { plan: file.id } }])
    await entries.publish(id, undefined)
    const edge = await pages.get('foot')
    await pages.saveDraft('foot', {
      title: edge.title,
      draft: pageOf(line({ type: 'siteValue', attrs: { field: 'plan' } })),
      revision: edge.revision,
    })
    await pages.publish('foot')
    expect((await html(page.slug)).split('<footer')[1]).toContain(file.title)
    await test.trough.library.change(file.id, { title: 'How to find us' })
    expect((await html(page.slug)).split('<footer')[1]).toContain('How to find us')
  })
})
