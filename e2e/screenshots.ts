import { mkdirSync } from 'node:fs'
import { join } from 'node:path'
import { test, type Page } from '@playwright/test'
import { makePdf } from '../demo/pdf'
import { priceList } from '../demo/texts'
import { dropFiles } from './support/files'
import { openDesk, openFolder, openPage, showInLibrary } from './support/owner'
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
  // Not until nothing is asked for: what changes is told for as long as the desk is open.
  await page.waitForFunction(() =>
    [...document.images].every(image => {
      const { top, bottom } = image.getBoundingClientRect()
      return image.complete || bottom < 0 || top > window.innerHeight
    }),
  )
  await page.screenshot({ path: join(FOLDER, `${name}.png`) })
}

test('catalogues', async ({ page }) => {
  await page.goto(`${server.url}/clay-and-glaze`)
  await page.locator('.tr-entry-cards').scrollIntoViewIfNeeded()
  await page
    .locator('.tr-entries')
    .nth(1)
    .evaluate(list => list.scrollIntoView())
  await shoot(page, 'catalogue-list')
  await page.goto(`${server.url}/glazes/celadon-pale`)
  await shoot(page, 'catalogue-entry')
  await openDesk(page, server.url, '/desk/catalogues')
  const stock = [
    'Number;Name;Body;Price of 12.5 kg;Fires to;In stock',
    'C101;Marl stoneware, smooth;Stoneware;11,90 £;1280 °C;yes',
    'C111;Sculpture body;Stoneware;12,40 £;1290 °C;yes',
    'C112;Casting slip, white;Earthenware;9,20 £;soon;no',
  ].join('\n')
  await page.locator('.margin-board').getByRole('link', { name: 'Clays', exact: true }).click()
  await page.getByRole('gridcell', { name: 'Name: Porcelain P40', exact: true }).click()
  await page.getByRole('heading', { name: 'Porcelain P40' }).waitFor()
  await page.getByRole('button', { name: 'Fold the library away' }).click()
  await shoot(page, 'catalogue-table')
  await dropFiles(page, [{ name: 'clays-2027.csv', mimeType: 'text/csv', buffer: Buffer.from(stock) }], '.catalogue', { x: 600, y: 500 })
  await page.getByText('1 changed').waitFor()
  await shoot(page, 'catalogue-import')
  await page.goto(`${server.url}/desk`)
  await openPage(page, 'Clay & glaze')
  await page.locator('.list-view .bar').nth(1).click()
  await page.getByRole('combobox', { name: 'Lists' }).waitFor()
  await shoot(page, 'catalogue-card')
})

test('who may have what', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 800 })
  await page.goto(`${server.url}/files/first-bowl-2026-03.pdf`)
  await shoot(page, 'visitors-gate')
  await page.setViewportSize({ width: 1280, height: 800 })
  await openDesk(page, server.url)
  await page.goto(`${server.url}/desk/gates`)
  await page.getByRole('button', { name: /^Trade buyers/ }).click()
  await page.getByText('Behind it: 1 file').waitFor()
  await shoot(page, 'gates')
  await page.goto(`${server.url}/desk/letterbox`)
  await page.getByRole('button', { name: 'Hollow Lane School', exact: true }).click()
  await page.getByRole('region', { name: 'Number 2' }).waitFor()
  await shoot(page, 'letterbox')
  await page.goto(`${server.url}/desk/downloads?span=90&unit=week&stack=device`)
  await page.getByRole('button', { name: /^Price list price/ }).click()
  await page.getByText('Which edition').waitFor()
  await shoot(page, 'downloads')
})

test('pages, page, file, live', async ({ page }) => {
  await openDesk(page, server.url)
  await openPage(page, 'Clay, glaze')
  await page.locator('.button-view .tr-button').first().click()
  await shoot(page, 'page')
  await page.keyboard.press('Escape')
  await openFolder(page, 'Kilns')
  await page.locator('.file-row', { hasText: 'K100' }).locator('.cell').first().click()
  await page
    .locator('.file-row', { hasText: 'Kiln finished' })
    .locator('.cell')
    .first()
    .click({ modifiers: ['Shift'] })
  await shoot(page, 'library')
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
  await page.goto(`${server.url}/desk?folder=top`)
  await openFolder(page, 'Price lists')
  await page
    .locator('.file-row')
    .filter({ has: page.getByRole('link', { name: 'Price list', exact: true }) })
    .evaluate(element => (element.id = 'drop-here'))
  const december = await makePdf(priceList('Price list', 'December 2026', 1.04), new Date('2026-12-01'))
  await dropFiles(page, [{ name: 'price-list-2026-12.pdf', mimeType: 'application/pdf', buffer: december }], '#drop-here', {
    x: 100,
    y: 300,
  })
  await page.getByLabel('What changed in the text').waitFor()
  await page.getByAltText('First page of edition', { exact: false }).nth(1).waitFor()
  await shoot(page, 'edition')
  await page.getByRole('button', { name: 'Throw it away' }).click()
  await page.goto(`${server.url}/desk/checks`)
  await page.locator('.finding').first().waitFor()
  await shoot(page, 'checks')
  await page.goto(`${server.url}/desk/signposts`)
  await page.getByRole('button', { name: /^Class timetable/ }).click()
  await page.getByRole('heading', { name: 'Used in 1 place' }).waitFor()
  await shoot(page, 'signposts')
  await page.goto(`${server.url}/desk/looks`)
  await page.getByRole('button', { name: 'New look from “Slab”' }).last().click()
  await page.getByRole('region', { name: 'Settings of the look Slab, ours' }).getByRole('button', { name: 'Fill, border' }).click()
  await page.getByRole('radio', { name: 'Gradient' }).check()
  await page.locator('.rack li').last().scrollIntoViewIfNeeded()
  await shoot(page, 'looks')
  await page.getByRole('button', { name: 'Delete this look' }).click()
  await page.goto(`${server.url}/desk`)
  await openPage(page, 'Guides')
  await page.locator('.shelf-view').nth(1).click()
  await page.getByRole('region', { name: 'Settings of this shelf' }).getByRole('radio', { name: 'Cards' }).focus()
  await shoot(page, 'shelf')
  await page.goto(`${server.url}/`)
  await shoot(page, 'live')
})
