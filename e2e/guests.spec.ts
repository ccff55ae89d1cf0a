import { expect, test } from '@playwright/test'
import { visitor, makeGate } from './support/gates'
import { ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { upload } from './support/upload'

/* People who get through a gate by name, from outside: as they come, and as somebody would who is not among them. */

const BODY = 'What one client and the shop agreed on, word for word.'
const TEACHER = 'teacher@hollow-lane-school.example'
/** Forms that come sooner are taken for a robot's. */
const unhurried = () => new Promise(resolve => setTimeout(resolve, 900))

let server: RunningServer
let group: string
let file: string
let path: string
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  const api = await ownerApi(server.url)
  group = (await api<{ id: string }>('/groups', { method: 'POST', json: { name: 'Teachers' } })).id
  await api('/guests', { method: 'POST', json: { guests: [{ email: TEACHER, name: 'Teacher' }], groups: [group] } })
  file = await upload(server.url, 'agreement.txt', Buffer.from(BODY))
  path = `/files/${(await api<{ handle: string }>(`/files/${file}`)).handle}`
  await makeGate(server.url, { kind: 'people', groups: [group] }, { name: 'Teachers alone', files: [file] })
})
test.afterAll(() => server.remove())

const messagesTo = async (email: string) => {
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string; to: string }[] }>('/outbox?limit=200')
  return Promise.all(items.filter(({ to }) => to === email).map(({ id }) => api<{ text: string; html: string }>(`/outbox/${id}`)))
}
const linkIn = async (email: string) => /(\/pass\/come-in\/\S+)/.exec((await messagesTo(email))[0]!.text)![1]!

async function askFor(email: string, password = '') {
  const someone = visitor(server.url)
  const form = await (await someone.ask(path)).text()
  await unhurried()
  const fields = new URLSearchParams({ email, password })
  for (const [, name, value] of form.matchAll(/<input type="hidden" name="([^"]+)" value="([^"]*)"/g))
    fields.set(name!, value!.replaceAll('&amp;', '&'))
  const answer = await someone.ask(/action="([^"]+)"/.exec(form)![1]!, { method: 'POST', body: fields })
  return { someone, answer, words: await answer.text() }
}

test('whoever is named gets a link that lets them in once, and goes on to the very download', async () => {
  const { someone, answer } = await askFor(TEACHER.toUpperCase())
  expect(answer.status).toBe(200)
  const link = await linkIn(TEACHER)
  // Programs of mail services open links before anybody does.
  for (let opened = 0; opened < 3; opened++) expect((await visitor(server.url).ask(link)).status).toBe(200)
  const page = await (await someone.ask(link)).text()
  expect(page).toContain(TEACHER)
  const came = await someone.ask(link, { method: 'POST', body: new URLSearchParams() })
  expect(came.status).toBe(303)
  expect(came.headers.get('location')).toBe(path)
  const got = await someone.ask(path)
  expect([got.status, await got.text()]).toEqual([200, BODY])
  expect(got.headers.get('cache-control')).toContain('private')
  expect((await someone.ask(path, { headers: { range: 'bytes=5-7' } })).status).toBe(206)
  expect((await visitor(server.url).ask(link, { method: 'POST', body: new URLSearchParams() })).status).toBe(410)
  expect((await visitor(server.url).ask(path)).status).toBe(403)
})

test('of many who use one link at once, one comes in', async () => {
  await askFor(TEACHER)
  const link = await linkIn(TEACHER)
  const tried = await Promise.all(
    Array.from({ length: 12 }, () => visitor(server.url).ask(link, { method: 'POST', body: new URLSearchParams() })),
  )
  expect(tried.map(({ status }) => status).sort()).toEqual([303, ...Array.from({ length: 11 }, () => 410)])
})

test('nobody learns whether an address was invited, and nobody else is written to', async () => {
  const [invited, other] = [await askFor(TEACHER), await askFor('somebody@else.example')]
  expect(other.words).toBe(invited.words)
  expect(other.answer.status).toBe(invited.answer.status)
  expect(await messagesTo('somebody@else.example')).toEqual([])
  const named = [...invited.answer.headers.keys()]
  expect([...other.answer.headers.keys()]).toEqual(named)
})

test('an address with more in it than one is none', async () => {
  for (const email of [`${TEACHER}\r\nBcc: x@y.example`, `${TEACHER},x@y.example`, `<${TEACHER}>`, '']) {
    const { answer } = await askFor(email)
    expect(answer.status, email).toBe(403)
  }
  expect((await messagesTo('x@y.example')).length).toBe(0)
})

test('a password of one’s own is chosen on the way in, and does from then on; guesses are slowed down', async () => {
  const own = 'a wheel of my own'
  const api = await ownerApi(server.url)
  const email = 'office@hollow-lane-school.example'
  await api('/guests', { method: 'POST', json: { guests: [{ email }], groups: [group] } })
  await askFor(email)
  const link = await linkIn(email)
  const someone = visitor(server.url)
  const short = await someone.ask(link, { method: 'POST', body: new URLSearchParams({ password: 'short' }) })
  expect(short.status).toBe(422)
  expect(await short.text()).toContain('Use at least 10 characters')
  expect((await someone.ask(link, { method: 'POST', body: new URLSearchParams({ password: own }) })).status).toBe(303)

  const later = await askFor(email, own)
  expect(later.answer.status).toBe(303)
  expect((await later.someone.ask(path)).status).toBe(200)
  const began = Date.now()
  // All at once: on a machine with other work five of them, one after another, take longer than they are remembered.
  const wrong = await Promise.all(
    (
      [
        [email, 'not that one'],
        ['somebody@else.example', own],
        [TEACHER, own],
        [email, 'nor that one'],
        [email, 'nor this'],
      ] as const
    ).map(([who, password]) => askFor(who, password)),
  )
  expect(wrong.map(({ answer }) => answer.status)).toEqual([403, 403, 403, 403, 403])
  const { status } = (await askFor(email, own)).answer
  // After a minute they are forgotten.
  expect([429, ...(Date.now() - began < 60_000 ? [] : [303])]).toContain(status)
})

test('whoever is taken out of the group, or erased, is out with the next request', async () => {
  const api = await ownerApi(server.url)
  const come = async (email: string) => {
    await api('/guests', { method: 'POST', json: { guests: [{ email }], groups: [group] } })
    const { someone } = await askFor(email)
    await someone.ask(await linkIn(email), { method: 'POST', body: new URLSearchParams() })
    expect((await someone.ask(path)).status).toBe(200)
    const { items } = await api<{ items: { id: string }[] }>(`/guests?q=${email}`)
    return { someone, id: items[0]!.id }
  }
  const [first, second] = [await come('first@three-bridges.example'), await come('second@three-bridges.example')]
  await api(`/guests/${first.id}`, { method: 'PATCH', json: { groups: [] } })
  expect((await first.someone.ask(path)).status).toBe(403)
  await api(`/guests/${second.id}`, { method: 'DELETE' })
  expect((await second.someone.ask(path)).status).toBe(403)
  expect(await messagesTo('second@three-bridges.example')).toEqual([])
  // A link that was sent before is none any more, either.
  await api(`/guests/${first.id}`, { method: 'PATCH', json: { groups: [group] } })
  await askFor('first@three-bridges.example')
  const link = await linkIn('first@three-bridges.example')
  await api(`/guests/${first.id}`, { method: 'PATCH', json: { groups: [] } })
  expect((await visitor(server.url).ask(link, { method: 'POST', body: new URLSearchParams() })).status).toBe(410)
})

test('what a hidden gate keeps for named people is nothing for others, and its door is open to who knows it', async () => {
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string; name: string }[] }>('/gates')
  const gate = items.find(({ name }) => name === 'Hollow Lane School')!.id
  const secret = '/files/supply-agreement-hollow-lane-2026-09.pdf'
  const stranger = visitor(server.url)
  expect((await stranger.ask(secret)).status).toBe(404)
  const door = await (await stranger.ask(`/pass/${gate}?to=${encodeURIComponent(secret)}`)).text()
  expect(door).not.toContain('Supply agreement')
})

test('terms are accepted before the link is sent, and the file behind them is had after it', async () => {
  const signed = await upload(server.url, 'signed-terms.txt', Buffer.from('Only for who accepted'))
  const api = await ownerApi(server.url)
  const own = `/files/${(await api<{ handle: string }>(`/files/${signed}`)).handle}`
  const email = 'accepting@hollow-lane-school.example'
  await api('/guests', { method: 'POST', json: { guests: [{ email, name: '' }], groups: [group] } })
  const rule = { kind: 'people', groups: [group], terms: { text: 'I keep it to myself.', file: null } }
  await makeGate(server.url, rule, { name: 'With terms', files: [signed] })
  const someone = visitor(server.url)
  const send = async (more: Record<string, string>) => {
    const html = await (await someone.ask(own)).text()
    expect(html).toContain('I keep it to myself.')
    await unhurried()
    const fields = new URLSearchParams({ email, ...more })
    for (const [, name, value] of html.matchAll(/<input type="hidden" name="([^"]+)" value="([^"]*)"/g)) fields.set(name!, value!)
    return someone.ask(/action="(\/pass\/[^"]+)"/.exec(html)![1]!, { method: 'POST', body: fields })
  }
  const without = await send({})
  expect([without.status, (await without.text()).includes('name="terms" value="yes" required aria-invalid="true"')]).toEqual([403, true])
  expect(await messagesTo(email)).toEqual([])
  expect((await send({ terms: 'yes' })).status).toBe(200)
  const came = await someone.ask(await linkIn(email), { method: 'POST', body: new URLSearchParams() })
  expect([came.status, came.headers.get('location')]).toEqual([303, own])
  expect(await (await someone.ask(own)).text()).toBe('Only for who accepted')
})
