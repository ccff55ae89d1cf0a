import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { outbox, settings } from '../../db/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createSummaries } from './summaries'

let test: TestTrough
/** A Monday, at noon. */
const MONDAY = Date.parse('2026-11-30T12:00:00Z')
const WEEK = 7 * 86_400_000
let now = MONDAY
const make = () =>
  createSummaries({
    db: test.trough.database,
    downloads: test.trough.downloads,
    outbox: test.trough.outbox,
    site: async () => ({ name: 'Marlpit', zone: 'UTC', address: '' }),
    now: () => now,
  })
const written = () => test.trough.database.select().from(outbox).orderBy(outbox.created)

beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())
beforeEach(async () => {
  now = MONDAY
  await test.trough.database.delete(outbox)
  await test.trough.database.delete(settings).where(eq(settings.key, 'summary'))
})

it('tells nothing before it is asked to, and the first time once the week under way has ended', async () => {
  const summaries = make()
  await summaries.runWhenDue()
  await summaries.set({ every: 'week', to: 'shop@marlpit.example' }, 'https://desk.example')
  await summaries.runWhenDue()
  expect(await written()).toEqual([])
  now += WEEK
  await summaries.runWhenDue()
  await summaries.runWhenDue()
  const [message, ...more] = await written()
  expect(more).toEqual([])
  expect(message).toMatchObject({ to: 'shop@marlpit.example', subject: 'What was taken from Marlpit, 2026-11-30 to 2026-12-06' })
  expect(message!.text).toContain('https://desk.example/desk/downloads?span=days&from=2026-11-30&to=2026-12-06')
  expect(message!.text).toContain('0 downloads, 0 in the time before.')
})

it('tells each week once, however many ask at the same time', async () => {
  await make().set({ every: 'week', to: 'shop@marlpit.example' }, '')
  now += WEEK
  await Promise.all([make(), make(), make()].map(summaries => summaries.runWhenDue()))
  expect(await written()).toHaveLength(1)
  // What came while nothing ran is told as one: of the week that ended last.
  now += 5 * WEEK
  await make().runWhenDue()
  expect((await written()).map(({ subject }) => subject.slice(-24))).toEqual(['2026-11-30 to 2026-12-06', '2027-01-04 to 2027-01-10'])
})

it('is written at once where somebody wants to see it, and not where nobody is named', async () => {
  await expect(make().tellNow()).rejects.toMatchObject({ status: 409 })
  await make().set({ every: 'month', to: 'shop@marlpit.example' }, '')
  await make().tellNow()
  expect((await written()).map(({ subject }) => subject)).toEqual(['What was taken from Marlpit, 2026-10-01 to 2026-10-31'])
})
