import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { asc } from 'drizzle-orm'
import { dailyCounts } from '../../db/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createDailyTally, type DailyTally } from './daily'
import { createWho } from './who'

const FIREFOX = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
const MINUTE = 60_000

let test: TestTrough
let daily: DailyTally
let now = 0
let zone = 'Europe/London'
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())
beforeEach(async () => {
  await test.trough.database.delete(dailyCounts)
  now = Date.parse('2026-11-29T12:00:00Z')
  zone = 'Europe/London'
  daily = createDailyTally(
    test.trough.database,
    createWho('secret'),
    async () => ({ zone, hosts: ['www.marlpit.example'] }),
    () => now,
  )
})

const page = (of: string, visitor = 7) => ({ what: 'seen' as const, of, detail: '', address: `192.0.2.${visitor}`, userAgent: FIREFOX })
async function counted() {
  await daily.flush()
  const rows = await test.trough.database.select().from(dailyCounts).orderBy(asc(dailyCounts.day), asc(dailyCounts.of))
  return rows.map(({ day, of, detail, count }) => [day, of, detail, count])
}

it('counts a page once for a row of clicks, and again later; robots never', async () => {
  daily.see(page('home'))
  now += 20_000
  daily.see(page('home'))
  now += 20_000
  daily.see(page('home'))
  daily.see(page('home', 8))
  daily.see({ ...page('home', 9), userAgent: 'Examplebot/2.1 (bot)' })
  daily.see({ ...page('home', 10), userAgent: undefined })
  expect(await counted()).toEqual([['2026-11-29', 'home', '', 2]])
  now += 31_000
  daily.see(page('home'))
  expect(await counted()).toEqual([['2026-11-29', 'home', '', 3]])
})

it('takes what one visitor looks for in half an hour for one', async () => {
  const words = { ...page('porcelain'), what: 'unfound' as const }
  daily.see(words)
  now += 29 * MINUTE
  daily.see(words)
  expect(await counted()).toEqual([['2026-11-29', 'porcelain', '', 1]])
  now += 31 * MINUTE
  daily.see(words)
  expect(await counted()).toEqual([['2026-11-29', 'porcelain', '', 2]])
})

it('counts by the days of the site, where they begin', async () => {
  zone = 'Asia/Kathmandu'
  // Five hours and three quarters ahead (IANA time zone database).
  now = Date.parse('2026-11-29T18:14:59Z')
  daily.see(page('home', 1))
  now += 2000
  daily.see(page('home', 2))
  expect(await counted()).toEqual([
    ['2026-11-29', 'home', '', 1],
    ['2026-11-30', 'home', '', 1],
  ])
})

it('says where an address was followed that leads nowhere, without what was asked for there', async () => {
  const missing = (referer: string | undefined, visitor: number) =>
    daily.see({ ...page('/old.pdf', visitor), what: 'missing', referer, host: 'localhost:4000' })
  missing('https://www.marlpit.example/guides?q=secret', 1)
  missing('http://localhost:4000/guides', 2)
  missing('https://www.kilnclub.example/suppliers?who=me', 3)
  missing(undefined, 4)
  expect((await counted()).map(([, , detail, count]) => [detail, count]).sort()).toEqual([
    ['', 1],
    ['/guides', 2],
    ['kilnclub.example/suppliers', 1],
  ])
})

it('keeps no more addresses of a day than anybody could read', async () => {
  for (let one = 0; one < 700; one++) daily.see({ ...page(`/wp-${one}`, one % 250), what: 'missing' })
  await daily.flush()
  for (let one = 700; one < 800; one++) daily.see({ ...page(`/wp-${one}`, one % 250), what: 'missing' })
  const rows = await counted()
  expect(rows).toHaveLength(501)
  expect(rows.reduce((sum, [, , , count]) => sum + Number(count), 0)).toBe(800)
  expect(rows[0]).toEqual(['2026-11-29', '', '', 300])
})

it('loses nothing that could not be written at once, and nothing of two that write', async () => {
  const { database } = test.trough
  let full = true
  const failing = {
    execute: (query: never) => (full ? Promise.reject(new Error('no space left on device')) : database.execute(query)),
  } as unknown as typeof database
  const who = createWho('secret')
  const site = async () => ({ zone, hosts: [] })
  const [one, other] = [createDailyTally(failing, who, site), createDailyTally(database, who, site)]
  one.note({ what: 'robot', of: 'file', detail: '' }, now)
  await expect(one.flush()).rejects.toThrow('no space left')
  one.note({ what: 'robot', of: 'file', detail: '' }, now)
  full = false
  other.note({ what: 'robot', of: 'file', detail: '' }, now)
  await Promise.all([one.flush(), other.flush()])
  expect(await counted()).toEqual([['2026-11-29', 'file', '', 3]])
})

it('forgets what visitors wrote a year and more ago, and keeps what was seen', async () => {
  daily.note({ what: 'unfound', of: 'a name', detail: '' }, now - 401 * 24 * 60 * MINUTE)
  daily.note({ what: 'seen', of: 'home', detail: '' }, now - 401 * 24 * 60 * MINUTE)
  await daily.flush()
  await daily.tidy()
  expect((await counted()).map(([, of]) => of)).toEqual(['home'])
})
