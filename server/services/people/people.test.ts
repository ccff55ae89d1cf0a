import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { readyRights } from '../../../core/rights/ready'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createHasher, type Hasher } from '../account/hasher'
import { createPeople, type People } from './people'

const HOUR = 60 * 60 * 1000
const OWNER = 'owner@marlpit.example'
const PASSWORD = 'six wheels and a kiln'

let test: TestTrough
let hasher: Hasher
let people: People
let now = Date.parse('2026-11-29T10:00:00Z')
beforeAll(async () => {
  test = await openTestTrough()
  hasher = createHasher()
  const { dataFolder, site, outbox, account } = test.trough
  people = createPeople({ db: dataFolder.connection.db, hasher, site, outbox, now: () => now })
  await account.setUp({ code: account.code, email: OWNER, password: PASSWORD, siteName: 'Marlpit' })
  await site.set({ name: 'Marlpit', address: 'https://www.marlpit.example' })
})
afterAll(async () => {
  await hasher.close()
  await test.close()
})

async function newestTo(email: string) {
  const { outbox } = test.trough
  const { items } = await outbox.list({ from: 0, limit: 100 })
  const message = items.find(({ to }) => to === email)
  return message && (await outbox.get(message.id))
}
const tokenFor = async (email: string) => /#(\S+)/.exec((await newestTo(email))!.text)![1]!
const stateOf = async (email: string) => (await people.list()).find(person => person.email === email)?.state

describe('an invitation', () => {
  const yard = { email: 'yard@marlpit.example', name: 'Yard', rights: readyRights('puts', null) }

  it('goes to who is asked, by an address that the site has and no log gets to see', async () => {
    await people.invite(yard, OWNER, 'http://somewhere-else.example')
    const message = (await newestTo(yard.email))!
    expect(message.subject).toBe('Help with Marlpit')
    expect(message.text).toMatch(/https:\/\/www\.marlpit\.example\/desk\/join#[\w-]{32}(?!\S)/)
    expect(message.text).toContain(OWNER)
    expect(await stateOf(yard.email)).toBe('invited')
  })

  it('holds for a week, and no longer once another was sent', async () => {
    const first = await tokenFor(yard.email)
    expect(await people.look(first)).toEqual({ kind: 'invitation', email: yard.email, name: 'Yard', site: 'Marlpit' })
    await people.invite(yard, OWNER, '')
    await expect(people.look(first)).rejects.toMatchObject({ status: 410 })
    const second = await tokenFor(yard.email)
    now += 7 * 24 * HOUR - 1
    await people.look(second)
    now += 1
    await expect(people.enter({ token: second, password: PASSWORD })).rejects.toMatchObject({ status: 410 })
  })

  it('ends in an account of one’s own, with the rights that are said then', async () => {
    const [invited] = (await people.list()).filter(({ email }) => email === yard.email)
    await people.inviteAgain(invited!.id, '')
    await people.change(invited!.id, { rights: readyRights('library', null) })
    const token = await tokenFor(yard.email)
    await expect(people.enter({ token, password: 'password123' })).rejects.toMatchObject({ status: 422 })
    const { account, signsIn } = await people.enter({ token, password: PASSWORD, name: 'Yard team' })
    expect(account).toMatchObject({ email: yard.email, name: 'Yard team', rights: readyRights('library', null) })
    expect(signsIn).toBe(true)
    expect(await stateOf(yard.email)).toBe('helper')
    await expect(people.enter({ token, password: PASSWORD })).rejects.toMatchObject({ status: 410 })
    await expect(people.invite(yard, OWNER, '')).rejects.toMatchObject({ status: 409 })
  })

  it('that is made up leads nowhere', async () => {
    for (const token of ['', 'x'.repeat(32), '%00']) await expect(people.look(token)).rejects.toMatchObject({ status: 410 })
  })
})

describe('a lost password', () => {
  const email = 'yard@marlpit.example'
  const signIn = (password: string, code?: string) =>
    test.trough.account.signIn({ email, password, ...(code && { code }) }, { place: '127.0.0.1', device: 'known' })

  it('is had again by a link that holds for half an hour and once, and signs out whoever was in', async () => {
    const { sessions } = test.trough
    const { id } = await signIn(PASSWORD)
    const cookie = await sessions.begin(id, '', undefined)
    expect(await sessions.find(cookie, '')).toBeDefined()
    await people.lostPassword(email)
    const token = await tokenFor(email)
    now += HOUR / 2
    await expect(people.look(token)).rejects.toMatchObject({ status: 410 })
    await people.lostPassword(email)
    const next = await tokenFor(email)
    expect(await people.look(next)).toMatchObject({ kind: 'password', email })
    expect(await people.enter({ token: next, password: 'another wheel and kiln' })).toMatchObject({ kind: 'password', signsIn: true })
    await expect(people.enter({ token: next, password: 'a third one to try' })).rejects.toMatchObject({ status: 410 })
    expect(await sessions.find(cookie, '')).toBeUndefined()
    await expect(signIn(PASSWORD)).rejects.toMatchObject({ status: 401 })
    expect((await signIn('another wheel and kiln')).id).toBe(id)
  })

  it('tells nobody whether there is such an account, and fills nobody’s letter box', async () => {
    expect(await people.lostPassword('nobody@marlpit.example')).toBeUndefined()
    expect(await newestTo('nobody@marlpit.example')).toBeUndefined()
    const before = (await test.trough.outbox.list({ from: 0, limit: 100 })).total
    now += HOUR
    await people.tidy()
    for (let turn = 0; turn < 6; turn++) await people.lostPassword(email)
    expect((await test.trough.outbox.list({ from: 0, limit: 100 })).total - before).toBe(3)
  })

  // OWASP, Forgot Password Cheat Sheet: "Ensure that responses return in a consistent amount of time".
  it('is written behind the answer: how long that takes tells nobody either', async () => {
    now += HOUR
    await people.tidy()
    const { outbox } = test.trough
    const events: string[] = []
    const writes = vi.spyOn(outbox, 'add').mockImplementation(async () => `${events.push('written')}`)
    await people.lostPassword(email)
    events.push('answered')
    await outbox.settled()
    writes.mockRestore()
    expect(events).toEqual(['answered', 'written'])
  })

  it('is sent nowhere while the site has no address: what a request says of its host is anybody’s word', async () => {
    const { site } = test.trough
    await site.set({ address: '' })
    await expect(people.lostPassword(email)).rejects.toMatchObject({ status: 409 })
    await site.set({ address: 'https://www.marlpit.example' })
  })
})

describe('a change to an account', () => {
  it('is told to whom it is, with a way to take it back', async () => {
    const email = 'yard@marlpit.example'
    await people.tellOfChange(email, 'secondFactorEnded', { place: '192.0.2.7', origin: 'http://somewhere-else.example' })
    const { subject, text } = (await newestTo(email))!
    expect(subject).toBe('Your account at Marlpit')
    expect(text).toContain('No one-time codes are asked for any more when you sign in. That was done from 192.0.2.7.')
    expect(text).toContain('https://www.marlpit.example/desk/lost')
  })
})

describe('the only owner', () => {
  it('neither leaves nor gives that up, until there is another', async () => {
    const own = (await people.list()).find(({ state }) => state === 'owner')!
    await expect(people.letGo(own.id)).rejects.toMatchObject({ status: 409 })
    await expect(people.change(own.id, { rights: readyRights('puts', null) })).rejects.toMatchObject({ status: 409 })
    await expect(people.leave(own.id, 'not that one')).rejects.toMatchObject({ status: 403 })
    await expect(people.leave(own.id, PASSWORD)).rejects.toMatchObject({ status: 409 })
    const yard = (await people.list()).find(({ state }) => state === 'helper')!
    await people.change(yard.id, { rights: null })
    // Both at once: one of them stays.
    const gone = await Promise.allSettled([people.letGo(own.id), people.letGo(yard.id)])
    expect(gone.map(({ status }) => status).sort()).toEqual(['fulfilled', 'rejected'])
    expect((await people.list()).map(({ state }) => state)).toEqual(['owner'])
  })
})
