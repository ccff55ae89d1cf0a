import { expect, test } from '@playwright/test'
import { choose, openDesk, openFolder, openPage, row, showInLibrary } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'

test('a button shows what is in a file first; without script its words are found, its pages leafed through, it is taken; and the owner says where nobody looks', async ({
  page,
  browser,
}) => {
  await openDesk(page, server.url)
  await openPage(page, 'Kilns')
  const button = page.locator('.ProseMirror .tr-card', { hasText: 'K60' }).locator('.tr-button')
  await button.click()
  const note = page.getByRole('region', { name: 'Settings of this card' })
  await note.getByRole('radio', { name: 'Look', exact: true }).check()
  await page.getByRole('button', { name: /^Publish/ }).click()
  await expect(page.getByText('“Kilns” is live.')).toBeVisible()

  const context = await browser.newContext({ javaScriptEnabled: false, userAgent: BROWSER })
  const visitor = await context.newPage()
  await visitor.goto(`${server.url}/kilns`)
  await visitor
    .getByRole('link', { name: /K60.*a look at it first/ })
    .first()
    .click()
  await expect(visitor).toHaveURL(/\/see\/marlpit-k60-manual\.pdf\?at=[a-z0-9]+$/)
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('K60 kiln manual')
  const picture = visitor.getByRole('img', { name: /^Page 1 of/ })
  await expect.poll(() => picture.evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth)).toBeGreaterThan(600)

  await visitor.getByRole('searchbox', { name: 'Find in this file' }).fill('thermocouple')
  await visitor.keyboard.press('Enter')
  await expect(visitor.getByRole('region', { name: /Where “thermocouple” stands/ })).toBeVisible()
  const places = visitor.locator('.tr-found a')
  const [first, second] = await places.allTextContents()
  await expect(visitor.getByRole('img', { name: `${first} of K60` })).toBeVisible()
  await expect(visitor.locator('.tr-marks rect')).not.toHaveCount(0)
  if (second) {
    await places.nth(1).click()
    await expect(visitor.getByRole('img', { name: `${second} of K60` })).toBeVisible()
  }
  await visitor.getByRole('spinbutton', { name: 'Page' }).fill('5')
  await visitor.getByRole('button', { name: 'Go' }).click()
  await expect(visitor.getByText('Page 5 of 15', { exact: true })).toBeVisible()
  await visitor.getByRole('link', { name: 'Next page' }).first().click()
  await expect(visitor.getByText('Page 6 of 15', { exact: true })).toBeVisible()

  const [download] = await Promise.all([visitor.waitForEvent('download'), visitor.getByRole('link', { name: /^Download/ }).click()])
  expect(download.suggestedFilename()).toBe('Marlpit K60 manual.pdf')
  await context.close()
  // It was come by the button: there it is counted.
  await page.reload()
  await button.click()
  await expect(note.getByText(/downloads? from here/)).toContainText(/[1-9]/)

  const statusOf = async (name: string) => (await page.request.get(`${server.url}/see/${name}`)).status()
  await openFolder(page, 'Kilns')
  await page.getByRole('button', { name: 'Settings of Kilns' }).click()
  const dialog = page.getByRole('dialog')
  await choose(dialog, 'Before visitors take a file of it', 'They do not see what is in it')
  await dialog.getByRole('button', { name: 'Save' }).click()
  await expect.poll(() => statusOf('marlpit-k60-manual.pdf')).toBe(404)
  await showInLibrary(page, 'K60 kiln manual')
  await row(page, 'K60 kiln manual').getByRole('link').first().click()
  await choose(page, 'Before visitors take it', 'They may look at what is in it')
  await expect.poll(() => statusOf('marlpit-k60-manual.pdf')).toBe(200)
  expect(await statusOf('marlpit-k100-manual-2026-09.pdf')).toBe(404)
})
