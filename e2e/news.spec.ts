import { expect, test } from '@playwright/test'
import { newPage, openDesk, openFolder, ownerApi, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { signIn } from './support/upload'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

test('what is done in another window, or by a program, shows by itself: folders, pages, files', async ({ page, context }) => {
  const api = await ownerApi(server.url)
  await openDesk(page, server.url)
  const other = await context.newPage()
  await openDesk(other, server.url)

  await openFolder(other, 'Guides')
  await page.getByRole('button', { name: 'More ways in' }).click()
  await page.getByRole('menuitem', { name: 'New folder' }).click()
  await page.getByRole('dialog').getByLabel('Name').fill('Workshops')
  await page.getByRole('dialog').getByLabel('Name').press('Enter')
  await other.getByRole('navigation', { name: 'Way to this folder' }).getByText('Library', { exact: true }).click()
  await expect(other.locator('.folder-strip', { hasText: 'Workshops' })).toBeVisible()

  await newPage(page, 'Told at once')
  await expect(other.locator('.pages a.row', { hasText: 'Told at once' })).toBeVisible()

  // By a program, which no window knows of.
  const { items } = await api<{ items: { id: string }[] }>('/files?q=Wedging clay')
  await api(`/files/${items[0]!.id}`, { method: 'PATCH', json: { title: 'Wedging, renamed elsewhere' } })
  await openFolder(page, 'Guides')
  await openFolder(other, 'Guides')
  await expect(row(page, 'Wedging, renamed elsewhere')).toBeVisible()
  await api(`/files/${items[0]!.id}`, { method: 'PATCH', json: { title: 'Wedging, once more' } })
  await expect(row(page, 'Wedging, once more')).toBeVisible()
  await expect(row(other, 'Wedging, once more')).toBeVisible()
})

test('what is being typed stays as it is, whatever is told meanwhile', async ({ page }) => {
  const api = await ownerApi(server.url)
  await openDesk(page, server.url)
  const { items } = await api<{ items: { id: string; title: string }[] }>('/files?q=K60 kiln manual')
  const [manual, other] = [items[0]!, (await api<{ items: { id: string }[] }>('/files?q=Stock list')).items[0]!]
  await page.goto(`${server.url}/desk/files/${manual.id}`)
  const title = page.getByLabel('Title', { exact: true })
  await expect(title).toHaveValue(manual.title)
  await title.fill('Half a new ti')
  const [told] = await Promise.all([
    page.waitForResponse(answer => answer.url().endsWith(`/api/files/${manual.id}`)),
    api(`/files/${other.id}`, { method: 'PATCH', json: { title: 'Stock, renamed elsewhere' } }),
  ])
  await told.finished()
  await page.evaluate(() => new Promise(resolve => requestAnimationFrame(() => requestAnimationFrame(resolve))))
  await expect(title).toHaveValue('Half a new ti')

  await page.goto(`${server.url}/desk/setup`)
  const name = page.getByLabel('Name of the site')
  await expect(name).not.toHaveValue('')
  await name.fill('Half a na')
  const site = await api<{ name: string; address: string; timeZone: string }>('/site')
  const [read] = await Promise.all([
    page.waitForResponse(answer => answer.url().endsWith('/api/site')),
    api('/site', { method: 'PUT', json: { ...site, name: 'Named elsewhere' } }),
  ])
  await read.finished()
  await page.evaluate(() => new Promise(resolve => requestAnimationFrame(() => requestAnimationFrame(resolve))))
  await expect(name).toHaveValue('Half a na')
})

test('news is for who is signed in, and ends with the session', async () => {
  expect((await fetch(`${server.url}/api/news`)).status).toBe(401)
  const cookie = await signIn(server.url)
  const news = await fetch(`${server.url}/api/news`, { headers: { cookie } })
  expect(news.headers.get('content-type')).toBe('text/event-stream')
  const told = news.text()
  await fetch(`${server.url}/api/session`, { method: 'DELETE', headers: { cookie } })
  expect(await told).toContain('"sessions"')
})

test('a server that stops ends the news of desks that are open, whole', async () => {
  const stopped = await startServer(await makeData('demo'))
  const news = await fetch(`${stopped.url}/api/news`, { headers: { cookie: await signIn(stopped.url) } })
  const told = news.text()
  await stopped.stop()
  // One that was cut off in the middle would throw (RFC 9112, section 8: incomplete messages).
  expect(await told).toContain(': followed')
  await stopped.remove()
})
