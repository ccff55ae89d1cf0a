import { expect, test, type Page } from '@playwright/test'
import { openDesk, openPage } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

/** The walk over the demo, whose Trade page has slips as a real one would. */
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const finding = (page: Page, words: string) => page.locator('.finding', { hasText: words })
const openChecks = async (page: Page) => {
  await page.getByRole('link', { name: /^Checks/ }).click()
  await expect(page.locator('.verdict')).toBeVisible()
}

test('each slip of the demo is found, mended by its one act on the live page, and taken back', async ({ page, request }) => {
  await openDesk(page, server.url)
  await openChecks(page)
  const trade = async () => (await request.get(`${server.url}/trade`)).text()
  const slips: [words: string, act: string | RegExp, live: RegExp][] = [
    ['It says “October 2026”', 'Say “Trade price list, November 2026”', /Trade price list, November 2026/],
    ['http://index.clay-prices.example', 'Use https', /https:\/\/index\.clay-prices\.example/],
    ['price-list-latest.pdf', /^Call it price-list-2026-\d\d.*\.pdf$/, /./],
    // It stands in the draft only: visitors have never seen it.
    ['This button leads nowhere', /^(Take it off|Lead it to .*)$/, /./],
  ]
  // What entries have not only their owner can give them.
  const lacking = page.locator('.finding', { hasText: /\d+ of \d+ have no “/ })
  await expect(lacking).toHaveCount(2)
  await expect(page.locator('.finding')).toHaveCount(slips.length + 2)
  for (const [words, act, live] of slips) {
    await finding(page, words).getByRole('button', { name: act }).click()
    await expect(finding(page, words)).toHaveCount(0)
    expect(await trade()).toMatch(live)
  }
  for (const left of [1, 0]) {
    await lacking
      .first()
      .getByRole('button', { name: /^Leave/ })
      .click()
    await page.keyboard.type('They get theirs in spring.')
    await page.keyboard.press('Enter')
    await expect(lacking).toHaveCount(left)
  }
  await expect(page.locator('.verdict')).toHaveText('All that visitors meet is as it should be.')
  await expect(page.getByRole('link', { name: 'Checks', exact: true })).toBeVisible()
  await page.locator('.notice').getByRole('button', { name: 'Undo' }).first().click()
  await expect(finding(page, 'This button leads nowhere')).toBeVisible()
})

test('by keyboard: a finding is left for a reason, shown again, and leads to its button on the page', async ({ page }) => {
  await openDesk(page, server.url)
  await openChecks(page)
  const row = finding(page, 'This button leads nowhere')
  await row.getByRole('button', { name: /^Leave/ }).focus()
  await page.keyboard.press('Enter')
  await page.keyboard.type('The form comes next week.')
  await page.keyboard.press('Enter')
  await expect(row).toBeHidden()
  await page.getByText(/^\d findings? left as/).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Left, because: The form comes next week.')).toBeVisible()
  await row.getByRole('button', { name: 'Show it again' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByText('Left, because: The form comes next week.')).toHaveCount(0)
  await row.getByRole('link', { name: 'Trade' }).focus()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('region', { name: 'Settings of this button' })).toBeVisible()
  await expect(page.locator('.button-view.selected')).toContainText('Trade account form')
})

test('what would stop visitors holds publishing back, and leads to its place', async ({ page }) => {
  await openDesk(page, server.url)
  await openPage(page, 'Trade')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('dialog')).toContainText('One place would stop visitors')
  await page.getByRole('dialog').getByRole('link', { name: 'Trade account form' }).click()
  await expect(page.locator('.button-view.selected')).toContainText('Trade account form')
})
