import { randomBytes } from 'node:crypto'
import { setTimeout as wait } from 'node:timers/promises'
import { expect, test, type Page } from '@playwright/test'
import type { Board, DownloadsLog } from '../core/tally/board'
import { VISITOR } from '../playwright.config'
import { makeGate, visitor } from './support/gates'
import { newPage, openDesk, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { upload } from './support/upload'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const board = async (query: string) => (await ownerApi(server.url))<Board>(`/downloads/board?span=today&${query}`)
const log = async (query: string) => (await ownerApi(server.url))<DownloadsLog>(`/downloads/log?span=today&${query}`)
const main = (page: Page) => page.locator('.margin-board')
const take = (path: string, as: string, headers: Record<string, string> = {}) =>
  fetch(server.url + path, { headers: { 'User-Agent': `${VISITOR} ${as}`, ...headers } }).then(answer => answer.arrayBuffer())
const put = async (name: string, bytes = randomBytes(50_000)) => {
  const api = await ownerApi(server.url)
  return api<{ id: string; handle: string }>(`/files/${await upload(server.url, name, bytes)}`)
}

test('who left an address is known by what they took, unless they asked not to be, until the owner has it forgotten', async ({ page }) => {
  const file = await put('for an address.bin')
  await makeGate(server.url, { kind: 'email' }, { name: 'Addresses', files: [file.id] })
  const come = async (email: string, headers: Record<string, string> = {}) => {
    const comer = visitor(server.url)
    const html = await (await comer.ask(`/files/${file.handle}`)).text()
    const form = new URLSearchParams({ email })
    for (const [, name, value] of html.matchAll(/<input type="hidden" name="([^"]+)" value="([^"]*)"/g)) form.set(name!, value!)
    // A form that comes at once is a program's.
    await wait(900)
    await comer.ask(/action="(\/pass\/[^"]+)"/.exec(html)![1]!, { method: 'POST', body: form })
    await take(`/files/${file.handle}`, email.split('@')[0]!, { cookie: comer.cookie(), ...headers })
  }
  await come('anne@potters.example')
  await come('bob@potters.example', { 'Sec-GPC': '1' })

  await expect.poll(async () => (await board(`file=${file.id}&list=person`)).total.count).toBe(2)
  const { list, names } = await board(`file=${file.id}&list=person`)
  const persons = list.rows.map(({ key }) => (key ? names.person![key]!.title : ''))
  expect(persons.sort()).toEqual(['', 'anne@potters.example'])
  expect((await log('q=anne@potters')).total).toBe(1)

  await openDesk(page, server.url, `/desk/downloads?span=today&list=person&file=${file.id}`)
  await main(page)
    .getByRole('button', { name: /anne@potters\.example/ })
    .click()
  await main(page).getByRole('button', { name: 'Forget who it was' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Forget who it was' }).click()
  await expect(main(page).getByRole('button', { name: /anne@potters\.example/ })).toHaveCount(0)
  const after = await board(`file=${file.id}&list=person`)
  expect([after.total.count, after.list.rows.map(({ key }) => key)]).toEqual([2, ['']])
  expect(JSON.stringify((await log(`file=${file.id}`)).items)).not.toMatch(/"c-/)
})

test('a download says whether it came in pieces and how long it took; a bundle says it of its files', async () => {
  const file = await put('slow.bin', randomBytes(400_000))
  await take(`/files/${file.handle}`, 'whole')
  await take(`/files/${file.handle}`, 'pieces', { Range: 'bytes=0-199999' })
  await wait(300)
  await take(`/files/${file.handle}`, 'pieces', { Range: 'bytes=200000-399999' })
  await expect.poll(async () => (await board(`file=${file.id}&list=course`)).total.count).toBe(2)
  const { items } = await log(`file=${file.id}`)
  const course = Object.fromEntries(items.map(({ keys, took }) => [keys.course, took]))
  expect(Object.keys(course).sort()).toEqual(['pieces', 'whole'])
  expect(course.whole).toBeGreaterThan(0)
  // Two requests with a pause between them.
  expect(course.pieces).toBeGreaterThanOrEqual(300)

  const api = await ownerApi(server.url)
  const [one, other] = [await put('first of two.bin'), await put('second of two.bin')]
  const bundle = await api<{ id: string; handle: string }>('/bundles', {
    method: 'POST',
    json: { title: 'Both of them', files: [one.id, other.id], folders: [] },
  })
  await take(`/files/${bundle.handle}`, 'bundle')
  await take(`/files/${one.handle}`, 'by itself')
  type Row = Board['list']['rows'][number]
  const rowOf = async (id: string): Promise<Row | undefined> => (await board('list=file&most=1000')).list.rows.find(({ key }) => key === id)
  await expect
    .poll(async () => [(await rowOf(bundle.id))?.count, (await rowOf(one.id))?.count, (await rowOf(one.id))?.bundled])
    .toEqual([1, 1, 1])
  expect((await board('list=bundle')).list.rows.find(({ key }) => key === bundle.id)?.count).toBe(1)
})

test('addresses are kept where the owner says so, and wiped when they say no more; pages say which', async ({ page }) => {
  const api = await ownerApi(server.url)
  const words = async () => (await (await fetch(`${server.url}/privacy`)).text()).replace(/\s+/g, ' ')
  const file = await put('kept.bin')
  const addresses = async () => (await log(`file=${file.id}`)).items.map(({ address }) => address)
  expect(await words()).toContain('is not written down')
  await take(`/files/${file.handle}`, 'before')
  await expect.poll(addresses).toEqual([''])

  await openDesk(page, server.url, '/desk/setup')
  await page.getByLabel('Days for which visitors’ addresses are kept').fill('91')
  await page.getByRole('button', { name: 'Save', exact: true }).first().click()
  await expect(page.getByText('Keep addresses for at most 90 days.').first()).toBeVisible()
  await page.getByLabel('Days for which visitors’ addresses are kept').fill('30')
  await page.getByRole('button', { name: 'Save', exact: true }).first().click()
  await expect(page.getByText('Saved.').first()).toBeVisible()
  expect(await words()).toContain('for 30 days, and then wiped')
  await take(`/files/${file.handle}`, 'after')
  await take(`/files/${file.handle}`, 'nobody', { DNT: '1' })
  await expect.poll(async () => (await addresses()).toSorted()).toEqual(['', '', '127.0.0.1'])

  await api('/site', { method: 'PUT', json: { keepAddresses: 0 } })
  expect(await words()).toContain('is not written down')
  // What is tidied each hour is tidied when a process starts.
  await server.stop()
  server = await startServer(server.data)
  await expect.poll(addresses).toEqual(['', '', ''])
})

test('privacy words are put on a page by key, and follow how long contacts are kept', async ({ page }) => {
  const api = await ownerApi(server.url)
  await openDesk(page, server.url)
  await newPage(page, 'Small print')
  await page.keyboard.type('/privacy words')
  await expect(page.getByRole('option', { name: /Privacy words/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await expect(page.locator('.privacy-view')).toContainText('This site loads nothing from other companies')
  await page.getByRole('button', { name: 'Publish' }).click()
  const words = async () => (await (await fetch(`${server.url}/small-print`)).text()).replace(/\s+/g, ' ')
  await expect.poll(words).toContain('until you ask for it to be erased')
  await api('/contacts/rules', { method: 'PUT', json: { keepDays: 400 } })
  expect(await words()).toContain('when nothing was heard of you for 400 days')
})
