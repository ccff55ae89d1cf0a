import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { test, type Page } from '@playwright/test'
import { openDesk, openFolder, openPage, row, showInLibrary } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

const FOLDER = join(import.meta.dirname, '../docs/screenshots')
let server: RunningServer
test.beforeAll(async () => {
  mkdirSync(FOLDER, { recursive: true })
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const shoot = async (page: Page, name: string) => {
  await page.evaluate(() => document.fonts.ready)
  await page.waitForLoadState('networkidle')
  await page.screenshot({ path: join(FOLDER, `${name}.png`) })
}

test('pages, page, finder, file, live', async ({ page }) => {
  await openDesk(page, server.url)
  await shoot(page, 'pages')
  await openPage(page, 'Clay, glaze')
  await page.locator('.button-view .tr-button').first().click()
  await shoot(page, 'page')
  await page.keyboard.press('Escape')
  await page.locator('.ProseMirror p', { hasText: 'Ten evenings' }).click()
  await page.keyboard.press('End')
  await page.getByRole('button', { name: 'Place a file' }).click()
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('price')
  await page.getByRole('option', { name: /Trade price list/ }).waitFor()
  await shoot(page, 'place-a-file')
  await page.keyboard.press('Escape')
  await openFolder(page, 'Kilns')
  await page.locator('.file-row', { hasText: 'K100' }).locator('.cell').first().click()
  await page.locator('.file-row', { hasText: 'Kiln finished' }).locator('.cell').first().click({ modifiers: ['Shift'] })
  await shoot(page, 'library')
  await page.getByRole('button', { name: 'Move to…' }).click()
  await shoot(page, 'move')
  await page.keyboard.press('Escape')
  await page.locator('.file-row a.title', { hasText: 'K60' }).click()
  await page.getByRole('img', { name: /^Page 1 of/ }).waitFor()
  await shoot(page, 'file')
  await showInLibrary(page, 'witness cone')
  await page.locator('.file-row .passage').first().waitFor()
  await page.keyboard.press('Control+k')
  await page.keyboard.type('thermocouple')
  await page.getByRole('option', { name: /in the library with “thermocouple”/ }).waitFor()
  await shoot(page, 'search')
  await page.keyboard.press('Escape')
  await showInLibrary(page, 'glaze')
  await page.getByRole('radio', { name: 'Tiles' }).click()
  await row(page, 'Glaze recipes').getByRole('link', { name: 'Glaze recipes' }).click()
  await page.getByRole('group', { name: 'Table of Glaze recipes' }).waitFor()
  await shoot(page, 'tiles')
  await page.setViewportSize({ width: 390, height: 800 })
  await page.goto(`${server.url}/desk?folder=top`)
  await page.getByRole('button', { name: 'Library', exact: true }).click()
  await page.getByRole('radio', { name: 'Rows' }).click()
  await openFolder(page, 'Price lists')
  await shoot(page, 'library-phone')
  await page.setViewportSize({ width: 1280, height: 800 })
  await page.goto(`${server.url}/`)
  await shoot(page, 'live')
  await page.setViewportSize({ width: 390, height: 800 })
  await page.goto(`${server.url}/clay-and-glaze`)
  await shoot(page, 'live-phone')
})
