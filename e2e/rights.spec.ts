import { expect, test } from '@playwright/test'
import { readyRights } from '../core/rights/ready'
import { ROUTES } from '../core/rights/routes'
import type { Holder } from '../core/rights/rights'
import { ownerApi } from './support/owner'
import { makeHelper, tokenFor } from './support/people'
import { makeData, startServer, type RunningServer } from './support/server'
import { upload } from './support/upload'

/*
 * What may be done at the desk, asked from outside: every request of the API as the owner, as each ready set, as strangers; and what
 * lies where a helper sees nothing, by every address that could tell of it (OWASP ASVS 5, chapter 8).
 */

const SECRET = 'Zwetschgenofen'
let server: RunningServer
let yard: string
let elsewhere: string
/** a file in the folder of the helpers, and one they do not see */
let near: string
let far: string
let people: Record<string, string>

const call = (path: string, cookie: string, init: RequestInit & { json?: unknown } = {}) => {
  const { json, ...rest } = init
  return fetch(`${server.url}/api${path}`, {
    ...rest,
    headers: { cookie, ...(json !== undefined && { 'Content-Type': 'application/json' }), ...(rest.headers as object) },
    body: json === undefined ? rest.body : JSON.stringify(json),
  })
}

test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  const api = await ownerApi(server.url)
  const folder = async (name: string) => (await api<{ id: string }>('/folders', { method: 'POST', json: { name } })).id
  ;[yard, elsewhere] = [await folder('Yard'), await folder(`${SECRET} papers`)]
  ;[near, far] = [
    await upload(server.url, 'delivery-note.pdf', Buffer.from('%PDF-1.4 near')),
    await upload(server.url, `${SECRET}.pdf`, Buffer.from(`%PDF-1.4 ${SECRET}`)),
  ]
  await api('/selection/move', { method: 'POST', json: { files: [near], to: yard } })
  await api('/selection/move', { method: 'POST', json: { files: [far], to: elsewhere } })
  await api(`/files/${far}`, { method: 'PATCH', json: { title: SECRET, tags: [SECRET] } })
  await api('/bundles', { method: 'POST', json: { title: `All about ${SECRET}`, folder: elsewhere, files: [far] } })
  const come = async (name: string, rights: Holder) => (await makeHelper(server.url, `${name}@marlpit.example`, rights)).cookie
  people = {
    puts: await come('puts', readyRights('puts', [yard])),
    library: await come('library', readyRights('library', [yard])),
    pages: await come('pages', readyRights('pages', [yard])),
    everything: await come('everything', readyRights('everything', null)),
    second: await come('second', null),
    stranger: '',
  }
})
test.afterAll(() => server.remove())

test('whoever writes pages and does not put them live changes nothing that visitors read', async () => {
  const api = await ownerApi(server.url)
  const { cookie } = await makeHelper(server.url, 'writer@marlpit.example', { files: [{ folder: null, may: ['see'] }], site: ['write'] })
  const { items } = await api<{ items: { id: string; slug: string; published: string | null }[] }>('/pages')
  const live = items.find(({ slug }) => slug === 'guides')!
  const page = (await (await call(`/pages/${live.id}`, cookie)).json()) as { title: string; draft: object; revision: number }
  const draft = { title: page.title, draft: page.draft, revision: page.revision }
  expect((await call(`/pages/${live.id}/draft`, cookie, { method: 'PUT', json: draft })).status).toBe(200)
  for (const [path, method, json] of [
    [`/pages/${live.id}/publish`, 'POST', {}],
    [`/pages/${live.id}/unpublish`, 'POST', {}],
    [`/pages/${live.id}`, 'DELETE', undefined],
    [`/pages/${live.id}/settings`, 'PATCH', { slug: 'elsewhere' }],
    ['/targets/replace', 'POST', { from: { kind: 'file', id: far }, to: { kind: 'file', id: near } }],
  ] as const)
    expect((await call(path, cookie, { method, json })).status, path).toBe(403)
  const made = (await (await call('/pages', cookie, { method: 'POST', json: { title: 'Drafted' } })).json()) as { id: string }
  expect((await call(`/pages/${made.id}/settings`, cookie, { method: 'PATCH', json: { slug: 'drafted-here' } })).status).toBe(200)
  expect((await call(`/pages/${made.id}`, cookie, { method: 'DELETE' })).status).toBe(204)
})

test('an invitation holds once and for who was asked; what is changed or ended holds with the next request', async () => {
  const api = await ownerApi(server.url)
  const email = 'once@marlpit.example'
  const invited = await api<{ id: string }>('/people/invitations', { method: 'POST', json: { email, rights: readyRights('puts', [yard]) } })
  const first = await tokenFor(server.url, email)
  await api(`/people/invitations/${invited.id}/again`, { method: 'POST', json: {} })
  const second = await tokenFor(server.url, email)
  const enter = (token: string) => call('/entry', '', { method: 'POST', json: { token, password: 'a password of their own' } })
  expect((await enter(first)).status).toBe(410)
  // Programs of mail services open links before anybody does.
  expect((await call('/entry/look', '', { method: 'POST', json: { token: second } })).status).toBe(200)
  const both = await Promise.all([enter(second), enter(second)])
  expect(both.map(({ status }) => status).sort()).toEqual([200, 410])
  const cookie = both
    .find(({ status }) => status === 200)!
    .headers.getSetCookie()
    .map(line => line.split(';')[0])
    .join('; ')
  const { account } = (await (await call('/session', cookie)).json()) as { account: { id: string; email: string } }
  expect(account.email).toBe(email)
  expect((await call(`/files/${near}`, cookie, { method: 'PATCH', json: { title: 'Note' } })).status).toBe(403)
  await api(`/people/${account.id}`, { method: 'PATCH', json: { rights: readyRights('library', [yard]) } })
  expect((await call(`/files/${near}`, cookie, { method: 'PATCH', json: { title: 'Note' } })).status).toBe(200)
  await api(`/people/${account.id}`, { method: 'DELETE' })
  expect((await call('/files', cookie)).status).toBe(401)
  expect((await api<{ items: { email: string }[] }>('/people')).items.map(person => person.email)).not.toContain(email)
})

const OPEN = [
  'GET /health',
  'GET /session',
  'POST /session',
  'DELETE /session',
  'POST /setup',
  'POST /entry',
  'POST /entry/look',
  'POST /entry/lost',
]
/** By hand, not by the table that the server goes by: which requests are for whom. */
const OWN =
  /^\S+ \/(account(?!\/password-reset)|news|warnings|jobs|reading$|recognise|site$|site\/(icon|kept)$|looks|shelf-looks|signposts|timetable|tags|uploads)/
const isFor: Record<string, (route: string) => boolean> = {
  stranger: route => OPEN.includes(route),
  puts: route =>
    OPEN.includes(route) ||
    (/^GET /.test(route) && OWN.test(route) && !/recognise/.test(route)) ||
    /^\S+ \/(account(?!\/password-reset)|uploads|files\/(clashes|some|twins|ids)|fetches|selection\/(copy|zip)|targets\/places|bag|bundles$|jobs\/)/.test(
      route,
    ) ||
    /^(GET|PUT|PATCH|POST) \/files\/:id\/(edition|editions\/:number(\/comparison|\/split)?|bytes|contents|preview|pages\/:number|unpack|bag)$/.test(
      route,
    ) ||
    /^\S+ \/timetable/.test(route) ||
    ['GET /files', 'GET /files/:id', 'GET /folders', 'POST /folders', 'GET /bundles/:id', 'GET /selection/zip/:id'].includes(route),
  library: route =>
    isFor.puts!(route) ||
    // Without naming files it is asked for all of them.
    /^\S+ \/(selection|folders)/.test(route) ||
    ['PATCH /files/:id', 'DELETE /files/:id/editions/:number', 'PUT /bundles/:id', 'POST /bundles/:id/add'].includes(route),
  pages: route => isFor.puts!(route) || /^\S+ \/(pages|first-pages|style\/preview|recognise|catalogues|entries|entry-imports)/.test(route),
  everything: route => !/ \/(people|journal|outbox|mail|hooks|backup)/.test(route) && route !== 'POST /account/password-reset',
  second: route => !/ \/backup/.test(route) && route !== 'POST /account/password-reset',
}

for (const who of ['stranger', 'puts', 'library', 'pages', 'everything', 'second'])
  test(`every request of the API as: ${who}`, async () => {
    const wrong: string[] = []
    for (const route of Object.keys(ROUTES)) {
      // It would end what the others are asked with.
      if (route === 'DELETE /session') continue
      const [method, path] = route.split(' ') as [string, string]
      const asked = path
        .replace('/:number', '/1')
        .replace(/\/folders\/:id/, `/folders/${yard}`)
        .replace(/\/(files|bundles)\/:id/, `/$1/${near}`)
        .replace(/:\w+/g, 'nothing')
      const verb = method === 'ALL' ? 'POST' : method
      const answer = await call(asked, people[who]!, { method: verb, ...(verb !== 'GET' && { json: {} }) })
      await answer.body?.cancel()
      const passes = answer.status !== 401 && answer.status !== 403
      if (passes !== isFor[who]!(route)) wrong.push(`${route}: ${answer.status}`)
    }
    expect(wrong).toEqual([])
  })

test('a request that is none says so to helpers, and nothing to strangers', async () => {
  expect((await call('/nothing', '')).status).toBe(401)
  expect((await call('/nothing', people.puts!)).status).toBe(404)
})

test('what lies elsewhere is told by no address, and stays as it is', async () => {
  const api = await ownerApi(server.url)
  const before = await api(`/files/${far}`)
  const told: string[] = []
  const reading = async (path: string, cookie: string, init?: Parameters<typeof call>[2]) => {
    const answer = await call(path, cookie, init)
    const text = path === '/news' ? (await answer.body!.cancel(), '') : await answer.text()
    // Names are told by their letters, as JSON has them.
    if (text.includes(SECRET)) told.push(`${init?.method ?? 'GET'} ${path}`)
    return answer.status
  }
  const bundle = (await api<{ items: { id: string }[] }>(`/files?q=${encodeURIComponent(`All about ${SECRET}`)}`)).items[0]!.id
  for (const who of ['puts', 'library', 'pages']) {
    const cookie = people[who]!
    for (const route of Object.keys(ROUTES)) {
      const [method, path] = route.split(' ') as [string, string]
      if (method !== 'GET') continue
      const ids = path.startsWith('/bundles') ? [bundle] : path.startsWith('/folders') ? [elsewhere] : [far, near]
      for (const id of path.includes(':id') ? ids : ['']) await reading(path.replace(':id', id).replace(/:\w+/g, '1'), cookie)
    }
    for (const query of [
      `q=${SECRET}`,
      `folder=${elsewhere}`,
      `among=${elsewhere}`,
      `tag=${SECRET}`,
      'folder=top&below=true',
      'bin=true',
      'sort=title',
      `among=${elsewhere}&among=${yard}`,
    ])
      for (const list of ['files', 'files/ids']) await reading(`/${list}?${query}`, cookie)
    const statuses = [
      await reading('/files/some', cookie, { method: 'POST', json: { files: [far] } }),
      await reading('/files/clashes', cookie, { method: 'POST', json: { folder: elsewhere, names: [`${SECRET}.pdf`] } }),
      await reading('/selection/zip', cookie, { method: 'POST', json: { files: [far] } }),
      await reading('/selection/zip', cookie, { method: 'POST', json: { folders: [elsewhere] } }),
      await reading('/selection/copy', cookie, { method: 'POST', json: { files: [far], to: yard } }),
      await reading('/selection/copy', cookie, { method: 'POST', json: { files: [near], to: elsewhere } }),
      await reading('/bag', cookie, { method: 'POST', json: { folder: elsewhere } }),
      await reading('/bag', cookie, { method: 'POST', json: { folder: null } }),
      await reading('/bundles', cookie, { method: 'POST', json: { title: 'x', folder: yard, files: [far] } }),
      await reading('/bundles', cookie, { method: 'POST', json: { title: 'x', folder: elsewhere, files: [near] } }),
      await reading('/targets/places', cookie, { method: 'POST', json: { kind: 'file', id: far } }),
      await reading('/fetches', cookie, { method: 'POST', json: { address: 'https://example.com/', folder: elsewhere } }),
      await reading(`/files/${near}/bag`, cookie, { method: 'POST', json: { folder: elsewhere } }),
      await reading('/folders', cookie, { method: 'POST', json: { name: 'x', parent: elsewhere } }),
      await reading('/timetable', cookie, {
        method: 'POST',
        json: { act: { kind: 'edition', file: far, number: 1 }, at: '2099-01-01T10:00' },
      }),
      await reading(`/files/${far}/edition`, cookie, { method: 'PUT', json: { number: 1 } }),
    ]
    expect(statuses[0], who).toBe(200)
    expect(new Set(statuses.slice(1)), who).toEqual(new Set([404]))
    for (const [name, more] of [
      ['folder', { folder: elsewhere }],
      ['edition', { edition: far }],
    ] as const) {
      const metadata = Object.entries({ filename: 'x.pdf', ...more }).map(
        ([key, value]) => `${key} ${Buffer.from(value).toString('base64')}`,
      )
      const answer = await call('/uploads', cookie, {
        method: 'POST',
        headers: { 'Tus-Resumable': '1.0.0', 'Upload-Length': '1', 'Upload-Metadata': metadata.join(',') },
      })
      expect(answer.status, name).toBe(404)
    }
  }
  for (const [path, json] of [
    ['/selection/move', { files: [far], to: yard }],
    ['/selection/move', { files: [near], to: elsewhere }],
    ['/selection/move', { folders: [elsewhere], to: yard }],
    ['/selection/remove', { files: [far], despite: true }],
    ['/selection/remove', { folders: [elsewhere] }],
    ['/selection/restore', { files: [far] }],
    ['/selection/for-good', { files: [far] }],
    ['/selection/frees', { files: [far] }],
    ['/selection/describe', { files: [far], addTags: ['x'] }],
    ['/reading/again', { files: [far] }],
  ] as const)
    expect(await reading(path, people.library!, { method: 'POST', json }), path).toBe(404)
  expect(told).toEqual([])
  expect(await api(`/files/${far}`)).toEqual(before)
})

test('a right to put files in is none to change them, and none over the folder they lie in', async () => {
  const put = people.puts!
  for (const [path, method, json] of [
    [`/files/${near}`, 'PATCH', { title: 'x' }],
    ['/selection/remove', 'POST', { files: [near] }],
    ['/selection/move', 'POST', { files: [near], to: yard }],
    ['/selection/describe', 'POST', { files: [near], addTags: ['x'] }],
    [`/folders/${yard}`, 'PATCH', { name: 'x' }],
  ] as const)
    expect((await call(path, put, { method, json })).status, path).toBe(403)
  const library = people.library!
  // Its name and place are matters of the folder it lies in.
  for (const [path, method, json] of [
    [`/folders/${yard}`, 'PATCH', { name: 'x' }],
    ['/selection/remove', 'POST', { folders: [yard] }],
    [`/folders/${yard}`, 'PATCH', { gate: 'open' }],
    [`/folders/${yard}`, 'PATCH', { found: true }],
    [`/files/${near}`, 'PATCH', { gate: 'open' }],
    [`/files/${near}`, 'PATCH', { see: false }],
    ['/selection/describe', 'POST', { files: [near], gate: 'open' }],
    ['/selection/remove', 'POST', { files: [near], despite: true }],
    ['/selection/for-good', 'POST', { files: null }],
  ] as const)
    expect((await call(path, library, { method, json })).status, path).toBe(403)
  expect((await call(`/folders/${yard}`, library, { method: 'PATCH', json: { description: 'What came' } })).status).toBe(200)
  const { items } = (await (await call('/folders', library)).json()) as { items: { id: string; parent: null }[] }
  expect(items).toMatchObject([{ id: yard, parent: null }])
})

test('the only owner stays one, however many try at once', async () => {
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string; email: string; state: string }[] }>('/people')
  const owners = items.filter(({ state }) => state === 'owner')
  expect(owners.length).toBe(2)
  const demote = (id: string) => call(`/people/${id}`, people.second!, { method: 'PATCH', json: { rights: readyRights('puts', null) } })
  const other = owners.find(({ email }) => !email.startsWith('second'))!
  const own = owners.find(({ email }) => email.startsWith('second'))!
  const tried = await Promise.all([demote(other.id), demote(own.id)])
  expect(tried.filter(({ ok }) => ok).length).toBe(1)
})
