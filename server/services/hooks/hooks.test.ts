import { createHmac } from 'node:crypto'
import type { IncomingHttpHeaders } from 'node:http'
import { Webhook } from 'standardwebhooks'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { gateRuleSchema } from '../../../core/gate/gate'
import { listen, openTestTrough, type TestTrough } from '../../testing/harness'
import { createHookSending } from './sending'

/* Messages to other services, taken by a real receiver. */

const HOUR = 60 * 60 * 1000
/** The example of the specification's reference implementations: secret, identity, seconds, payload, signature (from memory). */
const EXAMPLE = {
  secret: 'whsec_MfKQ9r8GKYqrTwjUPD8ILPZIo2LaLaSw',
  id: 'msg_p5jXN8AQM9LWM0D4loKWxJek',
  at: 1614265330,
  body: '{"test": 2432232314}',
  signature: 'v1,g0hM9SsE+OTPJTGt/tmIKtSyZlE3uFJELVlNIOLJ1OE=',
}

interface Taken {
  headers: IncomingHttpHeaders
  body: string
}
let test: TestTrough
let taken: Taken[]
let answer: number
let receiver: Awaited<ReturnType<typeof listen>>
beforeAll(async () => {
  taken = []
  answer = 204
  test = await openTestTrough()
  receiver = await listen(async (request, response) => {
    let body = ''
    for await (const piece of request) body += piece
    taken.push({ headers: request.headers, body })
    response.writeHead(answer, answer === 302 ? { Location: 'http://169.254.169.254/' } : {}).end()
  })
})
afterAll(async () => {
  await receiver.close()
  await test.close()
})

const allowHere = () => test.trough.fetching.setHosts(['127.0.0.1'])
const make = (events: ('contact.left' | 'file.downloaded')[] = ['contact.left']) =>
  test.trough.hooks.create({ address: `${receiver.url}/hook`, events })
const statesOf = async (id: string) => (await test.trough.hooks.messages(id)).map(({ state }) => state)

it('signs as the specification does', () => {
  const signed = new Webhook(EXAMPLE.secret).sign(EXAMPLE.id, new Date(EXAMPLE.at * 1000), EXAMPLE.body)
  expect(signed).toBe(EXAMPLE.signature)
})

describe('a service', () => {
  it('in a private network is told nothing until its host is allowed', async () => {
    const hook = await make()
    const sending = createHookSending(test.trough.dataFolder.connection.db, test.trough.dataFolder.events, test.trough.fetching.hosts)
    sending.start()
    await test.trough.hooks.try(hook.id)
    await expect.poll(async () => (await test.trough.hooks.messages(hook.id))[0]!.error).toMatch(/private|network/i)
    expect(taken).toEqual([])
    await sending.close()
    await test.trough.hooks.remove(hook.id)
    await allowHere()
  })

  it('is told of an address that was left, with a signature that anybody can hold against the secret', async () => {
    const { db } = test.trough.dataFolder.connection
    const hook = await make()
    const gate = await test.trough.gates.create({ name: 'Guides', rule: gateRuleSchema.parse({ kind: 'email' }) })
    const given = { answers: [{ label: 'Firm', value: 'Wheel & Co' }], consent: 'Write to me.' }
    await db.transaction(tx => test.trough.contacts.admit(tx, { gate, email: 'w@wheel.example', confirmed: true, given }))
    const sending = createHookSending(db, test.trough.dataFolder.events, test.trough.fetching.hosts)
    sending.start()
    await expect.poll(() => taken.length).toBe(1)
    const [{ headers, body }] = taken as [Taken]
    expect(JSON.parse(body)).toMatchObject({
      type: 'contact.left',
      timestamp: expect.stringMatching(/^\d{4}-\d\d-\d\dT.*Z$/),
      data: { email: 'w@wheel.example', confirmed: true, gate: 'Guides', consent: 'Write to me.' },
    })
    // By the library of the specification, and by hand.
    expect(() => new Webhook(hook.secret).verify(body, headers as Record<string, string>)).not.toThrow()
    const key = Buffer.from(hook.secret.replace('whsec_', ''), 'base64')
    expect(key.length).toBe(32)
    const signed = `${String(headers['webhook-id'])}.${String(headers['webhook-timestamp'])}.${body}`
    expect(headers['webhook-signature']).toBe(`v1,${createHmac('sha256', key).update(signed).digest('base64')}`)
    await expect.poll(() => statesOf(hook.id)).toEqual(['sent'])
    await sending.close()

    // Erased with all traces.
    const { items } = await test.trough.contacts.list({ q: 'w@wheel', from: 0, limit: 10 })
    await test.trough.contacts.erase(items[0]!.id)
    expect(await statesOf(hook.id)).toEqual([])
    await test.trough.hooks.remove(hook.id)
  })

  it('that is paused is told nothing of what happens meanwhile; another secret signs from then on', async () => {
    const { db } = test.trough.dataFolder.connection
    const hook = await make()
    const leave = (email: string) => db.transaction(tx => test.trough.contacts.leave(tx, { email, at: 'Letterbox', answers: [] }))
    await test.trough.hooks.change(hook.id, { on: false })
    await leave('meanwhile@wheel.example')
    expect(await test.trough.hooks.messages(hook.id)).toEqual([])
    await test.trough.hooks.change(hook.id, { on: true })
    const { secret } = await test.trough.hooks.renewSecret(hook.id)
    expect(secret).not.toBe(hook.secret)
    await leave('after@wheel.example')
    taken.length = 0
    const sending = createHookSending(db, test.trough.dataFolder.events, test.trough.fetching.hosts)
    sending.start()
    await expect.poll(() => taken.length).toBe(1)
    const [{ headers, body }] = taken as [Taken]
    expect(body).toContain('after@wheel.example')
    expect(() => new Webhook(secret).verify(body, headers as Record<string, string>)).not.toThrow()
    expect(() => new Webhook(hook.secret).verify(body, headers as Record<string, string>)).toThrow()
    await sending.close()
    await test.trough.hooks.remove(hook.id)
    taken.length = 0
  })

  it('is told of a download that was counted, and of nothing that it did not ask for', async () => {
    const hook = await make(['file.downloaded'])
    const other = await make(['contact.left'])
    const file = await test.put('list.txt', 'words')
    const { tally } = test.trough
    tally.observe({
      file: file.id,
      etag: '"e"',
      edition: 1,
      placement: '',
      size: 5,
      delivered: [{ start: 0, end: 5 }],
      address: '192.0.2.9',
      at: Date.now(),
      userAgent: 'Mozilla/5.0 (X11; Linux x86_64)',
    })
    await tally.flush()
    const [message] = await test.trough.hooks.messages(hook.id)
    expect(JSON.parse(message!.body)).toMatchObject({ type: 'file.downloaded', data: { file: file.id, edition: 1, downloads: 1 } })
    // Nothing in it says who it was.
    expect(message!.body).not.toContain('192.0.2.9')
    expect(await statesOf(other.id)).toEqual([])
    await test.trough.hooks.remove(hook.id)
    await test.trough.hooks.remove(other.id)
  })

  it('that does not take it is told again, later and later, under the same identity, and in the end no more', async () => {
    const hook = await make()
    // A moment ahead of the database, which says from when a message is due.
    let now = Date.now() + 1000
    taken = []
    answer = 500
    await test.trough.hooks.try(hook.id)
    const sending = createHookSending(
      test.trough.dataFolder.connection.db,
      test.trough.dataFolder.events,
      test.trough.fetching.hosts,
      () => now,
    )
    const waits: number[] = []
    for (let turn = 1; turn <= 10; turn++) {
      await sending.work()
      // Not before its time, however often it is looked.
      await sending.work()
      expect(taken.length).toBe(turn)
      const { next, error } = (await test.trough.hooks.messages(hook.id))[0]!
      expect(error).toMatch(/500/)
      if (next !== null) waits.push(Date.parse(next) - now)
      now += 25 * HOUR
    }
    expect(waits.map(wait => wait / 1000)).toEqual([5, 300, 1800, 7200, 18000, 36000, 50400, 72000, 86400])
    expect(await statesOf(hook.id)).toEqual(['failed'])
    expect(new Set(taken.map(({ headers }) => headers['webhook-id'])).size).toBe(1)
    answer = 204
    await test.trough.hooks.again(hook.id, (await test.trough.hooks.messages(hook.id))[0]!.id)
    await sending.work()
    expect(await statesOf(hook.id)).toEqual(['sent'])
    await sending.close()
    await test.trough.hooks.remove(hook.id)
  })

  it('that says it is gone is told nothing more, and one that leads elsewhere is not followed', async () => {
    const [gone, elsewhere] = [await make(), await make()]
    const sending = createHookSending(test.trough.dataFolder.connection.db, test.trough.dataFolder.events, test.trough.fetching.hosts)
    answer = 410
    await test.trough.hooks.try(gone.id)
    sending.start()
    await expect.poll(async () => (await test.trough.hooks.list()).find(({ id }) => id === gone.id)!.on).toBe(false)
    answer = 302
    await test.trough.hooks.try(elsewhere.id)
    await expect.poll(async () => (await test.trough.hooks.messages(elsewhere.id))[0]!.error).toMatch(/302/)
    await sending.close()
    answer = 204
  })
})
