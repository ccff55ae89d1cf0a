import { randomBytes } from 'node:crypto'
import { connect } from 'node:net'
import { expect, test, type Page } from '@playwright/test'
import type { Board, DownloadsLog } from '../core/tally/board'
import { violations } from './support/axe'
import { choose, openDesk, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { cookieOf, upload } from './support/upload'
import { VISITOR } from '../playwright.config'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const SIZE = 4_000_000
const board = async (query: string) => (await ownerApi(server.url))<Board>(`/downloads/board?${query}`)
const log = async (query: string) => (await ownerApi(server.url))<DownloadsLog>(`/downloads/log?span=today&${query}`)
const main = (page: Page) => page.locator('.margin-board')

/** Reads some of a file, and is gone. */
const breakOff = (path: string) =>
  new Promise<void>(resolve => {
    const socket = connect(server.port, '127.0.0.1', () =>
      socket.write(`GET ${path} HTTP/1.1\r\nHost: x\r\nUser-Agent: ${VISITOR}\r\n\r\n`),
    )
    socket.once('data', () => socket.destroy())
    socket.on('close', () => resolve())
  })

test('what is whole is counted once, with where it came from; what is not, or is nobody’s, is not', async () => {
  const api = await ownerApi(server.url)
  const id = await upload(server.url, 'taken.bin', randomBytes(SIZE))
  const { handle } = await api<{ handle: string }>(`/files/${id}`)
  const address = `${server.url}/files/${handle}`
  const ask = async (more: Record<string, string> = {}, url = address, method = 'GET') =>
    (await fetch(url, { method, headers: { 'User-Agent': VISITOR, 'Accept-Language': 'fr-FR,fr;q=0.8', ...more } })).arrayBuffer()

  // A whole one, from a page of another site, by a campaign.
  await ask({ Referer: 'https://www.kilnclub.example/links?secret=1' }, `${address}?from=Newsletter-2026-11`)
  // One click too many; right after, since it would be one of its own half a minute later.
  await ask()
  // Another visitor, in four pieces side by side, over connections of their own (RFC 9110, section 14).
  const pieces = [0, 1, 2, 3].map(part => `bytes=${part * (SIZE / 4)}-${(part + 1) * (SIZE / 4) - 1}`)
  await Promise.all(pieces.map(Range => ask({ Range, 'User-Agent': `${VISITOR} in pieces` })))
  // One who asked not to be followed (Global Privacy Control).
  await ask({ 'Sec-GPC': '1', 'User-Agent': `${VISITOR} of nobody` })
  // None of a visitor's: broken off, only asked after, fetched ahead, a robot's, the owner's own.
  await breakOff(`/files/${handle}`)
  await ask({}, address, 'HEAD')
  await ask({ 'Sec-Purpose': 'prefetch', 'User-Agent': `${VISITOR} ahead` })
  await ask({ 'User-Agent': 'examplebot/2.1 (+http://bot.example/)' })
  await ask({ 'Cookie': await cookieOf(server.url), 'User-Agent': `${VISITOR} of mine` })

  await expect.poll(async () => (await board(`span=today&file=${id}`)).total.count).toBe(3)
  const { items, names } = await log(`file=${id}`)
  expect(names.file![id]!.title).toBe('Taken')
  const told = items.find(({ keys }) => keys.campaign)!
  expect(told).toMatchObject({
    count: 1,
    bytes: SIZE,
    referrerPath: '/links',
    keys: { campaign: 'newsletter-2026-11', referrer: 'kilnclub.example' },
  })
  expect(told.keys).toMatchObject({ language: 'fr', device: 'computer', system: 'Linux', country: '', edition: '1' })
  // Nothing of who it was, and nothing at all of one who did not want it.
  expect(JSON.stringify(items)).not.toMatch(/127\.0\.0\.1|secret|Mozilla/)
  expect(items.filter(({ keys }) => keys.device === '' && keys.browser === '' && keys.country === '')).toHaveLength(1)
})

test('a board is read, narrowed and gone back from; each download stands in the log as it comes', async ({ page, browser }) => {
  await openDesk(page, server.url)
  await page.getByRole('button', { name: 'Account and setup' }).click()
  await page.getByRole('menuitem', { name: 'Downloads' }).click()
  await expect(main(page).getByRole('heading', { name: 'What was taken' })).toBeVisible()
  await choose(main(page), 'Which time', 'Last 90 days')
  const whole = (await board('span=90')).total.count
  const sum = main(page).locator('.sum b')
  const words = (count: number) => `${count.toLocaleString('en')} downloads`
  await expect(sum).toHaveText(words(whole))
  expect(whole).toBeGreaterThan(500)

  // What is chosen has its particulars beside it, and can be shown alone.
  await main(page)
    .getByRole('button', { name: /^Class joining form/ })
    .click()
  const particulars = main(page).getByRole('region', { name: 'Downloads: Class joining form' })
  await expect(particulars.getByText('Which edition')).toBeVisible()
  await particulars.getByRole('button', { name: 'Show this alone' }).click()
  await expect(main(page).locator('.narrowed')).toContainText('Class joining form')
  await expect(sum).toHaveText(words((await board(`span=90&file=${new URL(page.url()).searchParams.get('file')}`)).total.count))
  await page.goBack()
  await expect(main(page).locator('.narrowed')).toHaveCount(0)
  await expect(sum).toHaveText(words(whole))

  // Days are typed; what is no day yet changes nothing.
  const { firstDay, lastDay } = (await board('span=30')).span
  await choose(main(page), 'Which time', 'From one day to another')
  await main(page).getByLabel('First day').fill('2026-02-3')
  await expect(main(page).getByLabel('First day')).toHaveValue('2026-02-3')
  await main(page).getByLabel('First day').fill(firstDay)
  await main(page).getByLabel('Last day').fill(lastDay)
  await expect(sum).toHaveText(words((await board('span=30')).total.count))
  await choose(main(page), 'Which time', 'Last 90 days')
  await expect(sum).toHaveText(words(whole))

  // By another list, told apart in the bars, told in numbers as well.
  await choose(main(page), 'By what the list is made', 'by country')
  await expect(main(page).getByRole('button', { name: 'United Kingdom' })).toBeVisible()
  await choose(main(page), 'How bars are told apart', 'Bars by device')
  await main(page).getByRole('button', { name: 'The same in numbers' }).click()
  const numbers = main(page).getByRole('region', { name: 'Downloads over time in numbers' })
  const { stacks } = await board('span=90&stack=device')
  const devices = stacks.map(({ key }) => (key ? key[0]!.toUpperCase() + key.slice(1) : 'Device not known'))
  await expect(numbers.getByRole('columnheader')).toHaveText(['When', ...devices])
  const cells = (await numbers.getByRole('cell').allTextContents()).map(text => Number(text.replace(',', '')))
  expect(cells.reduce((sum, each) => sum + each, 0)).toBe(whole)

  // As it comes.
  await main(page).getByRole('button', { name: 'Log', exact: true }).click()
  const first = main(page).locator('tbody tr').first()
  await expect(first).toBeVisible()
  const visitor = await (await browser.newContext({ javaScriptEnabled: false, locale: 'nl' })).newPage()
  await visitor.goto(`${server.url}/classes`)
  const download = visitor.waitForEvent('download')
  await visitor
    .getByRole('link', { name: /Joining form/ })
    .first()
    .click()
  await (await download).path()
  await expect(first).toContainText('on Classes')
  await expect(first).toContainText('Dutch')
  await visitor.context().close()
})

test('an address for a letter is made from a file, and what comes by it stands under its name', async ({ page }) => {
  await openDesk(page, server.url)
  const { items } = await (await ownerApi(server.url))<{ items: { id: string; handle: string }[] }>('/files?q=joining form')
  await page.goto(`${server.url}/desk/files/${items[0]!.id}`)
  await page.getByRole('button', { name: 'For a letter or a poster' }).click()
  await page.getByLabel('What it is called').fill('=Spring')
  await expect(page.getByText('Use letters, digits, dots and hyphens.')).toBeVisible()
  await page.getByLabel('What it is called').fill('Spring letter 2027')
  const line = page.locator('.copy-line', { hasText: 'Counted as “spring-letter-2027”' })
  const address = new URL((await line.locator('code').textContent())!)
  await (await fetch(server.url + address.pathname + address.search, { headers: { 'User-Agent': `${VISITOR} by letter` } })).arrayBuffer()
  await expect.poll(async () => (await board('span=today&campaign=spring-letter-2027')).total.count).toBe(1)
})

test('bars are as tall as their numbers', async ({ page }) => {
  await openDesk(page, server.url)
  // Whole weeks: the one under way may have nothing yet.
  const weeks = (await board('span=90&unit=week')).bars
  const dayOf = (seconds: number) => new Date(seconds * 1000).toISOString().slice(0, 10)
  const view = `span=days&from=${dayOf(weeks[1]!.at + 43_200)}&to=${dayOf(weeks.at(-1)!.at - 43_200)}&unit=week`
  await page.goto(`${server.url}/desk/downloads?${view}`)
  const canvas = main(page).locator('canvas')
  await expect(canvas).toBeVisible()
  const { bars } = await board(view)
  /** Points of the colour of bars in each column of the picture, as stretches of columns that have some. */
  const heights = () =>
    canvas.evaluate((element: HTMLCanvasElement) => {
      const { data, width, height } = element.getContext('2d')!.getImageData(0, 0, element.width, element.height)
      const columns = Array.from({ length: width }, (_, x) => {
        let points = 0
        for (let y = 0; y < height; y++) {
          const at = (y * width + x) * 4
          if (data[at] === 0x0e && data[at + 1] === 0x6a && data[at + 2] === 0x68) points++
        }
        return points
      })
      return columns.reduce<number[]>((found, points, x) => {
        if (points && !columns[x - 1]) found.push(points)
        else if (points) found[found.length - 1] = Math.max(found.at(-1)!, points)
        return found
      }, [])
    })
  await expect.poll(async () => (await heights()).length).toBe(bars.length)
  const drawn = await heights()
  const tallest = Math.max(...drawn) / Math.max(...bars.map(({ count }) => count))
  bars.forEach(({ count }, place) => expect(Math.abs(drawn[place]! - count * tallest)).toBeLessThan(4))
})

test('what was seen and looked at, what robots took and what visitors missed stands beside what was taken', async ({ page }) => {
  const api = await ownerApi(server.url)
  const pages = await api<{ items: { id: string; slug: string }[] }>('/pages')
  const guides = pages.items.find(({ slug }) => slug === 'guides')!.id
  const { items } = await api<{ items: { id: string; handle: string }[] }>('/files?q=K200 kiln manual')
  const manual = items[0]!
  const seen = async (list: string, key: string) => {
    const rows = (await board(`span=today&list=${list}&most=1000`)).list.rows as { key: string; seen?: number; robots?: number }[]
    return rows.find(row => row.key === key)
  }
  const misses = () =>
    api<Record<'missing' | 'unfound' | 'stopped', { key: string; count: number; from?: { key: string }[] }[]>>(
      '/downloads/misses?span=today',
    )
  const countOf = async (kind: 'missing' | 'unfound' | 'stopped', key: string) => (await misses())[kind].find(row => row.key === key)?.count
  const visit = (path: string, { as = 'one', ...headers }: Record<string, string> = {}, method = 'GET') =>
    fetch(server.url + path, { method, headers: { 'User-Agent': `${VISITOR} ${as}`, ...headers }, redirect: 'manual' }).then(answer =>
      answer.arrayBuffer().then(() => answer),
    )

  // Something is taken from the page and of the manual, so that both stand in the list.
  await visit(`/files/${manual.handle}`, { Referer: `${server.url}/guides` })
  await expect.poll(async () => (await seen('page', guides))?.key).toBe(guides)
  const before = (await seen('page', guides))?.seen ?? 0
  const [robotsBefore, lookedBefore] = [(await seen('file', manual.id))?.robots ?? 0, (await seen('file', manual.id))?.seen ?? 0]

  const { items: gated } = await api<{ items: { id: string; handle: string; title: string }[] }>('/files?q=Trade price list')
  const trade = gated.find(({ title }) => title === 'Trade price list')!
  const stoppedBefore = (await countOf('stopped', trade.id)) ?? 0

  const first = await visit('/guides')
  await visit('/guides')
  // Asked again whether it is still the same, by somebody else: it is seen all the same (304).
  expect((await visit('/guides', { 'as': 'another', 'If-None-Match': first.headers.get('etag')! })).status).toBe(304)
  // Fetched ahead, not read, by a robot, and by its owner.
  await visit('/guides', { 'as': 'ahead', 'Sec-Purpose': 'prefetch' })
  await visit('/guides', { as: 'head' }, 'HEAD')
  await visit('/guides', { 'User-Agent': 'Examplebot/1.0 (bot)' })
  await visit('/guides', { as: 'owner', cookie: await cookieOf(server.url) })
  await visit(`/see/${manual.handle}`)
  await visit(`/see/${manual.handle}?page=2`)
  await visit(`/files/${manual.handle}`, { 'User-Agent': 'Examplebot/1.0 (bot)' })
  for (const as of ['one', 'two', 'three', 'four', 'five'])
    expect((await visit('/once/was/here', { as, Referer: 'https://www.kilnclub.example/links?who=me' })).status).toBe(404)
  await visit('/apple-touch-icon.png')
  await visit('/for/Zm9yLXNvbWVib2R5LW9ubHk')
  await visit('/pass/come-in/c29tZWJvZHkncyBvbmx5')
  await visit('/shelves/find?q=Zzqx+kiln')
  await visit('/shelves/find?q=kiln')
  expect((await visit(`/files/${trade.handle}`)).status).toBe(403)
  await visit(`/files/${trade.handle}`)

  await expect.poll(async () => (await seen('page', guides))?.seen).toBe(before + 2)
  await expect.poll(async () => (await seen('file', manual.id))?.seen).toBe(lookedBefore + 1)
  await expect.poll(async () => (await seen('file', manual.id))?.robots).toBe(robotsBefore + 1)
  await expect.poll(() => countOf('missing', '/once/was/here')).toBe(5)
  await expect.poll(() => countOf('unfound', 'zzqx kiln')).toBe(1)
  await expect.poll(() => countOf('stopped', trade.id)).toBe(stoppedBefore + 1)
  const { missing, unfound } = await misses()
  expect(missing.find(({ key }) => key === '/once/was/here')!.from!.map(({ key }) => key)).toEqual(['kilnclub.example/links'])
  const addresses = missing.map(({ key }) => key)
  expect(addresses).not.toContain('/apple-touch-icon.png')
  // What was sent to somebody alone is told to nobody.
  expect(addresses).toContain('/for/…')
  expect(addresses.join(' ')).not.toMatch(/Zm9y|c29t/)
  expect(unfound.map(({ key }) => key)).not.toContain('kiln')

  // What waits to be written is written when the process ends by itself.
  await visit('/guides', { as: 'late' })
  await server.stop()
  server = await startServer(server.data)
  await expect.poll(async () => (await seen('page', guides))?.seen).toBe(before + 3)

  await openDesk(page, server.url, '/desk/downloads?span=today')
  await main(page).getByRole('button', { name: 'Missed' }).click()
  await expect(main(page).getByRole('row', { name: /\/once\/was\/here 5 kilnclub\.example\/links/ })).toBeVisible()
  await expect(main(page).getByRole('row', { name: /zzqx kiln 1/ })).toBeVisible()
  await page.goto(`${server.url}/desk/checks`)
  const vain = page.getByRole('region', { name: 'Asked for in vain' })
  await expect(vain.getByRole('listitem').filter({ hasText: '/once/was/here' })).toContainText(
    '5 times, followed on kilnclub.example/links',
  )
  await vain.getByRole('link', { name: 'All that was missed' }).press('Enter')
  await expect(page).toHaveURL(/downloads\?.*show=misses/)
})

test('a button is shown on the board as visitors see it', async ({ page }) => {
  await openDesk(page, server.url, '/desk/downloads?span=90&list=placement')
  const rows = page.getByRole('region', { name: /^Downloads by button/ })
  await rows.getByRole('button', { name: /^Timetable, winter 2027/ }).click()
  const drawn = page.frameLocator('iframe[title="As visitors see it"]')
  await expect(drawn.getByRole('link', { name: /Timetable, winter 2027/ })).toBeVisible()
  // By itself, and as tall as it is.
  await expect(drawn.getByRole('link')).toHaveCount(1)
  const tall = async () => (await page.locator('iframe[title="As visitors see it"]').boundingBox())!.height
  await expect.poll(async () => (await drawn.locator('body').evaluate(body => body.scrollHeight)) - (await tall())).toBe(0)
  expect(await tall()).toBeGreaterThan(40)
})

test('a view that is none shows the usual one; what could not be meant is refused', async ({ page }) => {
  await openDesk(page, server.url, '/desk/downloads?span=ever&from=yesterday&unit=year&list=shoe')
  await expect(main(page).locator('.sum')).toBeVisible()
  for (const bad of [
    'span=days&from=2026-02-30',
    'span=days&to=9999-12-31',
    'most=0',
    'limit=1e9',
    `file=${'x'.repeat(300)}`,
    'list=;drop',
  ])
    expect((await fetch(`${server.url}/api/downloads/board?${bad}`, { headers: { cookie: await cookieOf(server.url) } })).status, bad).toBe(
      bad.startsWith('limit') ? 200 : 422,
    )
  for (const odd of ["file=' or 1=1 --", 'country=%3Cscript%3E', 'page=%F0%9F%98%80'])
    expect((await fetch(`${server.url}/api/downloads/board?${odd}`, { headers: { cookie: await cookieOf(server.url) } })).status, odd).toBe(
      200,
    )
})

for (const width of [1280, 390])
  test(`downloads are accessible at ${width} px`, async ({ page }) => {
    await openDesk(page, server.url)
    await page.setViewportSize({ width, height: 800 })
    for (const [query, there] of [
      ['span=30&stack=file', 'What was taken'],
      ['span=90&list=page', 'took it'],
      ['show=log', 'the newest first'],
      ['show=misses&span=90', 'Looked for and not found'],
    ]) {
      await page.goto(`${server.url}/desk/downloads?${query}`)
      await main(page).getByText(there!).first().waitFor()
      if (!query!.startsWith('show=')) await main(page).locator('tbody').last().getByRole('button').first().click()
      expect(await violations(page, '.margin-board'), query).toEqual([])
    }
  })
