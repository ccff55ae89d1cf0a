import { execFile } from 'node:child_process'
import { createHash } from 'node:crypto'
import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { promisify } from 'node:util'
import { expect, test } from '@playwright/test'
import { unzipSync } from 'fflate'
import type { Target } from '../core/page/schema'
import { button, shelf, words } from '../core/testing/pages'
import { TRADE_PASSWORD } from '../demo/gates'
import { startNginx } from '../server/testing/nginx'
import { freePort } from '../server/testing/ports'
import { makeGate, visitor } from './support/gates'
import { ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { upload } from './support/upload'

// Strangers, and those who have passed, from outside over real connections.

const run = promisify(execFile)
let server: RunningServer
let api: Awaited<ReturnType<typeof ownerApi>>
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  api = await ownerApi(server.url)
})
test.afterAll(() => server.remove())

interface Made {
  id: string
  handle: string
  size: number
}
const SECRET = 'zirconium at four in the morning'
let count = 0
const stored = async (name: string, bytes: Buffer) => api<Made>(`/files/${await upload(server.url, name, bytes)}`)
/** A file with words in it that nobody else has. */
async function secretFile(name = `secret-${++count}`, inside = SECRET): Promise<Made> {
  return stored(`${name}.txt`, Buffer.from(`${inside} ${name}\n`.repeat(40)))
}
const pageWith = async (title: string, ...content: object[]) => {
  const page = await api<{ id: string; slug: string; revision: number }>('/pages', { method: 'POST', json: { title } })
  await api(`/pages/${page.id}/draft`, { method: 'PUT', json: { title, draft: { type: 'doc', content }, revision: page.revision } })
  await api(`/pages/${page.id}/publish`, { method: 'POST', json: {} })
  return page
}
const shelfOf = (placement: string, ids: string[]) => shelf({ placement, source: { kind: 'files', ids } })
const buttonTo = (placement: string, target: Target) => button({ placement, target, label: '' })

/** What a stranger is told at an address, without what is another one each time. */
async function told(path: string, init?: RequestInit) {
  const response = await fetch(server.url + path, { redirect: 'manual', ...init })
  const body = await response.text()
  return { status: response.status, body, length: body.length, headers: response.headers }
}

test('whoever has not passed a gate gets nothing of what is behind it by any address', async () => {
  const file = await secretFile()
  await api(`/files/${file.id}`, { method: 'PATCH', json: { handle: `moved-${file.handle}` } })
  const second = await secretFile('secret-second', 'feldspar')
  const signpost = await api<{ id: string; name: string }>('/signposts', { method: 'POST', json: { title: 'Secret post', file: file.id } })
  const bundle = await api<Made>('/bundles', { method: 'POST', json: { title: 'Secret bundle', files: [file.id, second.id] } })
  const page = await pageWith('Secret shelf', shelfOf('secshelf1', [file.id]), buttonTo('secbutton1', { kind: 'file', id: file.id }))
  const gate = await makeGate(server.url, { kind: 'password' }, { name: 'Nobody', password: 'open-sesame-77', files: [file.id] })
  const handle = `moved-${file.handle}`
  const addresses: [string, RequestInit?][] = [
    [`/files/${handle}`],
    [`/files/${handle}?save`],
    [`/files/${handle}?open`],
    [`/files/${handle}?edition=1`],
    [`/files/${handle}?edition=99`],
    [`/files/${handle}`, { headers: { range: 'bytes=0-9' } }],
    [`/files/${handle}`, { headers: { 'if-none-match': '*' } }],
    [`/files/${handle}`, { method: 'HEAD' }],
    [`/to/${signpost.name}`],
    [`/see/${handle}`],
    [`/files/${bundle.handle}`],
    [`/see/${bundle.handle}`],
    ['/shelves/secshelf1?all='],
    ['/shelves/secshelf1', { method: 'POST', body: new URLSearchParams({ pick: file.id }) }],
  ]
  for (const [path, init] of addresses) {
    const { status, body, headers } = await told(path, init)
    expect(status, path).toBe(403)
    expect(body, path).not.toContain(SECRET)
    expect(headers.get('cache-control'), path).toBe('private, no-store')
    expect(headers.get('etag') ?? headers.get('repr-digest') ?? headers.get('content-range'), path).toBeNull()
  }
  for (const path of [`/pictures/${handle}?width=320`, `/pictures/${handle}?width=640&page=1`])
    expect((await told(path)).status, path).toBe(404)
  // An old address leads on to the same gate.
  const old = await told(`/files/${file.handle}`)
  expect([old.status, old.headers.get('location')]).toEqual([308, `/files/${handle}`])

  // What pages, feeds and results say of it is what was put there, and nothing of what is in it.
  for (const path of [
    `/${page.slug}`,
    `/shelves/find?q=${encodeURIComponent('zirconium')}`,
    '/shelves/find?in=secshelf1',
    '/sitemap.xml',
  ]) {
    const { status, body } = await told(path)
    expect(status, path).toBe(200)
    expect(body, path).not.toContain(SECRET)
    expect(body, path).not.toMatch(/application\/ld\+json[^<]*moved-secret/)
    expect(body, path).not.toContain(`${(file.size / 1000).toFixed(1)} kB`)
  }
  expect((await told(`/${page.slug}`)).body).toContain('TXT, password needed')
  expect((await told(`/shelves/find?q=zirconium`)).body).not.toContain(handle)
  expect((await told(`/shelves/find?q=secret-1`)).body).toContain('password needed')

  // Whoever has passed it gets all of it, in pieces too, and nobody in between keeps it.
  const buyer = visitor(server.url)
  const way = await buyer.enter(`/files/${handle}?save&at=secbutton1`, { password: 'open-sesame-77' })
  expect([way.status, way.headers.get('location')]).toEqual([303, `/files/${handle}?save&at=secbutton1`])
  const plain = { 'accept-encoding': 'identity' }
  const whole = await buyer.ask(`/files/${handle}?save`, { headers: plain })
  expect([whole.status, whole.headers.get('cache-control')]).toEqual([200, 'private, no-cache'])
  expect(await whole.text()).toContain(SECRET)
  const piece = await buyer.ask(`/files/${handle}`, { headers: { range: 'bytes=0-8' } })
  expect([piece.status, await piece.text()]).toEqual([206, SECRET.slice(0, 9)])
  expect((await buyer.ask(`/files/${handle}`, { headers: { ...plain, 'if-none-match': whole.headers.get('etag')! } })).status).toBe(304)
  expect((await buyer.ask(`/to/${signpost.name}`)).status).toBe(200)
  expect(await (await buyer.ask(`/see/${handle}`)).text()).toContain(SECRET)
  expect(await (await buyer.ask('/shelves/find?q=zirconium')).text()).toContain(handle)
  expect((await buyer.ask(`/files/${bundle.handle}`)).status).toBe(200)

  // The bundle may as well be without it: then it is open, and what is left is in it.
  const details = await api<{ revision: number; entries: object[]; behind: number }>(`/bundles/${bundle.id}`)
  expect(details.behind).toBe(1)
  await api(`/bundles/${bundle.id}`, { method: 'PUT', json: { entries: details.entries, revision: details.revision, gated: 'without' } })
  const open = await fetch(`${server.url}/files/${bundle.handle}`)
  expect(Object.keys(unzipSync(new Uint8Array(await open.arrayBuffer())))).toEqual(['secret-second.txt'])
  await api(`/gates/${gate}?open=yes`, { method: 'DELETE' })
  expect((await told(`/files/${handle}`)).status).toBe(200)
})

test('what is hidden is told from what is not there by nothing', async () => {
  const file = await secretFile('hidden-one')
  const former = file.handle
  await api(`/files/${file.id}`, { method: 'PATCH', json: { handle: 'hidden-now.txt' } })
  const page = await pageWith('Hidden page', words('Only for members.'))
  const shelf = await pageWith('With hidden', shelfOf('hidshelf1', [file.id]), buttonTo('hidbutton1', { kind: 'page', id: page.id }))
  const gate = await makeGate(
    server.url,
    { kind: 'password', hidden: true },
    { name: 'Hidden', password: 'open-sesame-78', files: [file.id] },
  )
  await api(`/pages/${page.id}/settings`, { method: 'PATCH', json: { gate, inMenu: true } })
  const never = await told('/files/never-was.txt')
  const nowhere = await told('/never-was')
  for (const path of [
    '/files/hidden-now.txt',
    `/files/${former}`,
    '/files/HIDDEN-NOW.txt',
    '/files/hidden-now.txt?edition=1',
    '/see/hidden-now.txt',
  ]) {
    const { status, body } = await told(path)
    expect([status, body], path).toEqual([never.status, never.body])
  }
  for (const path of [`/${page.slug}`, `/${page.slug.toUpperCase()}`, `/${page.slug}/`])
    expect([(await told(path)).status, (await told(path)).body], path).toEqual([404, nowhere.body])
  for (const path of ['/', `/${shelf.slug}`, '/sitemap.xml', '/shelves/find?q=hidden-now', '/shelves/find?in=hidshelf1']) {
    const { body } = await told(path)
    expect(body, path).not.toContain('hidden-now.txt')
    expect(body, path).not.toContain('Hidden page')
  }
  // By the address of the gate one gets in all the same.
  const member = visitor(server.url)
  expect((await member.enter(`/pass/${gate}?to=/files/hidden-now.txt`, { password: 'open-sesame-78' })).headers.get('location')).toBe(
    '/files/hidden-now.txt',
  )
  expect((await member.ask('/files/hidden-now.txt')).status).toBe(200)
  expect((await member.ask(`/files/${former}`)).headers.get('location')).toBe('/files/hidden-now.txt')
  expect(await (await member.ask(`/${page.slug}`)).text()).toContain('Hidden page')
})

test('a pass is good for its own gate, its own times and this site alone', async () => {
  const [one, other] = [await secretFile(), await secretFile()]
  const gate = await makeGate(server.url, { kind: 'password' }, { name: 'One', password: 'first-word-1', files: [one.id] })
  const second = await makeGate(server.url, { kind: 'password' }, { name: 'Other', password: 'second-word-2', files: [other.id] })
  const guest = visitor(server.url)
  await guest.enter(`/files/${one.handle}`, { password: 'first-word-1' })
  const pass = guest.jar.get(`pass-${gate}`)!
  const statusWith = async (cookie: string, file = one) =>
    (await fetch(`${server.url}/files/${file.handle}`, { headers: { cookie } })).status
  expect(await statusWith(`pass-${gate}=${pass}`)).toBe(200)
  const [text, seal] = pass.split('~') as [string, string]
  const later = text.replace(/\d+$/, until => String(Number(until) + 1e9))
  for (const forged of [
    `${later}~${seal}`,
    `${text}~`,
    `${text}~${'A'.repeat(43)}`,
    text,
    `${text.replace(gate, second)}~${seal}`,
    '~'.repeat(5000),
    '',
  ])
    expect(await statusWith(`pass-${gate}=${forged}`), forged.slice(0, 80)).toBe(403)
  // The pass of one gate under the name of another.
  expect(await statusWith(`pass-${second}=${pass}`, other)).toBe(403)
  // Of another Trough, whose gate is called the same.
  const data = await makeData('demo')
  const secrets = JSON.parse(await readFile(join(data, 'secrets.json'), 'utf8')) as Record<string, string>
  await writeFile(join(data, 'secrets.json'), JSON.stringify({ ...secrets, session: 'f'.repeat(64) }))
  const elsewhere = await startServer(data)
  try {
    const stranger = visitor(elsewhere.url)
    await stranger.enter('/files/trade-price-list-2026-11.pdf', { password: TRADE_PASSWORD })
    expect((await stranger.ask('/files/trade-price-list-2026-11.pdf')).status).toBe(200)
    const trade = `${server.url}/files/trade-price-list-2026-11.pdf`
    expect((await fetch(trade, { headers: { cookie: stranger.cookie() } })).status).toBe(403)
  } finally {
    await elsewhere.remove()
  }
  // A password that is taken back ends its passes; changed without that, they go on.
  await api(`/gates/${gate}/passwords`, { method: 'PUT', json: { label: '', password: 'newer-word-3' } })
  expect(await statusWith(`pass-${gate}=${pass}`)).toBe(200)
  expect((await visitor(server.url).enter(`/files/${one.handle}`, { password: 'first-word-1' })).status).toBe(403)
  await api(`/gates/${gate}/end-passes`, { method: 'POST', json: {} })
  expect(await statusWith(`pass-${gate}=${pass}`)).toBe(403)
})

test('programs show the password of a gate (RFC 7617), by curl', async () => {
  const file = await secretFile()
  await makeGate(server.url, { kind: 'password' }, { name: 'Programs', password: 'größe:mit-punkt', files: [file.id] })
  const curl = async (user: string) =>
    (await run('curl', ['-s', '-o', '/dev/null', '-w', '%{http_code}', '-u', user, `${server.url}/files/${file.handle}`])).stdout
  expect(await curl('anybody:größe:mit-punkt')).toBe('200')
  expect(await curl(':größe:mit-punkt')).toBe('200')
  expect(await curl('anybody:grosse')).toBe('403')
  for (const field of ['Basic', 'Basic !!!', 'Basic YQ==', `Bearer ${'x'.repeat(2000)}`])
    expect((await fetch(`${server.url}/files/${file.handle}`, { headers: { authorization: field } })).status, field).toBe(403)
})

test('nobody is led off the site by a gate', async () => {
  const file = await secretFile()
  const gate = await makeGate(server.url, { kind: 'terms', terms: { text: 'Be kind.', file: null } }, { name: 'Kind', files: [file.id] })
  for (const to of [
    '//elsewhere.example',
    'https://elsewhere.example',
    '/\\elsewhere.example',
    '/\t/elsewhere.example',
    'javascript:alert(1)',
    '/desk',
    '/pass/x',
    '\\\\x',
    '/ok\r\nX: y',
    '',
  ]) {
    const way = await visitor(server.url).enter(`/files/${file.handle}`, { terms: 'yes' }, form => form.set('to', to))
    expect([way.status, way.headers.get('location')], to).toEqual([303, '/'])
  }
  expect((await visitor(server.url).ask(`/pass/${gate}?to=//elsewhere.example`)).status).toBe(200)
})

test('a thousand wrong passwords wait longer and longer, and the owner is told', async () => {
  // A thousand answers take their time where the machine has other work.
  test.slow()
  const file = await secretFile()
  const gate = await makeGate(server.url, { kind: 'password' }, { name: 'Guessed', password: 'never-guessed-9', files: [file.id] })
  const guesser = visitor(server.url)
  const html = await (await guesser.ask(`/files/${file.handle}`)).text()
  const seal = /name="form" value="([^"]+)"/.exec(html)![1]!
  const answers: number[] = []
  const began = Date.now()
  const guess = async (password: string) => {
    const answer = await guesser.ask(`/pass/${gate}`, { method: 'POST', body: new URLSearchParams({ password, form: seal, to: '/' }) })
    answers.push(answer.status)
    return answer
  }
  for (let tried = 0; tried < 1000; tried += 50)
    await Promise.all(Array.from({ length: 50 }, (_, index) => guess(`wrong-${tried + index}`)))
  // Whoever has to wait for a while yet is refused the right one, too.
  // Of six at once one is more than a minute takes, however long the others are looked at.
  const six: Promise<unknown>[] = []
  await expect(() => {
    const guesses = Array.from({ length: 6 }, () => guess('wrong once more'))
    six.push(...guesses)
    return Promise.any(guesses.map(async each => expect(Number((await each).headers.get('retry-after'))).toBeGreaterThan(20)))
  }).toPass({ intervals: [5_000] })
  const refused = await guess('never-guessed-9')
  expect(refused.status).toBe(429)
  expect(Number(refused.headers.get('retry-after'))).toBeGreaterThan(0)
  await Promise.all(six)
  const wrong = answers.filter(status => status === 403).length
  expect(answers.every(status => status === 403 || status === 429)).toBe(true)
  // Five in each minute that it took.
  const minutes = Math.floor((Date.now() - began) / 60_000) + 1
  expect(wrong).toBeGreaterThanOrEqual(5)
  expect(wrong).toBeLessThanOrEqual(5 * minutes)
  const { items } = await api<{ items: { id: string; wrong: number }[] }>('/gates')
  expect(items.find(({ id }) => id === gate)!.wrong).toBe(wrong)
})

test('limits let through as many as they say, however many ask at once', async () => {
  const file = await secretFile()
  await makeGate(server.url, { kind: 'terms', terms: { text: 'Ten only.', file: null }, most: 10 }, { name: 'Ten', files: [file.id] })
  const comers = await Promise.all(
    Array.from({ length: 25 }, async () => {
      const comer = visitor(server.url)
      await comer.enter(`/files/${file.handle}`, { terms: 'yes' })
      return comer
    }),
  )
  // Each asks twice at once, in pieces: that is one download.
  const answers = await Promise.all(
    comers.flatMap(comer => [
      comer.ask(`/files/${file.handle}`, { headers: { range: 'bytes=0-9' } }),
      comer.ask(`/files/${file.handle}`, { headers: { range: 'bytes=10-19' } }),
    ]),
  )
  const through = answers.filter(({ status }) => status === 206).length
  expect([through, answers.length - through]).toEqual([20, 30])
  const late = answers.find(({ status }) => status === 403)!
  expect(await late.text()).toContain('As many have been taken as were planned.')
})

test('a gate that is taken away during a download lets it end; one that is put there stops what comes after', async () => {
  const big = await stored('big-secret.bin', Buffer.alloc(12_000_000, 7))
  const gate = await makeGate(server.url, { kind: 'terms', terms: { text: 'Yes?', file: null } }, { name: 'For a while', files: [big.id] })
  const comer = visitor(server.url)
  await comer.enter(`/files/${big.handle}`, { terms: 'yes' })
  const response = await comer.ask(`/files/${big.handle}`)
  const reader = response.body!.getReader()
  let size = (await reader.read()).value!.length
  await api(`/gates/${gate}?open=yes`, { method: 'DELETE' })
  for (let next = await reader.read(); !next.done; next = await reader.read()) size += next.value.length
  expect(size).toBe(12_000_000)
  const again = await makeGate(server.url, { kind: 'password' }, { name: 'Shut', files: [big.id] })
  expect((await comer.ask(`/files/${big.handle}`)).status).toBe(403)
  await api(`/gates/${again}?open=yes`, { method: 'DELETE' })
})

test('the nearest gate counts: a folder with all below it, and what is open again in it', async () => {
  const folder = await api<{ id: string }>('/folders', { method: 'POST', json: { name: 'Behind', parent: null } })
  const inner = await api<{ id: string }>('/folders', { method: 'POST', json: { name: 'Inner', parent: folder.id } })
  const [one, other] = [await secretFile(), await secretFile()]
  await api('/selection/move', { method: 'POST', json: { files: [one.id, other.id], folders: [], to: inner.id } })
  const gate = await makeGate(server.url, { kind: 'password' }, { name: 'All below', password: 'some-word-5' })
  await api(`/folders/${folder.id}`, { method: 'PATCH', json: { gate } })
  const statuses = async () => [(await told(`/files/${one.handle}`)).status, (await told(`/files/${other.handle}`)).status]
  await expect.poll(statuses).toEqual([403, 403])
  await api(`/files/${one.id}`, { method: 'PATCH', json: { gate: 'open' } })
  await expect.poll(statuses).toEqual([200, 403])
  await api(`/folders/${inner.id}`, { method: 'PATCH', json: { gate: 'open' } })
  await expect.poll(statuses).toEqual([200, 200])
  await api('/selection/move', { method: 'POST', json: { files: [other.id], folders: [], to: folder.id } })
  await expect.poll(statuses).toEqual([200, 403])
})

test('too early and too late nobody gets through, with a pass or without', async () => {
  const file = await secretFile()
  const gate = await makeGate(server.url, { kind: 'terms', terms: { text: 'Yes?', file: null } }, { name: 'Times', files: [file.id] })
  const comer = visitor(server.url)
  await comer.enter(`/files/${file.handle}`, { terms: 'yes' })
  expect((await comer.ask(`/files/${file.handle}`)).status).toBe(200)
  const rule = { kind: 'terms', terms: { text: 'Yes?', file: null } }
  await api(`/gates/${gate}`, { method: 'PATCH', json: { rule: { ...rule, from: '2099-01-01T00:00:00Z' } } })
  expect(await (await comer.ask(`/files/${file.handle}`)).text()).toContain('It opens on 1 Jan 2099.')
  await api(`/gates/${gate}`, {
    method: 'PATCH',
    json: { rule: { ...rule, from: null, until: '2020-03-02T00:00:00Z', words: { late: 'Gone to the next fair.' } } },
  })
  const late = await comer.ask(`/files/${file.handle}`)
  expect([late.status, (await late.text()).includes('Gone to the next fair.')]).toEqual([403, true])
  expect((await comer.ask(`/pass/${gate}`, { method: 'POST', body: new URLSearchParams({ terms: 'yes', to: '/' }) })).status).toBe(403)
})

test('a personal link gives its file to whoever presses its button, as often as it says, until it is taken back', async () => {
  const [file, other] = [await secretFile(), await secretFile()]
  await makeGate(server.url, { kind: 'password', hidden: true }, { name: 'Members', password: 'some-word-6', files: [file.id, other.id] })
  const link = await api<{ id: string; path: string }>(`/files/${file.id}/links`, { method: 'POST', json: { note: 'For one', most: 2 } })
  // A program that looks at links uses nothing up.
  for (let looked = 0; looked < 5; looked++) expect((await visitor(server.url).ask(link.path)).status).toBe(200)
  const takes = []
  for (let comers = 0; comers < 3; comers++) {
    const comer = visitor(server.url)
    expect((await comer.enter(link.path, {})).headers.get('location')).toBe(`/files/${file.handle}`)
    takes.push((await comer.ask(`/files/${file.handle}`)).status)
    // It leads to this file and no other.
    expect((await comer.ask(`/files/${other.handle}`)).status).toBe(404)
  }
  expect(takes).toEqual([200, 200, 410])
  const guest = visitor(server.url)
  await guest.enter(link.path, {})
  await api(`/links/${link.id}`, { method: 'DELETE' })
  expect((await guest.ask(`/files/${file.handle}`)).status).toBe(404)
  expect((await guest.ask(link.path)).status).toBe(410)
  expect((await visitor(server.url).ask(`/for/${'x'.repeat(3000)}`)).status).toBe(410)
})

test('a page behind a gate is read by those who pass it', async () => {
  const page = await pageWith('Members only', words('What the members know.'))
  const gate = await makeGate(server.url, { kind: 'password' }, { name: 'Readers', password: 'some-word-7' })
  await api(`/pages/${page.id}/settings`, { method: 'PATCH', json: { gate } })
  await expect.poll(async () => (await told(`/${page.slug}`)).status).toBe(403)
  expect((await told(`/${page.slug}`)).body).not.toContain('What the members know')
  expect((await told('/sitemap.xml')).body).not.toContain(page.slug)
  expect((await told(`/shared.png?page=${page.slug}`)).status).toBe(404)
  const reader = visitor(server.url)
  expect((await reader.enter(`/${page.slug}`, { password: 'some-word-7' })).headers.get('location')).toBe(`/${page.slug}`)
  const read = await reader.ask(`/${page.slug}`)
  expect([read.status, read.headers.get('cache-control')]).toEqual([200, 'private, no-store'])
  expect(await read.text()).toContain('What the members know.')
})

test('behind a front server that sends the bytes itself, a gate lets through what it lets through, and nothing else', async () => {
  const report = await freePort()
  Object.assign(process.env, { TROUGH_PROXIES: '127.0.0.1', TROUGH_FRONT_PREFIX: '/_trough-store/', TROUGH_FRONT_LOG_PORT: report })
  const own = await startServer(await makeData('demo')).finally(() => {
    for (const name of ['TROUGH_PROXIES', 'TROUGH_FRONT_PREFIX', 'TROUGH_FRONT_LOG_PORT']) delete process.env[name]
  })
  const nginx = await startNginx({ trough: Number(new URL(own.url).port), report, store: join(own.data, 'store') })
  try {
    const ownApi = await ownerApi(own.url)
    const [list] = (await ownApi<{ items: (Made & { sha256: string })[] }>('/files?q=Trade price list')).items
    const path = `/files/${list!.handle}?save`
    const stranger = await fetch(nginx.url + path)
    expect([stranger.status, stranger.headers.get('cache-control')]).toEqual([403, 'private, no-store'])
    // Nobody comes to the bytes past Trough.
    const stored = `/_trough-store/sha256/${list!.sha256.slice(0, 2)}/${list!.sha256.slice(2, 4)}/${list!.sha256}`
    expect((await fetch(nginx.url + stored)).status).toBe(404)

    const buyer = visitor(nginx.url)
    expect((await buyer.enter(path, { password: TRADE_PASSWORD })).status).toBe(303)
    const whole = await buyer.ask(path)
    expect([whole.status, whole.headers.get('cache-control')]).toEqual([200, 'private, no-cache'])
    const bytes = Buffer.from(await whole.arrayBuffer())
    expect(createHash('sha256').update(bytes).digest('hex')).toBe(list!.sha256)
    // Pieces over several connections at once, as programs resume them.
    const pieces = await Promise.all(
      [0, 1, 2, 3].map(async part => {
        const [first, last] = [Math.floor((part * bytes.length) / 4), Math.floor(((part + 1) * bytes.length) / 4) - 1]
        const piece = await buyer.ask(path, { headers: { range: `bytes=${first}-${last}` } })
        expect([piece.status, piece.headers.get('cache-control')]).toEqual([206, 'private, no-cache'])
        return Buffer.from(await piece.arrayBuffer())
      }),
    )
    expect(Buffer.concat(pieces).equals(bytes)).toBe(true)
    // RFC 7617, by a program that shows the password with each request.
    const { stdout } = await run('curl', ['-s', '-u', `buyer:${TRADE_PASSWORD}`, '-r', '0-3', nginx.url + path], { encoding: 'buffer' })
    expect(stdout.equals(bytes.subarray(0, 4))).toBe(true)
    await ownApi(
      `/gates/${(await ownApi<{ items: { id: string; name: string }[] }>('/gates')).items.find(({ name }) => name === 'Trade buyers')!.id}/end-passes`,
      {
        method: 'POST',
        json: {},
      },
    )
    expect((await buyer.ask(path)).status).toBe(403)
  } finally {
    await nginx.stop()
    await own.remove()
  }
})
