import { expect, test } from '@playwright/test'
import { add, newPage, openDesk } from './support/owner'
import { EACH_LOOK } from './support/pace'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'

test('a search field on a page finds files by words inside, without script, in an address that can be passed on', async ({
  page,
  browser,
}) => {
  await openDesk(page, server.url)
  await newPage(page, 'Ask the shelves')
  await add(page, 'Search field')
  const note = page.getByRole('region', { name: 'Settings of this search field' })
  await note.getByLabel('Says of itself').fill('What are you after?')
  await note.getByRole('button', { name: 'Only some folders…' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByText('Kilns', { exact: true }).first().click()
  await dialog.getByRole('button', { name: 'Look through it' }).click()
  await expect(note.getByText('Looks through what visitors may have in')).toBeVisible()
  await page.getByRole('button', { name: /^Publish/ }).click()
  await expect(page.getByText('“Ask the shelves” is live.')).toBeVisible()

  const context = await browser.newContext({ javaScriptEnabled: false, userAgent: BROWSER })
  const visitor = await context.newPage()
  await visitor.goto(`${server.url}/ask-the-shelves`)
  await visitor.getByRole('searchbox', { name: 'What are you after?' }).fill('thermocouple')
  await visitor.keyboard.press('Enter')
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('Files with “thermocouple”')
  const hits = visitor.locator('.tr-hit')
  const all = await hits.count()
  expect(all).toBeGreaterThan(2)
  await expect(hits.filter({ hasText: 'K60 kiln manual' }).locator('mark').first()).toHaveText(/thermocouple/i)

  // Narrowed, in another order, and passed on.
  await visitor.getByText('Narrow it down').click()
  await visitor.getByRole('link', { name: 'manual', exact: true }).click()
  await visitor.getByRole('link', { name: 'Newest' }).click()
  await expect(hits).toHaveCount(3)
  const passedOn = await (await browser.newContext({ javaScriptEnabled: false })).newPage()
  await passedOn.goto(visitor.url())
  await expect(passedOn.locator('.tr-hit h2')).toHaveText(await visitor.locator('.tr-hit h2').allTextContents())

  // From a hit to the very page, and to the file.
  const manual = hits.filter({ hasText: 'K60 kiln manual' })
  await expect(manual.getByRole('link', { name: /^Open at page \d+/ })).toHaveAttribute(
    'href',
    /\/files\/marlpit-k60-manual\.pdf\?open&at=[a-z0-9]+#page=\d+$/,
  )
  await manual.getByRole('link', { name: /^Look inside/ }).click()
  await expect(visitor.locator('.tr-marks rect')).not.toHaveCount(0)
  const [download] = await Promise.all([visitor.waitForEvent('download'), visitor.getByRole('link', { name: /^Download/ }).click()])
  expect(download.suggestedFilename()).toBe('Marlpit K60 manual.pdf')
  await context.close()

  // What was found by the field is counted there, a moment after it was taken.
  await expect(async () => {
    await page.reload()
    await page.locator('.search-view').click()
    await expect(note.getByText('1 download of what was found from here')).toBeVisible({ timeout: EACH_LOOK })
  }).toPass()
})
