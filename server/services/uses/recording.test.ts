import { sql } from 'drizzle-orm'
import { expect, it } from 'vitest'
import { button, heading, pageOf } from '../../../core/testing/pages'
import { openTestTrough } from '../../testing/harness'

it('what an earlier version wrote down of where pages lead is written anew when Trough starts', async () => {
  const shop = { kind: 'address' as const, href: 'https://shop.example/' }
  const test = await openTestTrough()
  const page = await test.trough.pages.create({ title: 'Old' }, { draft: pageOf(heading('Elsewhere'), button({ target: shop })) })
  await test.trough.pages.publish(page.id)
  await test.trough.close()
  const { db, close } = await test.connect()
  await db.execute(sql`update uses set section = null, address = ''`)
  await close()
  const trough = await test.openAgain()
  try {
    // Until then it is known to lead out of the site, and so is not broken.
    expect(await trough.pages.list()).toContainEqual(expect.objectContaining({ title: 'Old', broken: 0 }))
    await trough.resume()
    expect((await trough.replacing.places(shop)).uses).toMatchObject([{ pageTitle: 'Old', section: 'Elsewhere', draft: true, live: true }])
  } finally {
    await trough.close()
  }
})
