import { afterAll, beforeAll, beforeEach, expect, it } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createOutbox } from './outbox'
import { createMailSettings } from './settings'
import type { Refusal } from './transport'

const MINUTE = 60_000
let test: TestTrough
let now = Date.parse('2026-11-01T08:00:00Z')
/** what the mail service says to each message, and what it was given */
let answers: (Refusal | undefined)[] = []
let given: string[] = []
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())
beforeEach(() => {
  answers = []
  given = []
})

function open(perHour = 200) {
  const mail = createMailSettings(test.trough.database, '')
  const outbox = createOutbox(
    test.trough.database,
    mail,
    { send: async (_settings, { subject }) => (given.push(subject), answers.shift()) },
    async () => ({ name: 'Shop', host: 'shop.example' }),
    () => now,
  )
  return { outbox, ready: mail.set({ smtp: 'smtp://mail.example', from: 'us@shop.example', perHour }) }
}
const settle = async (outbox: ReturnType<typeof open>['outbox']) => {
  outbox.soon()
  await new Promise(resolve => setTimeout(resolve, 150))
  await outbox.list({ from: 0, limit: 1 })
}
const write = (outbox: ReturnType<typeof open>['outbox'], subject: string) =>
  outbox.add({ to: 'you@pots.example', subject, text: 'text', html: '<p>text</p>' })

it('tries again later what was refused for now, each time longer, and gives up in the end', async () => {
  const { outbox, ready } = open()
  await ready
  const id = await write(outbox, 'patient')
  answers = Array.from({ length: 20 }, () => ({ words: 'busy', lasting: false }))
  const waits: number[] = []
  for (let tries = 1; tries < 20; tries++) {
    await expect.poll(async () => (outbox.soon(), (await outbox.get(id)).tries)).toBe(tries)
    await expect.poll(async () => (await outbox.get(id)).state).not.toBe('sending')
    const { next, state } = await outbox.get(id)
    if (state === 'failed') break
    waits.push((Date.parse(next!) - now) / MINUTE)
    now = Date.parse(next!)
  }
  expect(waits).toEqual([1, 5, 30, 120, 360, 720, 1440, 1440])
  expect((await outbox.get(id)).error).toBe('busy')
  await outbox.close()
})

it('sends no more within an hour than it may, and the rest after it', async () => {
  const { outbox, ready } = open(2)
  await ready
  for (const subject of ['one', 'two', 'three']) await write(outbox, subject)
  await expect.poll(async () => (outbox.soon(), given.length)).toBe(2)
  await settle(outbox)
  expect(given).toEqual(['one', 'two'])
  now += 61 * MINUTE
  await expect.poll(async () => (outbox.soon(), given.length)).toBe(3)
  await outbox.close()
})
