import { readFile } from 'node:fs/promises'
import { expect, test, type Browser } from '@playwright/test'
import { VISITOR } from '../playwright.config'
import { dropFiles, realPdf, sha256, type RealFile } from './support/files'
import { newPage, openDesk, openPage } from './support/owner'
import { EACH_LOOK, sendAt } from './support/pace'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
let pdf: RealFile
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  pdf = await realPdf()
})
test.afterAll(() => server.remove())

/** Somebody else, in an ordinary browser: headless ones are counted as robots. */
const newVisitor = async (browser: Browser, mark = '') =>
  (await browser.newContext({ acceptDownloads: true, userAgent: VISITOR + mark })).newPage()

/** The most actions a new file may take from the open desk to a live button. */
const MOST_ACTIONS = 5

test('by mouse: a PDF on the computer becomes a live button that gives a visitor its bytes', async ({ page, browser }) => {
  await openDesk(page, server.url)
  let actions = 0
  await test.step('open the page', async () => {
    actions++
    await openPage(page, 'Trade')
  })
  await test.step('drop the file on its spot', async () => {
    actions++
    const heading = await page.locator('.ProseMirror h2', { hasText: 'Delivery' }).boundingBox()
    await dropFiles(page, [pdf], '.ProseMirror', { x: heading!.x + 40, y: heading!.y - 2 })
  })
  await expect(page.locator('.button-view.selected')).toContainText(/K90 manual\s*PDF, \d+ kB/)
  await test.step('publish', async () => {
    actions++
    await page.getByRole('button', { name: 'Publish “Trade”' }).click()
  })
  // The demo's own slip on this page: a button without a file holds publishing back until it is seen.
  await expect(page.getByRole('dialog')).toContainText('Trade account form')
  actions++
  await page.getByRole('button', { name: 'Publish all the same' }).click()
  await expect(page.getByText('“Trade” is live.')).toBeVisible()
  expect(actions).toBeLessThanOrEqual(MOST_ACTIONS)

  const visitor = await newVisitor(browser)
  await visitor.goto(`${server.url}/trade`)
  const link = visitor.getByRole('link', { name: /K90 manual/ })
  // It stands where it was dropped: before the heading.
  expect(await link.evaluate(element => element.closest('p')!.nextElementSibling!.textContent)).toBe('Delivery')
  const response = await visitor.request.get(server.url + (await link.getAttribute('href')))
  expect(response.headers()['content-type']).toBe('application/pdf')
  expect(sha256(await response.body())).toBe(sha256(pdf.buffer))
})

test("a visitor's click saves the very bytes, under the chosen name, and is counted on file and button", async ({ page, browser }) => {
  await openDesk(page, server.url)
  await openPage(page, 'Trade')
  await page.locator('.button-view', { hasText: 'K90 manual' }).locator('.tr-button').click()
  const note = page.getByRole('region', { name: 'Settings of this button' })
  await note.getByLabel('Save', { exact: true }).check()
  await note.getByLabel('Saved as').fill('Marlpit K90')
  await expect(page.getByRole('status').first()).toHaveText('Saved')
  await page.getByRole('button', { name: 'Publish “Trade”' }).click()
  await page.getByRole('button', { name: 'Publish all the same' }).click()
  await expect(page.getByText('“Trade” is live.')).toBeVisible()

  // Somebody else than the one before: of one visitor's clicks within 30 seconds one counts.
  const visitor = await newVisitor(browser, ' Another/1.0')
  await visitor.goto(`${server.url}/trade`)
  const [download] = await Promise.all([visitor.waitForEvent('download'), visitor.getByRole('link', { name: /K90 manual/ }).click()])
  expect(download.suggestedFilename()).toBe('Marlpit K90.pdf')
  expect(sha256(await readFile(await download.path()))).toBe(sha256(pdf.buffer))

  await expect(async () => {
    await page.reload()
    await page.locator('.button-view', { hasText: 'K90 manual' }).locator('.tr-button').click({ timeout: EACH_LOOK })
    // The visitor before, and this one.
    await expect(note.getByText('2 downloads from here')).toBeVisible({ timeout: EACH_LOOK })
  }).toPass()
})

test('published while its file is still on the way, a page goes live when that is in, and by itself', async ({ page, browser }) => {
  await openDesk(page, server.url)
  await newPage(page, 'On the way')
  await sendAt(page, 20_000)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.keyboard.press('Control+u')])
  await chooser.setFiles({ name: 'on-its-way-2026-11.bin', mimeType: 'application/octet-stream', buffer: Buffer.alloc(3_000_000, 7) })
  await expect(page.locator('.button-view')).toHaveCount(1)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('Goes live when its file is in')).toBeVisible()
  await expect(page.getByText('leads nowhere')).toHaveCount(0)
  await sendAt(page)
  await expect(page.getByText('“On the way” is live.')).toBeVisible()
  const visitor = await newVisitor(browser)
  await visitor.goto(`${server.url}/on-the-way`)
  const href = await visitor.locator('main a.tr-button').getAttribute('href')
  expect((await (await visitor.request.get(server.url + href)).body()).length).toBe(3_000_000)
})

test('by keyboard alone: the same, in as many actions', async ({ page }) => {
  await openDesk(page, server.url)
  const other = await realPdf('K120 manual.pdf')
  // Listened for from the start: a key press is quicker than the browser's being told to hand choosers over.
  const chooser = page.waitForEvent('filechooser')
  let actions = 0
  const act = async (work: () => Promise<unknown>) => {
    actions++
    await work()
  }
  await act(() => page.keyboard.press('Control+k'))
  await act(async () => {
    await page.keyboard.type('clay &')
    await expect(page.getByRole('option', { name: /Clay & glaze/ })).toHaveAttribute('aria-selected', 'true')
    await page.keyboard.press('Enter')
  })
  await expect(page.getByRole('textbox', { name: 'The page', exact: true })).toBeFocused()
  await act(() => page.keyboard.press('Control+u'))
  await act(async () => (await chooser).setFiles(other))
  await expect(page.locator('.button-view.selected')).toContainText(/K120 manual\s*PDF, \d+ kB/)
  await act(() => page.keyboard.press('Control+Enter'))
  await expect(page.getByText('“Clay & glaze” is live.')).toBeVisible()
  expect(actions).toBeLessThanOrEqual(MOST_ACTIONS)
  const [live] = await Promise.all([page.context().waitForEvent('page'), page.keyboard.press('Control+Shift+Enter')])
  const href = await live.getByRole('link', { name: /K120 manual/ }).getAttribute('href')
  expect(sha256(await (await live.request.get(server.url + href)).body())).toBe(sha256(other.buffer))
})
