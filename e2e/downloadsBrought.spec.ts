import { expect, test, type Page } from '@playwright/test'
import type { Board } from '../core/tally/board'
import { violations } from './support/axe'
import { choose, openDesk, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { cookieOf } from './support/upload'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const board = async (query: string) => (await ownerApi(server.url))<Board>(`/downloads/board?${query}`)
const main = (page: Page) => page.locator('.margin-board')
const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'

test('a log of before is looked at, brought in, told apart in the bars, and taken out again', async ({ page }) => {
  const { items } = await (await ownerApi(server.url))<{ items: { handle: string }[] }>('/files?q=joining form')
  const line = (hour: string, address: number, path: string, agent = BROWSER) =>
    `192.0.2.${address} - - [04/Mar/2024:${hour}:00:00 +0000] "GET ${path} HTTP/1.1" 200 5000 "-" "${agent}"`
  const file = `/files/${items[0]!.handle}`
  const lines = [
    line('08', 1, file),
    line('09', 2, file),
    line('10', 3, file),
    line('10', 4, file, 'Examplebot/1.0'),
    line('11', 5, '/gone.html'),
  ]
  const before = (await board('span=all')).total.count

  await openDesk(page, server.url, '/desk/downloads')
  await main(page).getByRole('button', { name: 'Numbers of before Trough…' }).click()
  await page
    .locator('input[type=file]')
    .last()
    .setInputFiles({ name: 'old site.log', mimeType: 'text/plain', buffer: Buffer.from(lines.join('\n')) })
  await expect(main(page).getByText('3 downloads of 2024-03-04 in 5 lines.')).toBeVisible()
  await expect(main(page).getByRole('listitem').filter({ hasText: '1 line: robots' })).toBeVisible()
  await main(page).getByRole('button', { name: 'Bring 3 downloads in' }).click()
  await expect(main(page).getByRole('row', { name: /old site\.log/ })).toContainText('3')
  expect((await board('span=all')).total.count).toBe(before + 3)
  expect(await violations(page, '.margin-board')).toEqual([])

  // The same once more is refused, with words; and is no log at all.
  await page
    .locator('input[type=file]')
    .last()
    .setInputFiles({ name: 'again.log', mimeType: 'text/plain', buffer: Buffer.from(lines.join('\n')) })
  await expect(main(page).getByRole('alert')).toContainText('This came in already, as “old site.log”')
  await page
    .locator('input[type=file]')
    .last()
    .setInputFiles({ name: 'picture.png', mimeType: 'image/png', buffer: Buffer.from('\x89PNG nothing') })
  await expect(main(page).getByRole('alert')).toContainText('This is no file of numbers that is known.')

  await page.goto(`${server.url}/desk/downloads?span=all&stack=source`)
  await main(page).getByRole('button', { name: 'The same in numbers' }).click()
  await expect(main(page).getByRole('columnheader', { name: 'old site.log' })).toBeVisible()
  await page.goto(`${server.url}/desk/downloads?show=brought`)
  await main(page).getByRole('button', { name: 'Take the numbers of old site.log out again' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Take them out' }).click()
  await expect(main(page).getByText('Nothing of before has been brought in.')).toBeVisible()
  expect((await board('span=all')).total.count).toBe(before)
})

test('a summary is asked for, written at once, and read in the outbox', async ({ page }) => {
  await openDesk(page, server.url, '/desk/downloads')
  await main(page).getByRole('button', { name: 'Told by message' }).click()
  const form = main(page).getByRole('form', { name: 'Summary by message' })
  await choose(form, 'How often', 'On the first of a month, of the month before')
  await form.getByLabel('To').fill('nobody')
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(form.getByText('Give an e-mail address, such as shop@example.com.').first()).toBeVisible()
  await form.getByLabel('To').fill('books@marlpit.example')
  await form.getByRole('button', { name: 'Save' }).click()
  await form.getByRole('button', { name: 'Send one of the last month now' }).click()
  await expect(page.getByText('Written. It stands in the outbox.')).toBeVisible()
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string; to: string }[] }>('/outbox?from=0&limit=5')
  const mine = items.find(({ to }) => to === 'books@marlpit.example')!
  const { text } = await api<{ text: string }>(`/outbox/${mine.id}`)
  const [, firstDay, lastDay] = /From (\S+) to (\S+):/.exec(text)!
  const { total } = await board(`span=days&from=${firstDay}&to=${lastDay}`)
  expect(text).toContain(`${total.count.toLocaleString('en')} downloads, `)
  expect(text).toContain('Most taken: “')
})

test('countries are drawn as dark as they are many, and the library stands in the order of what was taken', async ({ page }) => {
  await openDesk(page, server.url, '/desk/downloads?span=90&list=country')
  const canvas = main(page).locator('.map canvas')
  await expect(canvas).toBeVisible()
  /** Points of a colour in the picture. */
  const points = (colour: string) =>
    canvas.evaluate((element: HTMLCanvasElement, wanted) => {
      const { data } = element.getContext('2d')!.getImageData(0, 0, element.width, element.height)
      let found = 0
      for (let at = 0; at < data.length; at += 4) if (`${data[at]},${data[at + 1]},${data[at + 2]}` === wanted) found++
      return found
    }, colour)
  // The darkest is the United Kingdom's, the palest of all those of none.
  await expect.poll(() => points('8,63,62')).toBeGreaterThan(20)
  await expect.poll(() => points('227,234,232')).toBeGreaterThan(5000)

  const { rows } = (await board('span=30&list=file')).list
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string; taken: number }[] }>('/files?sort=-taken30&limit=3')
  // Files taken equally often may stand in either order.
  expect(items.map(({ taken }) => taken)).toEqual(rows.slice(0, 3).map(({ count }) => count))
  expect(items.map(({ id }) => rows.find(({ key }) => key === id)?.count)).toEqual(items.map(({ taken }) => taken))
})

test('kill -9 while a log comes in: nothing of it is left after the restart, and it comes in whole then', async () => {
  // Tens of thousands of downloads, one and a half times.
  test.setTimeout(900_000)
  const { items } = await (await ownerApi(server.url))<{ items: { handle: string }[] }>('/files?q=joining form')
  const many = 30_000
  const moment = (index: number) => {
    const [, day, month, year, time] = new Date(Date.UTC(2023, 0, 1) + index * 60_000).toUTCString().split(' ')
    return `${day}/${month}/${year}:${time} +0000`
  }
  const text = Array.from(
    { length: many },
    (_, index) =>
      `192.0.${index % 200}.${index % 250} - - [${moment(index)}] "GET /files/${items[0]!.handle} HTTP/1.1" 200 5000 "-" "${BROWSER}"`,
  ).join('\n')
  const total = async () => (await board('span=all')).total.count
  const before = await total()
  const bring = async () => {
    const cookie = await cookieOf(server.url)
    return fetch(`${server.url}/api/downloads/imports?name=long.log`, {
      method: 'POST',
      body: text,
      headers: { cookie, origin: server.url },
    })
  }
  const cut = bring().catch(() => undefined)
  // Some of it is there.
  await expect.poll(async () => (await total()) - before, { intervals: [250] }).toBeGreaterThan(0)
  await server.stop('SIGKILL')
  expect((await cut)?.ok).not.toBe(true)
  server = await startServer(server.data)
  await expect.poll(total).toBe(before)
  const answer = (await (await bring()).json()) as { item: { id: string; downloads: number } }
  expect(answer.item.downloads).toBe(many)
  expect(await total()).toBe(before + many)
  await (
    await ownerApi(server.url)
  )(`/downloads/imports/${answer.item.id}`, { method: 'DELETE' })
  expect(await total()).toBe(before)
})
