import { once } from 'node:events'
import { connect } from 'node:net'
import { expect, test } from '@playwright/test'
import { OWNER } from '../demo/owner'
import { ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { cookieOf, upload } from './support/upload'

// Strangers from outside, over real connections: nothing they send stops the site, its owner, or is answered by a fault.

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

/** What the server says to bytes that are sent as they are. */
async function raw(text: string): Promise<string> {
  const socket = connect(server.port, '127.0.0.1')
  let said = ''
  socket.on('data', chunk => (said += chunk.toString('latin1')))
  socket.on('error', () => undefined)
  socket.write(text)
  await once(socket, 'close')
  return said
}

const statusOf = (said: string) => Number(/^HTTP\/1\.1 (\d+)/.exec(said)?.[1])
const host = () => `Host: 127.0.0.1:${server.port}\r\nConnection: close\r\n`

test('requests that are not as they should be are answered by the letter (RFC 9110, 9112)', async () => {
  // RFC 9112, section 3.2.2: a server must take the absolute form.
  expect(statusOf(await raw(`GET http://elsewhere.example/trade HTTP/1.1\r\n${host()}\r\n`))).toBe(200)
  // Section 3.2: more than one Host is 400.
  expect(statusOf(await raw(`GET /trade HTTP/1.1\r\n${host()}Host: other.example\r\n\r\n`))).toBe(400)
  expect(statusOf(await raw('GET /trade HTTP/1.1\r\nConnection: close\r\n\r\n'))).toBe(400)
  // RFC 9110, section 9.1: a method that is not known is 501; section 9.3.7: OPTIONS of the server as a whole.
  for (const method of ['BREW', 'PROPFIND']) expect(statusOf(await raw(`${method} / HTTP/1.1\r\n${host()}\r\n`)), method).toBe(501)
  expect(await raw(`OPTIONS * HTTP/1.1\r\n${host()}\r\n`)).toMatch(/^HTTP\/1\.1 204 [^]*Allow: GET, HEAD/)
  expect(statusOf(await raw(`POST /trade HTTP/1.1\r\n${host()}Content-Length: 0\r\n\r\n`))).toBe(405)
})

test('addresses forgive how they were written', async () => {
  const {
    items: [file],
  } = await (
    await ownerApi(server.url)
  )<{ items: { handle: string }[] }>('/files?q=packing')
  for (const written of [file!.handle.toUpperCase(), `${file!.handle}/`, `${file!.handle}.`, `${file!.handle}).`, `/${file!.handle}`]) {
    const response = await fetch(`${server.url}/files/${written}?save`, { redirect: 'manual' })
    expect([response.status, response.headers.get('location')], written).toEqual([308, `/files/${file!.handle}?save`])
  }
  // RFC 3986, section 6.2.2.2: the same address, needlessly encoded.
  expect((await fetch(`${server.url}/files/${file!.handle.replaceAll('-', '%2D')}`)).status).toBe(200)
  expect((await fetch(`${server.url}/TRADE/`, { redirect: 'manual' })).headers.get('location')).toBe('/trade')
  expect((await fetch(`${server.url}//trade`, { redirect: 'manual' })).headers.get('location')).toBe('/trade')
})

test('names of any script keep their letters in the address', async () => {
  const api = await ownerApi(server.url)
  for (const [name, handle] of [
    ['Прайс-лист 2026.pdf', 'прайс-лист-2026.pdf'],
    ['価格表.pdf', '価格表.pdf'],
  ] as const) {
    const id = await upload(server.url, name, Buffer.from(`%PDF-1.7 ${name}`))
    expect((await api<{ handle: string }>(`/files/${id}`)).handle).toBe(handle)
    const response = await fetch(`${server.url}/files/${encodeURIComponent(handle)}`)
    expect([response.status, await response.text()]).toEqual([200, `%PDF-1.7 ${name}`])
    await api(`/files/${id}`, { method: 'PATCH', json: { handle: `moved-${id}.pdf` } })
    expect((await fetch(`${server.url}/files/${encodeURIComponent(handle)}`, { redirect: 'manual' })).headers.get('location')).toBe(
      `/files/moved-${id}.pdf`,
    )
  }
})

test('bodies that are too large, too deep or hold what no text may hold are refused with what to do', async () => {
  const api = await ownerApi(server.url)
  const {
    items: [page],
  } = await api<{ items: { id: string }[] }>('/pages')
  const refused = async (path: string, method: string, body: string) => {
    const cookie: Record<string, string> =
      path.startsWith('/session') || path.startsWith('/setup') ? {} : { cookie: await cookieOf(server.url) }
    const response = await fetch(`${server.url}/api${path}`, {
      method,
      body,
      headers: { 'Content-Type': 'application/json', ...cookie },
    }).catch(() => undefined)
    // A body that is refused before its end may break the connection on its way.
    if (!response) return 413
    expect(Object.keys(await response.json())).toEqual(expect.arrayContaining(['title', 'detail']))
    return response.status
  }
  const nested = (depth: number) => '['.repeat(depth) + ']'.repeat(depth)
  expect(await refused('/session', 'POST', nested(3_900_000))).toBe(413)
  expect(await refused('/setup', 'POST', JSON.stringify({ email: `${'a'.repeat(7_800_000)}@example.com` }))).toBe(413)
  expect(await refused('/session', 'POST', nested(1000))).toBe(400)
  let list: unknown = { type: 'paragraph' }
  for (let depth = 0; depth < 1000; depth++) list = { type: 'bulletList', content: [{ type: 'listItem', content: [list] }] }
  expect(
    await refused(`/pages/${page!.id}/draft`, 'PUT', JSON.stringify({ title: 'x', draft: { type: 'doc', content: [list] }, revision: 1 })),
  ).toBe(400)
  expect(await refused('/pages', 'POST', JSON.stringify({ title: 'a\0b' }))).toBe(422)
  // Half a character (RFC 8259, section 8.2) comes in as the sign for none: what was written beside it is kept.
  const typed =
    '{"title":"Half \\ud83d","draft":{"type":"doc","content":[{"type":"paragraph","content":[{"type":"text","text":"\\udffa clay"}]}]}'
  const { revision } = await api<{ revision: number }>(`/pages/${page!.id}`)
  await api(`/pages/${page!.id}/draft`, {
    method: 'PUT',
    body: `${typed},"revision":${revision}}`,
    headers: { 'Content-Type': 'application/json' },
  })
  const kept = JSON.stringify(await api(`/pages/${page!.id}`))
  expect([kept.includes('Half \uFFFD"'), kept.includes('"\uFFFD clay"')]).toEqual([true, true])
  for (const path of ['/api/files/%00', '/%00', '/files/%00', '/api/files?q=%00'])
    expect((await fetch(server.url + path)).status, path).toBe(400)
})

test("what is nowhere is answered with the site's own page", async () => {
  for (const path of ['/files', '/to', '/shelves', '/_fonts/x', '/_nuxt/', '/pictures', '/never', '/.env', '/desktop']) {
    const response = await fetch(server.url + path)
    expect([response.status, (await response.text()).includes('Marlpit Pottery Supply')], path).toEqual([404, true])
  }
})

test('headers hold browsers to what each answer is (OWASP, HTTP headers)', async () => {
  const fields = async (path: string) => (await fetch(server.url + path)).headers
  const page = await fields('/')
  expect(page.get('content-security-policy')).toContain("script-src 'none'")
  const desk = await fields('/desk/sign-in')
  expect(desk.get('content-security-policy')).toMatch(/script-src 'self' 'sha256-[^]*frame-ancestors 'none'/)
  expect(desk.get('content-security-policy')).not.toMatch(/script-src[^;]*unsafe-inline/)
  const api = await fields('/api/health')
  expect([api.get('cache-control'), api.get('content-security-policy')]).toEqual(['no-store', "default-src 'none'; frame-ancestors 'none'"])
  for (const headers of [page, desk, api])
    expect([headers.get('x-content-type-options'), headers.has('referrer-policy'), headers.get('x-powered-by')]).toEqual([
      'nosniff',
      true,
      null,
    ])
  // RFC 9116, 9309 and the sitemap protocol.
  expect(await (await fetch(`${server.url}/.well-known/security.txt`)).text()).toMatch(/^Contact: mailto:[^]*^Expires: \d{4}-/m)
  expect(await (await fetch(`${server.url}/robots.txt`)).text()).toContain('Sitemap: https://www.marlpit.example/sitemap.xml')
  expect(await (await fetch(`${server.url}/sitemap.xml`)).text()).toMatch(
    /<loc>https:\/\/www\.marlpit\.example\/trade<\/loc><lastmod>\d{4}-\d{2}-\d{2}</,
  )
  const icon = await fetch(`${server.url}/favicon.ico`)
  expect([icon.headers.get('content-type'), (await icon.text()).startsWith('<svg')]).toEqual(['image/svg+xml', true])
})

test('a session that was ended lets nobody in, wherever its cookie is', async ({ browser }) => {
  const signIn = async () =>
    (
      await fetch(`${server.url}/api/session`, {
        method: 'POST',
        headers: { 'Content-Type': 'application/json' },
        body: JSON.stringify(OWNER),
      })
    ).headers
      .getSetCookie()
      .map(line => line.split(';')[0])
      .join('; ')
  const [one, other] = [await signIn(), await signIn()]
  const status = async (cookie: string) => (await fetch(`${server.url}/api/files`, { headers: { cookie } })).status
  await fetch(`${server.url}/api/session`, { method: 'DELETE', headers: { cookie: one } })
  expect([await status(one), await status(other)]).toEqual([401, 200])

  // By its owner's list, on the desk.
  const context = await browser.newContext()
  const page = await context.newPage()
  await page.goto(`${server.url}/desk/sign-in`)
  await page.getByLabel('E-mail').fill(OWNER.email)
  await page.getByLabel('Password').fill(OWNER.password)
  await page.getByRole('button', { name: 'Sign in' }).click()
  await page.getByRole('grid', { name: 'Files' }).waitFor()
  await page.goto(`${server.url}/desk/setup/people`)
  await expect(page.getByRole('row', { name: /now, here/ })).toHaveCount(1)
  await page.getByRole('button', { name: 'End all others' }).click()
  await expect(page.getByRole('button', { name: /^End the session/ })).toHaveCount(0)
  expect(await status(other)).toBe(401)
  await page.goto(`${server.url}/desk/setup/log`)
  await expect(page.getByRole('row', { name: /owner@marlpit\.example ended a session: all others/ })).toBeVisible()
  await context.close()
})

test('behind a front server that is not named the owner is told; https makes cookies that only https gets', async () => {
  const response = await fetch(`${server.url}/api/session`, {
    method: 'POST',
    headers: { 'Content-Type': 'application/json', 'X-Forwarded-For': '198.51.100.7', 'X-Forwarded-Proto': 'https' },
    body: JSON.stringify(OWNER),
  })
  const [cookie] = response.headers.getSetCookie()
  expect(cookie).toMatch(/^__Host-trough=[\w-]{43};.*Secure/i)
  const warnings = await fetch(`${server.url}/api/warnings`, {
    headers: { 'cookie': cookie!.split(';')[0]!, 'X-Forwarded-Proto': 'https' },
  })
  expect(await warnings.json()).toMatchObject({ unnamedFront: '127.0.0.1' })
  expect(server.output()).toContain('TROUGH_PROXIES')
  // A page that came by http may be anybody's: it asks for nothing on a site that has https.
  const foreign = await fetch(`${server.url}/api/pages`, {
    method: 'POST',
    headers: {
      'cookie': cookie!.split(';')[0]!,
      'X-Forwarded-Proto': 'https',
      'Origin': `http://127.0.0.1:${server.port}`,
      'Content-Type': 'application/json',
    },
    body: '{"title":"x"}',
  })
  expect(foreign.status).toBe(403)
})

test('a burst of wrong sign-ins is cut short, and its owner signs in beside it on the device that is known', async () => {
  const signIn = (password: string, headers: Record<string, string> = {}) =>
    fetch(`${server.url}/api/session`, {
      method: 'POST',
      headers: { 'Content-Type': 'application/json', ...headers },
      body: JSON.stringify({ ...OWNER, password }),
    })
  const device = (await signIn(OWNER.password)).headers
    .getSetCookie()
    .map(line => line.split(';')[0]!)
    .find(pair => pair.startsWith('trough-device='))!
  const burst = Array.from({ length: 24 }, () => signIn('wrong').then(answer => answer.status))
  const owner = await signIn(OWNER.password, { cookie: device })
  expect(owner.status).toBe(200)
  const statuses = await Promise.all(burst)
  expect(statuses.filter(status => status === 429).length).toBeGreaterThanOrEqual(19)
  expect(statuses.every(status => status === 429 || status === 401)).toBe(true)
})
