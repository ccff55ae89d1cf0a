import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { gateRuleSchema } from '../../../core/gate/gate'
import { button, pageOf, words } from '../../../core/testing/pages'
import { pages as pagesTable, pageVersions } from '../../db/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const html = async (slug: string) => (await test.trough.published.find(slug, undefined))?.bytes.toString()

/** A page with two live versions, a former address and a draft that waits, which leads to a file. */
async function madePage(title: string) {
  const { pages } = test.trough
  const file = await test.put(`${title}.txt`, title)
  const to = button({ target: { kind: 'file', id: file.id } })
  const page = await pages.create({ title })
  const first = await pages.saveDraft(page.id, { title, draft: pageOf(words('One'), to), revision: page.revision })
  await pages.publish(page.id)
  const second = await pages.saveDraft(page.id, { title, draft: pageOf(words('Two'), to), revision: first.revision })
  await pages.publish(page.id)
  await pages.change(page.id, { slug: `${page.slug}-now`, description: 'About it' })
  await pages.saveDraft(page.id, { title, draft: pageOf(words('Three'), to), revision: second.revision })
  return { id: page.id, file: file.id, former: page.slug, slug: `${page.slug}-now` }
}

describe('the bin of pages', () => {
  it('gives a page back as it was: live, with its draft, its versions, its former address and where it leads', async () => {
    const { pages, replacing } = test.trough
    const { id, file, former, slug } = await madePage('Kilns')
    const before = { page: await pages.get(id), versions: await pages.versions(id), html: await html(slug) }
    const uses = async () => (await replacing.places({ kind: 'file', id: file })).uses
    const led = await uses()
    expect(led).toMatchObject([{ pageId: id }])

    await pages.remove(id)
    expect(await html(slug)).toBeUndefined()
    expect(await uses()).toEqual([])
    await expect(pages.get(id)).rejects.toMatchObject({ status: 404 })
    expect(await pages.binned()).toMatchObject([{ id, title: 'Kilns', slug, live: true }])

    expect(await pages.restore(id)).toEqual({ id, slug, gateGone: false })
    expect({ page: await pages.get(id), versions: await pages.versions(id), html: await html(slug) }).toEqual(before)
    expect(await uses()).toEqual(led)
    expect((await pages.at(former))?.id).toBe(id)
    expect(await pages.binned()).toEqual([])
  })

  it('gives back all that is known of a page: its gate, and who put what live', async () => {
    const { pages, gates, database } = test.trough
    const gate = await gates.create({ name: 'Trade', rule: gateRuleSchema.parse({ kind: 'password' }), password: 'reduction-1280' })
    const { id } = await pages.create({ title: 'Trade prices' })
    await pages.change(id, { gate: gate.id, inMenu: false })
    await pages.publish(id, { by: 'owner@marlpit.example' })
    const known = async () => ({
      page: await database.select().from(pagesTable).where(eq(pagesTable.id, id)),
      versions: await database.select().from(pageVersions).where(eq(pageVersions.pageId, id)),
    })
    const before = await known()
    expect(before).toMatchObject({ page: [{ gate: gate.id }], versions: [{ by: 'owner@marlpit.example' }] })
    await pages.remove(id)
    await pages.restore(id)
    expect(await known()).toEqual(before)
  })

  it('gives a page back beside one that took its address, and leaves that its own', async () => {
    const { pages } = test.trough
    const { id } = await pages.create({ title: 'Prices' })
    await pages.remove(id)
    const other = await pages.create({ title: 'Prices' })
    expect(other.slug).toBe('prices')
    expect(await pages.restore(id)).toEqual({ id, slug: 'prices-2', gateGone: false })
    expect((await pages.get(other.id)).slug).toBe('prices')
  })

  it('gives a page back to one of two who ask at once, and says to the other that it is gone', async () => {
    const { pages } = test.trough
    const { id } = await pages.create({ title: 'Once' })
    const removed = await Promise.allSettled([pages.remove(id), pages.remove(id)])
    expect(removed.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    const back = await Promise.allSettled([pages.restore(id), pages.restore(id)])
    expect(back.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect(back.find(({ status }) => status === 'rejected')).toMatchObject({ reason: { status: 404 } })
  })

  it('lets a page go for good when it is asked to, or when its days are over', async () => {
    const { pages } = test.trough
    const [one, other] = [await pages.create({ title: 'A' }), await pages.create({ title: 'B' })]
    await pages.remove(one.id)
    await pages.remove(other.id)
    await pages.removeForGood(one.id)
    await expect(pages.restore(one.id)).rejects.toMatchObject({ status: 404 })
    await pages.emptyOldBin(new Date(Date.now() - 60_000))
    expect((await pages.binned()).map(({ id }) => id)).toEqual([other.id])
    await pages.emptyOldBin(new Date(Date.now() + 60_000))
    expect(await pages.binned()).toEqual([])
  })
})
