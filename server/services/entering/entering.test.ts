import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { gateRuleSchema } from '../../../core/gate/gate'
import { guestLinks, unconfirmed } from '../../db/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import type { Comer, Entered } from './coming'

const MINUTE = 60_000
const HOUR = 60 * MINUTE
const WANTED = '/files/glazes.pdf'

let test: TestTrough
let now = Date.parse('2026-11-29T10:00:00Z')
/** Goes on to a later time: what was opened takes the clock of this process. */
function later(milliseconds: number): void {
  now += milliseconds
  vi.setSystemTime(now)
}
beforeAll(async () => {
  vi.useFakeTimers({ toFake: ['Date'], now })
  test = await openTestTrough()
  await test.trough.site.set({ name: 'Marlpit', address: 'https://www.marlpit.example' })
})
afterAll(async () => {
  vi.useRealTimers()
  await test.close()
})

let networks = 0
/** Somebody from a network nobody came from yet. */
const comer = (): Comer => ({
  address: `198.51.${100 + (++networks >> 8)}.${networks & 255}`,
  secure: true,
  origin: 'https://elsewhere.example',
})

const makeGate = (name: string, rule: object) => test.trough.gates.create({ name, rule: gateRuleSchema.parse(rule) })
const pageOf = async (entered: Entered) => ('made' in entered ? (await entered.made(undefined)).bytes.toString() : '')
const statusOf = (entered: Entered) => ('made' in entered ? entered.status : undefined)

/** The form of a gate as it was made for a visitor, filled in. */
async function formOf(gate: string, given: Record<string, string> = {}): Promise<URLSearchParams> {
  const page = await pageOf(await test.trough.entering.show(gate, WANTED))
  const hidden = [...page.matchAll(/<input type="hidden" name="(\w+)" value="([^"]*)"/g)].map(([, name, value]) => [name!, value!])
  later(2000)
  return new URLSearchParams([...hidden, ...Object.entries(given)])
}
const enter = async (gate: string, given: Record<string, string>, who = comer()) =>
  test.trough.entering.enter(gate, await formOf(gate, given), who)

/** What was sent to an address, the newest first. */
async function sentTo(email: string) {
  const { outbox } = test.trough
  const { items } = await outbox.list({ from: 0, limit: 200 })
  return Promise.all(items.filter(({ to }) => to === email).map(({ id }) => outbox.get(id)))
}
const linkIn = (text: string, path: string) => new RegExp(`https://www\\.marlpit\\.example${path}([\\w-]+)`).exec(text)![1]!
const contactsOf = async (q: string) => (await test.trough.contacts.list({ q, from: 0, limit: 10 })).items

describe('guests by name', () => {
  let gate: string
  let ada: string
  const tokenOf = async (email: string) => linkIn((await sentTo(email))[0]!.text, '/pass/come-in/')
  beforeAll(async () => {
    ;[ada] = (await test.trough.guests.add({ guests: [{ email: 'ada@pots.example', name: 'Ada' }], groups: [] })) as [string]
    gate = (await makeGate('Trade', { kind: 'people', guests: [ada] })).id
  })

  // OWASP, Authentication Cheat Sheet, and CWE-204 and 208: neither the answer nor how long it takes says who was invited.
  it('are answered as everybody else is, before a message is written', async () => {
    const { outbox } = test.trough
    const write = outbox.add
    const events: string[] = []
    const writes = vi.spyOn(outbox, 'add').mockImplementation(async (...given) => (events.push('written'), write(...given)))
    const invited = await pageOf(await enter(gate, { email: ' Ada@Pots.example ' }))
    events.push('answered')
    await outbox.settled()
    writes.mockRestore()
    expect(events).toEqual(['answered', 'written'])
    expect(await pageOf(await enter(gate, { email: 'eve@pots.example' }))).toBe(invited)
    expect(await sentTo('eve@pots.example')).toEqual([])
    expect(await sentTo('ada@pots.example')).toHaveLength(1)
  })

  it('come in by the link of the message, once; looking at it uses nothing up', async () => {
    const { entering } = test.trough
    const token = await tokenOf('ada@pots.example')
    for (const _ of [1, 2]) expect(await pageOf(await entering.comingIn(token))).toContain('ada@pots.example')
    const entered = await entering.comeIn(token, new URLSearchParams(), comer())
    expect(entered).toMatchObject({
      to: WANTED,
      cookie: expect.stringMatching(new RegExp(`^__Host-pass-${gate}=.*; HttpOnly; SameSite=Lax; Secure$`)),
    })
    await expect(entering.comeIn(token, new URLSearchParams(), comer())).rejects.toMatchObject({ status: 410 })
    await expect(entering.comingIn(token)).rejects.toMatchObject({ status: 410 })
  })

  it('choose a password on the way, and come by it the next time', async () => {
    const { entering } = test.trough
    await enter(gate, { email: 'ada@pots.example' })
    const token = await tokenOf('ada@pots.example')
    const short = await entering.comeIn(token, new URLSearchParams({ password: 'kiln' }), comer())
    expect(statusOf(short)).toBe(422)
    expect(await entering.comeIn(token, new URLSearchParams({ password: 'celadon and ash' }), comer())).toMatchObject({ to: WANTED })
    expect(await enter(gate, { email: 'ada@pots.example', password: 'celadon and ash' })).toMatchObject({ to: WANTED })
    const wrong = await pageOf(await enter(gate, { email: 'ada@pots.example', password: 'celadon and soot' }))
    expect(wrong).toContain('aria-invalid="true"')
    // Who is no guest is told the same.
    const fault = (page: string) => /role="alert">([^<]*)</.exec(page)?.[1]
    expect(fault(await pageOf(await enter(gate, { email: 'eve@pots.example', password: 'celadon and ash' })))).toBe(fault(wrong))
  })

  it('come too late after a quarter of an hour, and not at all once they are let through no more', async () => {
    const { entering, gates, database } = test.trough
    later(HOUR)
    await enter(gate, { email: 'ada@pots.example' })
    const first = await tokenOf('ada@pots.example')
    later(15 * MINUTE)
    await expect(entering.comeIn(first, new URLSearchParams(), comer())).rejects.toMatchObject({ status: 410 })
    later(1)
    await entering.tidy()
    expect(await database.$count(guestLinks)).toBe(0)
    await enter(gate, { email: 'ada@pots.example' })
    const second = await tokenOf('ada@pots.example')
    await gates.change(gate, { rule: { guests: [] } })
    await expect(entering.comeIn(second, new URLSearchParams(), comer())).rejects.toMatchObject({ status: 410 })
    await gates.change(gate, { rule: { guests: [ada] } })
  })

  it('are written to four times an hour at most, wherever it is asked from', async () => {
    await test.trough.guests.add({ guests: [{ email: 'bo@pots.example', name: 'Bo' }], groups: [] })
    for (let turn = 0; turn < 4; turn++) await enter(gate, { email: 'bo@pots.example' })
    await expect(enter(gate, { email: 'bo@pots.example' })).rejects.toMatchObject({ status: 429 })
  })
})

describe('who leaves an e-mail address', () => {
  let gate: string
  const fields = [{ id: 'fieldone', kind: 'text', label: 'Studio', required: true }]
  const filledIn = (email: string) => ({ email, 'consent': 'yes', 'field-fieldone': 'Kiln yard' })
  beforeAll(async () => {
    gate = (await makeGate('Recipes', { kind: 'email', confirm: true, consent: 'You may write to me.', fields })).id
  })

  it('is asked for what is missing, and nothing is kept', async () => {
    for (const given of [{ email: 'cy@pots.example' }, { ...filledIn('cy@pots.example'), consent: 'no' }, filledIn('no address')])
      expect(statusOf(await enter(gate, given))).toBe(403)
    expect(await sentTo('cy@pots.example')).toEqual([])
    expect(await contactsOf('cy@')).toEqual([])
  })

  it('gets through by a press that confirms it, once and within a day; what was agreed to is kept as it stood there', async () => {
    const { entering, gates, contacts } = test.trough
    expect(statusOf(await enter(gate, filledIn('di@pots.example')))).toBe(200)
    const token = linkIn((await sentTo('di@pots.example'))[0]!.text, '/pass/confirm/')
    expect(await pageOf(await entering.confirming(token))).toContain('di@pots.example')
    expect(await contactsOf('di@')).toEqual([])
    await gates.change(gate, { rule: { consent: 'You may send me everything.' } })
    later(24 * HOUR - 1)
    expect(await entering.confirm(token, comer())).toMatchObject({ to: WANTED, cookie: expect.stringContaining(`pass-${gate}=`) })
    await expect(entering.confirm(token, comer())).rejects.toMatchObject({ status: 410 })
    const [kept] = await contactsOf('di@')
    expect((await contacts.get(kept!.id)).admissions).toMatchObject([
      { gateName: 'Recipes', consent: 'You may write to me.', answers: [{ label: 'Studio', value: 'Kiln yard' }] },
    ])
    expect(kept!.confirmed).not.toBeNull()
  })

  it('is forgotten where it was not confirmed within a day', async () => {
    const { entering, database } = test.trough
    await enter(gate, filledIn('fy@pots.example'))
    const token = linkIn((await sentTo('fy@pots.example'))[0]!.text, '/pass/confirm/')
    later(24 * HOUR)
    await expect(entering.confirm(token, comer())).rejects.toMatchObject({ status: 410 })
    later(1)
    await entering.tidy()
    expect(await database.$count(unconfirmed)).toBe(0)
  })

  it('is none where the form was not seen, was filled in by a robot, too quickly, too late, or is of another gate', async () => {
    const { entering } = test.trough
    const other = (await makeGate('Other', { kind: 'email' })).id
    const good = await formOf(gate, filledIn('gus@pots.example'))
    const withField = (name: string, value: string) => {
      const form = new URLSearchParams(good)
      form.set(name, value)
      return form
    }
    const refused = async (form: URLSearchParams) => expect(statusOf(await entering.enter(gate, form, comer()))).toBe(403)
    await refused(withField('website', 'https://cheap.example'))
    await refused(withField('form', 'made up'))
    await refused(withField('form', (await formOf(other)).get('form')!))
    const hasty = await formOf(gate, filledIn('gus@pots.example'))
    later(-1500)
    await refused(hasty)
    later(4 * HOUR)
    await refused(good)
    expect(await sentTo('gus@pots.example')).toEqual([])
    later(-4 * HOUR + 1500)
    expect(statusOf(await entering.enter(gate, good, comer()))).toBe(200)
    expect(await sentTo('gus@pots.example')).toHaveLength(1)
  })

  it('may be any of forty from one network an hour', async () => {
    const office = comer()
    for (let turn = 0; turn < 40; turn++) await enter(gate, filledIn(`office${turn}@pots.example`), office)
    await expect(enter(gate, filledIn('office40@pots.example'), office)).rejects.toMatchObject({ status: 429 })
    expect(statusOf(await enter(gate, filledIn('office40@pots.example')))).toBe(200)
  })
})

describe('a gate', () => {
  it('that opens later lets nobody in before, whatever they send; one that closed, nobody after', async () => {
    const { entering } = test.trough
    const [from, until] = [now + HOUR, now + 3 * HOUR].map(moment => new Date(moment).toISOString())
    const { id } = await makeGate('Timed', { kind: 'email', from, until, words: { early: 'Not yet.', late: 'No more.' } })
    const form = await formOf(id, { email: 'hal@pots.example' })
    expect(await pageOf(await entering.enter(id, form, comer()))).toContain('Not yet.')
    later(HOUR)
    expect(await enter(id, { email: 'hal@pots.example' })).toMatchObject({ to: WANTED })
    later(2 * HOUR)
    expect(await pageOf(await entering.enter(id, form, comer()))).toContain('No more.')
    expect(await contactsOf('hal@')).toHaveLength(1)
  })

  it('that is none, or lets everybody or nobody through, has no door', async () => {
    for (const id of ['nowhere', 'open', 'closed']) await expect(test.trough.entering.show(id, '/')).rejects.toMatchObject({ status: 404 })
  })

  it('leads on to this site alone (WHATWG URL; CWE-601)', async () => {
    const { id } = await makeGate('Onward', { kind: 'email' })
    for (const to of ['//evil.example/a', '/\\evil.example', 'https://evil.example', '/desk/people', '/pass/x', '/\t/evil.example']) {
      const form = await formOf(id, { email: 'ivy@pots.example' })
      form.set('to', to)
      expect(await test.trough.entering.enter(id, form, comer()), to).toMatchObject({ to: '/' })
    }
  })
})

describe('a link for one person', () => {
  let file: string
  const make = (given: object = {}) =>
    test.trough.personalLinks.create(
      file,
      { note: '', email: '', until: null, most: null, send: false, ...given },
      'https://elsewhere.example',
    )
  const tokenOf = ({ path }: { path: string }) => path.replace('/for/', '')
  beforeAll(async () => {
    file = (await test.put('quote.pdf', '%PDF-1.7 quote')).id
  })

  it('gives its file until it ends or is taken back, and a pass that holds no longer than it', async () => {
    const { personalLinks } = test.trough
    const link = await make({ until: new Date(now + HOUR).toISOString() })
    expect(await pageOf(await personalLinks.show(tokenOf(link)))).toContain('Quote')
    expect(await personalLinks.take(tokenOf(link), { secure: true })).toMatchObject({
      to: '/files/quote.pdf',
      cookie: expect.stringContaining('; Max-Age=3600; HttpOnly'),
    })
    const other = await make()
    await personalLinks.revoke(other.id)
    await expect(personalLinks.take(tokenOf(other), { secure: true })).rejects.toMatchObject({ status: 410 })
    later(HOUR)
    await expect(personalLinks.show(tokenOf(link))).rejects.toMatchObject({ status: 410 })
    await expect(personalLinks.show('x'.repeat(22))).rejects.toMatchObject({ status: 410 })
    expect((await personalLinks.list(file)).map(({ id }) => id)).toEqual([other.id, link.id])
  })

  it('is sent with a way to have no more messages, which is kept to', async () => {
    const { entering } = test.trough
    await make({ email: 'jo@pots.example', send: true })
    const [message] = await sentTo('jo@pots.example')
    expect(message!.text).toContain('https://www.marlpit.example/for/')
    // RFC 8058, section 3.1.
    expect(message!.headers['List-Unsubscribe-Post']).toBe('List-Unsubscribe=One-Click')
    const sealed = decodeURIComponent(/\/pass\/no-more\/([^>]+)>/.exec(message!.headers['List-Unsubscribe']!)![1]!)
    expect(await pageOf(await entering.askingNoMore(sealed))).toContain('jo@pots.example')
    await make({ email: 'jo@pots.example', send: true })
    await entering.noMore(sealed)
    await expect(make({ email: 'jo@pots.example', send: true })).rejects.toMatchObject({ status: 409, extra: { field: 'email' } })
    await expect(entering.noMore(`${sealed}x`)).rejects.toMatchObject({ status: 410 })
  })
})
