import { expect, test } from '@playwright/test'
import { OWNER } from '../demo/owner'
import { makeData, startServer, type RunningServer } from './support/server'

const JSON_TYPE = { 'Content-Type': 'application/json' }

test.describe('an empty data folder', () => {
  let server: RunningServer
  test.beforeAll(async () => {
    server = await startServer(await makeData('empty'))
  })
  test.afterAll(() => server.remove())

  test('is set up once with the code from the console, and then asks to sign in', async ({ page, browser }) => {
    await page.goto(`${server.url}/desk`)
    await expect(page.getByRole('heading', { name: 'Make this Trough yours' })).toBeVisible()
    const code = /[A-Z2-9]{4}-[A-Z2-9]{4}-[A-Z2-9]{4}/.exec(server.output())![0]
    await page.getByLabel('Set-up code').fill('AAAA-AAAA-AAAA')
    await page.getByLabel('Name of your site').fill('Marlpit')
    await page.getByLabel('Your e-mail').fill('me@marlpit.example')
    await page.getByLabel(/A password/).fill('a long password')
    await page.getByRole('button', { name: 'Begin' }).click()
    await expect(page.getByRole('alert')).toContainText('That is not the set-up code.')
    await page.getByLabel('Set-up code').fill(code)
    await page.getByRole('button', { name: 'Begin' }).click()
    // The empty library says what to do, and there is a first page.
    await expect(page.getByText('Drop files here.')).toBeVisible()
    await expect(page.locator('.pages a.row')).toContainText(['Home', 'Head of every page', 'Foot of every page'])

    const stranger = await (await browser.newContext()).newPage()
    await stranger.goto(`${server.url}/desk`)
    await expect(stranger).toHaveURL(/sign-in$/)
    await stranger.goto(`${server.url}/`)
    await expect(stranger.getByRole('heading')).toHaveText('Nothing is published here yet.')
    const again = await stranger.request.post(`${server.url}/api/setup`, {
      data: { code, email: 'x@y.example', password: 'another one', siteName: 'x' },
    })
    expect(again.status()).toBe(409)
  })
})

test.describe('the demo', () => {
  let server: RunningServer
  test.beforeAll(async () => {
    server = await startServer(await makeData('demo'))
  })
  test.afterAll(() => server.remove())

  test('is closed to strangers but for session, set-up and health', async ({ request }) => {
    for (const path of [
      '/api/files',
      '/api/pages',
      '/api/site',
      '/api/uploads',
      '/api/uploads/abc',
      '/api/nothing',
      '/api//files',
      '/api/%66iles',
    ]) {
      expect([401, 404], path).toContain((await request.get(server.url + path)).status())
      expect((await request.get(server.url + path)).headers()['set-cookie'], path).toBeUndefined()
    }
    expect((await request.get(`${server.url}/api/files`)).headers()['content-type']).toBe('application/problem+json')
    expect((await (await request.get(`${server.url}/api/health`)).json()).ok).toBe(true)
    expect((await request.get(`${server.url}/desk/pages/x`)).url()).toMatch(/\/desk\/sign-in$/)
  })

  test('seals its session in an http-only SameSite cookie, and signs out', async ({ request }) => {
    const response = await request.post(`${server.url}/api/session`, { data: OWNER })
    const [cookie, device] = response
      .headersArray()
      .filter(({ name }) => name.toLowerCase() === 'set-cookie')
      .map(({ value }) => value)
    expect(cookie).toMatch(/^trough=[\w-]{43}; .*HttpOnly; SameSite=Lax$/i)
    expect(device).toMatch(/^trough-device=[\w-]+\.[\w-]+; .*HttpOnly; SameSite=Lax$/i)
    expect((await request.get(`${server.url}/api/files`)).status()).toBe(200)
    await request.delete(`${server.url}/api/session`)
    expect((await request.get(`${server.url}/api/files`)).status()).toBe(401)
  })

  test('refuses changes that another site asks for', async ({ request }) => {
    await request.post(`${server.url}/api/session`, { data: OWNER })
    const foreign: Record<string, string>[] = [
      { Origin: 'https://evil.example' },
      { 'Sec-Fetch-Site': 'cross-site' },
      { 'Sec-Fetch-Site': 'same-site' },
      { Origin: 'null' },
    ]
    for (const headers of foreign) {
      const response = await request.post(`${server.url}/api/pages`, { data: { title: 'Mine' }, headers })
      expect(response.status(), JSON.stringify(headers)).toBe(403)
    }
    const own = await request.post(`${server.url}/api/pages`, {
      data: { title: 'Mine' },
      headers: { 'Origin': server.url, 'Sec-Fetch-Site': 'same-origin' },
    })
    expect(own.status()).toBe(201)
  })

  test('answers bad input with a clear problem, never with 500', async ({ request }) => {
    await request.post(`${server.url}/api/session`, { data: OWNER })
    const {
      items: [page],
    } = await (await request.get(`${server.url}/api/pages`)).json()
    const {
      items: [file],
    } = await (await request.get(`${server.url}/api/files`)).json()
    const draft = { type: 'doc', content: [{ type: 'paragraph' }] }
    const cases: [string, string, unknown][] = [
      ['POST', '/api/pages', { title: '' }],
      ['POST', '/api/pages', { title: 'x', slug: '../' }],
      ['POST', '/api/pages', []],
      ['POST', '/api/pages', 'nonsense'],
      ['PUT', `/api/pages/${page.id}/draft`, { title: 'x', draft: { type: 'doc', content: [{ type: 'script' }] }, revision: 1 }],
      ['PUT', `/api/pages/${page.id}/draft`, { title: 'x', draft, revision: -1 }],
      ['PUT', '/api/pages/nothing/draft', { title: 'x', draft, revision: 1 }],
      ['POST', '/api/pages/nothing/publish', {}],
      ['PATCH', `/api/files/${file.id}`, { handle: '../' }],
      ['PATCH', `/api/files/${file.id}`, { title: ' ' }],
      ['PATCH', '/api/files/nothing', { title: 'x' }],
      ['POST', '/api/selection/remove', { files: [file.id], despite: false, replaceBy: file.id }],
      ['POST', '/api/selection/remove', { files: ['nothing'] }],
      ['POST', '/api/selection/remove', {}],
      ['POST', '/api/selection/move', { files: [file.id], to: 'nowhere' }],
      ['POST', '/api/selection/copy', { files: [file.id] }],
      ['POST', '/api/selection/describe', { files: ['x'], addTags: ['y'] }],
      ['POST', '/api/folders', { name: '/' }],
      ['POST', '/api/folders', { name: 'x', parent: 'nowhere' }],
      ['PATCH', '/api/folders/nothing', { name: 'x' }],
      ['PATCH', '/api/folders/nothing', { mark: 'pink' }],
      ['POST', '/api/fetches', { address: 'ftp://a.example/x' }],
      ['PUT', '/api/fetch-hosts', { hosts: ['a b'] }],
      ['POST', `/api/files/${file.id}/unpack`, {}],
      ['GET', `/api/files/${file.id}/pages/99999`, undefined],
      ['GET', '/api/selection/zip/nothing', undefined],
      ['DELETE', '/api/jobs/nothing', undefined],
      ['DELETE', `/api/files/${file.id}`, {}],
      ['GET', '/api/nothing', undefined],
      ['GET', '/api/files?addedFrom=yesterday', undefined],
      ['GET', '/api/files?least=-1', undefined],
      ['PUT', '/api/site', { name: 'x', address: 'javascript:alert(1)' }],
      ['PUT', '/api/site', { name: 'x', address: 'https://a.example/path' }],
      ['GET', '/api/files?limit=999999', undefined],
      ['GET', '/api/files?sort=bad', undefined],
      ['GET', '/api/files?folder=none', undefined],
      ['POST', '/api/bundles', { title: '' }],
      ['POST', '/api/bundles', { title: 'x', folder: 'nowhere' }],
      ['GET', '/api/bundles/nothing', undefined],
      ['PUT', '/api/bundles/nothing', { entries: [], revision: 1 }],
      ['PUT', '/api/bundles/nothing', { entries: [{ id: 'aaaaaaaa', kind: 'text', name: 'a', body: '', within: '../up' }], revision: 1 }],
      ['POST', '/api/bundles/nothing/add', { files: [file.id] }],
      ['POST', '/api/files/nothing/bag', {}],
      ['POST', '/api/bag', { folder: 'nowhere' }],
      ['GET', '/api/files/nothing/contents', undefined],
      ['GET', '/files/price-list-2026-05.pdf?edition=1', undefined],
      ['POST', '/api/cleaning/preview', { binDays: 0 }],
      ['PUT', '/api/cleaning', { keepEditions: -1 }],
      ['POST', '/api/verify', { from: '/nowhere' }],
      ['POST', '/api/backup', { folder: '' }],
      ['PUT', '/api/delivery-settings', { check: 'yes' }],
      ['GET', '/files/%E0%A4%A', undefined],
      ['GET', '/files/a%00b', undefined],
      ['GET', '/files/', undefined],
      ['GET', '/a/b/c', undefined],
      ['POST', '/trade', {}],
      ['GET', '/%E0%A4%A', undefined],
    ]
    for (const [method, path, data] of cases) {
      const response = await request.fetch(server.url + path, {
        method,
        headers: data === undefined ? {} : JSON_TYPE,
        data: data === undefined ? undefined : JSON.stringify(data),
      })
      expect(response.status(), `${method} ${path} ${JSON.stringify(data)}`).toBeGreaterThanOrEqual(400)
      expect(response.status(), `${method} ${path} ${JSON.stringify(data)}`).toBeLessThan(500)
      if (path.startsWith('/api')) expect(Object.keys(await response.json())).toEqual(expect.arrayContaining(['status', 'title', 'detail']))
    }
  })

  test('slows guessing down', async ({ request }) => {
    // All at once: on a machine with other work five of them, one after another, take longer than they are remembered.
    const answers = await Promise.all(
      Array.from({ length: 6 }, () => request.post(`${server.url}/api/session`, { data: { ...OWNER, password: 'wrong' } })),
    )
    expect(answers.map(answer => answer.status()).sort()).toEqual([401, 401, 401, 401, 401, 429])
    const refused = answers.find(answer => answer.status() === 429)!
    expect(Number(refused.headers()['retry-after'])).toBeGreaterThan(0)
  })
})
