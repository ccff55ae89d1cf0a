import { expect, test, type Page } from '@playwright/test'
import { openDesk, openFolder, openPage, row, showInLibrary } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const items = (page: Page) => page.locator('.ProseMirror .tr-row .tr-button')
const menuItems = (page: Page) => page.getByRole('navigation', { name: 'Pages' }).getByRole('link')

test('a file dropped on the head is an item of the menu on every page, by the side of pages and addresses', async ({ page, context }) => {
  await openPage(page, 'Head of every page')
  await expect(items(page)).toHaveCount(7)
  await showInLibrary(page, 'Glaze faults')
  await row(page, 'Glaze faults')
    .first()
    .dragTo(items(page).nth(1), { targetPosition: { x: 1, y: 10 } })
  await expect(items(page).nth(1)).toContainText('Glaze faults')
  await page.keyboard.press('Control+z')
  await expect(items(page)).toHaveCount(7)
  // Below the row there is no other place for an item: it goes on the row's end.
  await row(page, 'Glaze faults')
    .first()
    .dragTo(page.locator('.sheet'), { targetPosition: { x: 200, y: 400 } })
  await expect(items(page)).toHaveCount(8)
  await expect(page.locator('.ProseMirror > .tr-row')).toHaveCount(1)
  await page.keyboard.press('Alt+ArrowUp')
  await expect(items(page).nth(6)).toContainText('Glaze faults')
  await expect(page.locator('.head .save')).toHaveText('Saved')

  const visitor = await context.newPage()
  await visitor.goto(`${server.url}/kilns`)
  await expect(menuItems(visitor)).toHaveCount(7)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Head of every page” is live.')).toBeVisible()
  await visitor.reload()
  await expect(menuItems(visitor)).toHaveText([
    'Clay & glaze',
    'Kilns',
    'Classes',
    'Guides',
    'Studio photos',
    'Trade',
    /^Glaze faults and their cures\s*PDF/,
    /^Price list\s*PDF/,
  ])
  await expect(menuItems(visitor).nth(1)).toHaveAttribute('aria-current', 'page')
  await visitor.setViewportSize({ width: 390, height: 800 })
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth)).toBe(390)
})

test('pages that are listed by themselves are placed in one act, and moved then', async ({ page }) => {
  await openPage(page, 'Head of every page')
  await items(page).first().click()
  await page.keyboard.press('Delete')
  const by = page.getByText('After these come by themselves:')
  await expect(by).toContainText('Clay & glaze')
  await page.getByRole('button', { name: 'Place them, to set their order' }).click()
  await expect(items(page).first()).toHaveText('Clay & glaze')
  await expect(page.getByText('Every page of the menu is placed.')).toBeVisible()
  await items(page).first().click()
  await page.keyboard.press('Alt+ArrowDown')
  await expect(items(page).nth(1)).toHaveText('Clay & glaze')
})

test('what is in the menu is not deleted unseen, and says where it is', async ({ page }) => {
  await openFolder(page, 'Price lists')
  await row(page, /Price list\d.*places/)
    .first()
    .click()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('dialog')).toContainText(/Head of every page.*Price list/)
})

test('the preview of an edge shows it on the home page, and Find leads to it', async ({ page }) => {
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find files, pages and settings' }).fill('foot of')
  await page.getByRole('option', { name: /Foot of every page/ }).click()
  await expect(page.getByRole('textbox', { name: 'The page', exact: true })).toBeFocused()
  await expect(page.getByText('This stands at the end of every page')).toBeVisible()
  await page.getByText('Saturday, nine to noon').click()
  await expect.poll(() => page.evaluate(() => getSelection()!.anchorNode!.textContent)).toBe('Saturday, nine to noon')
  await page.keyboard.press('End')
  await page.keyboard.type(', not in August')
  await page.getByRole('button', { name: 'Preview' }).click()
  const shown = page.frameLocator('iframe')
  await expect(shown.locator('footer')).toContainText('nine to noon, not in August')
  await expect(shown.getByRole('heading', { level: 1 })).toHaveText('Clay, glaze and a warm kiln')
})

test('an item that stands at the end when the head is opened has its settings at a click', async ({ page }) => {
  await openPage(page, 'Head of every page')
  await expect(page.getByRole('region', { name: 'Settings of this page' })).toBeVisible()
  await items(page).last().click()
  await expect(page.locator('.placed-note').getByLabel('Label')).toHaveValue('Price list')
  await page.getByRole('button', { name: 'Page settings' }).click()
  await items(page).last().click()
  await expect(page.locator('.placed-note').getByLabel('Label')).toHaveValue('Price list')
})
