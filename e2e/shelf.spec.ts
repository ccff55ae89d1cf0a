import { expect, test, type Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import { readFile } from 'node:fs/promises'
import { add, openDesk, openPage, row } from './support/owner'
import { EACH_LOOK } from './support/pace'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const note = (page: Page) => page.getByRole('region', { name: 'Settings of this shelf' })
const shelves = (page: Page) => page.locator('.shelf-view')
const titlesOn = (page: Page, index = 0) => shelves(page).nth(index).locator('.tr-label').allTextContents()

test('a folder dropped on the page lists its files; visitors without script take those they tick as one zip', async ({ page, browser }) => {
  await openPage(page, 'Trade')
  await page.locator('.folder-strip', { hasText: 'Guides' }).dragTo(page.locator('.ProseMirror p').first())
  await expect(shelves(page)).toHaveCount(1)
  await expect(note(page)).toContainText('Lists what lies in Guides, always.')
  await expect.poll(async () => (await titlesOn(page)).length).toBeGreaterThan(3)
  const titles = await titlesOn(page)
  await note(page).getByRole('radio', { name: 'Newest' }).check()
  await note(page).getByLabel('Name of the zip').fill('Marlpit guides')
  await page.getByRole('button', { name: /^Publish/ }).click()
  await page.getByRole('button', { name: 'Publish all the same' }).click()
  await expect(page.getByText('“Trade” is live.')).toBeVisible()

  const context = await browser.newContext({
    javaScriptEnabled: false,
    userAgent: 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
  })
  const visitor = await context.newPage()
  await visitor.goto(`${server.url}/trade`)
  await visitor.getByRole('button', { name: 'Ticked files as one zip' }).click()
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('No file was ticked.')
  await visitor.goBack()
  const names: string[] = []
  for (const title of titles.slice(0, 2)) {
    await visitor.getByLabel(`Choose ${title}`).check()
    names.push(decodeURIComponent((await visitor.getByRole('link', { name: title }).getAttribute('href'))!.split(/[/?]/)[2]!))
  }
  const [download] = await Promise.all([
    visitor.waitForEvent('download'),
    visitor.getByRole('button', { name: 'Ticked files as one zip' }).click(),
  ])
  expect(download.suggestedFilename()).toBe('Marlpit guides.zip')
  const inside = unzipSync(new Uint8Array(await readFile(await download.path())))
  expect(Object.keys(inside)).toHaveLength(2)
  const stored = await Promise.all(
    names.map(async name => Buffer.from(await (await fetch(`${server.url}/files/${name}`)).arrayBuffer()).toString('hex')),
  )
  expect(
    Object.values(inside)
      .map(bytes => Buffer.from(bytes).toString('hex'))
      .sort(),
  ).toEqual(stored.sort())
  await context.close()

  // They are counted a moment after they were taken.
  await expect(async () => {
    await page.reload()
    await expect(shelves(page).locator('.block-state')).toHaveText('2 downloads', { timeout: EACH_LOOK })
  }).toPass()
})

test('folders below are folded out by visitors without script, and their files come under their names in the zip', async ({
  page,
  browser,
}) => {
  await openPage(page, 'Kilns')
  await shelves(page).first().click()
  await note(page).getByRole('button', { name: 'Other folder…' }).click()
  await page.getByRole('combobox', { name: 'Find a folder' }).fill('kilns')
  await page.keyboard.press('Enter')
  await expect(note(page)).toContainText('Lists what lies in Kilns, always.')
  await note(page).getByRole('radio', { name: 'Folded' }).check()
  await expect(shelves(page).first().locator('summary')).toContainText('Spare parts')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Kilns” is live.')).toBeVisible()

  const visitor = await (await browser.newContext({ javaScriptEnabled: false })).newPage()
  await visitor.goto(`${server.url}/kilns`)
  const shelf = visitor.locator('form.tr-shelf').first()
  const part = shelf.getByLabel('Choose Spare parts k60')
  await expect(part).toBeHidden()
  await shelf.locator('summary', { hasText: /Spare parts\s*4 files/ }).click()
  await part.check()
  await shelf.getByLabel('Choose K60 kiln manual').check()
  const [download] = await Promise.all([
    visitor.waitForEvent('download'),
    shelf.getByRole('button', { name: 'Ticked files as one zip' }).click(),
  ])
  expect(Object.keys(unzipSync(new Uint8Array(await readFile(await download.path())))).sort()).toEqual([
    'Marlpit K60 manual.pdf',
    'Spare parts/spare-parts-k60.xlsx',
  ])
  await visitor.context().close()
})

test('by key: a shelf of chosen files, in an order of its own, undone and done again', async ({ page }) => {
  await openPage(page, 'Clay, glaze')
  await page.keyboard.type('/shelf')
  await expect(page.getByRole('option', { name: /^Shelf/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await expect(shelves(page)).toContainText('Nothing on this shelf yet')
  await page.keyboard.press('Enter')
  for (const [words, title] of [
    ['raku', 'Firing chart raku'],
    ['biscuit', 'Firing chart biscuit'],
  ] as const) {
    await note(page)
      .getByRole('button', { name: /Chosen files…|One more file…/ })
      .press('Enter')
    await page.getByRole('combobox', { name: 'Find a file for this shelf' }).fill(words)
    await page.getByRole('option', { name: new RegExp(title) }).waitFor()
    await page.keyboard.press('Enter')
    await expect.poll(() => titlesOn(page)).toContain(title)
  }
  await expect.poll(() => titlesOn(page)).toEqual(['Firing chart raku', 'Firing chart biscuit'])
  await note(page).getByRole('button', { name: 'Move Firing chart biscuit up' }).press('Enter')
  await expect.poll(() => titlesOn(page)).toEqual(['Firing chart biscuit', 'Firing chart raku'])
  await page.getByRole('toolbar', { name: 'Words on the page' }).getByRole('button', { name: 'Undo' }).press('Enter')
  await expect.poll(() => titlesOn(page)).toEqual(['Firing chart raku', 'Firing chart biscuit'])
})

test('a folder on a shelf is not deleted unnoticed', async ({ page }) => {
  await page.locator('.folder-strip', { hasText: 'Firing charts' }).locator('.name').focus()
  await page.locator('.folder-strip', { hasText: 'Firing charts' }).click({ position: { x: 200, y: 12 } })
  await page.keyboard.press('Delete')
  await expect(page.getByRole('dialog')).toContainText(/Clay & glaze shelf, under “.+”, live/)
  await page.getByRole('button', { name: /Delete all the same/ }).click()
  await expect(page.locator('.folder-strip', { hasText: 'Firing charts' })).toHaveCount(0)
  await openPage(page, 'Clay & glaze')
  await expect(shelves(page).filter({ hasText: 'The folder this shelf lists is gone' })).toHaveCount(1)
  await expect(row(page, 'Scan0007')).toBeVisible()
})

test('what is alike is listed wherever it lies, in a layout and a look of its own, and folders have addresses', async ({
  page,
  browser,
}) => {
  await openPage(page, 'Trade')
  await add(page, 'Shelf')
  await note(page).getByRole('button', { name: 'What is alike…' }).click()
  await expect(shelves(page).last()).toContainText('It asks for nothing yet')
  await note(page).getByLabel('With the tags').fill('K60')
  await page.keyboard.press('Enter')
  await expect(shelves(page).last()).toContainText('K60 kiln manual')
  await note(page).getByRole('radio', { name: 'Table' }).check()
  await expect(shelves(page).last().locator('table th').first()).toBeVisible()
  await note(page).getByRole('button', { name: 'How it is shown' }).click()
  const facts = note(page).getByRole('group', { name: 'Columns of facts' })
  await facts.getByLabel('Edition').check()
  await facts.getByRole('button', { name: 'Move Edition up' }).click()
  await expect(shelves(page).last().locator('thead th')).toHaveText(['Choose', 'Name', 'Kind', 'Size', 'Edition', 'Changed'])
  await note(page).getByRole('button', { name: 'Look of this shelf' }).click()
  await note(page).getByRole('button', { name: 'Save as a look…' }).click()
  await note(page).getByLabel('Name of the look').fill('By model')
  await page.keyboard.press('Enter')
  await expect(note(page).getByRole('combobox', { name: 'Wears the look' })).toHaveValue(/.+/)
  await note(page).getByRole('radio', { name: 'Folded' }).check()
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.getByRole('button', { name: /^Publish/ }).click()
  await page.getByRole('button', { name: 'Publish all the same' }).click()
  await expect(page.getByText('“Trade” is live.')).toBeVisible()

  const visitor = await (await browser.newContext({ javaScriptEnabled: false })).newPage()
  await visitor.goto(`${server.url}/trade`)
  const kilns = visitor.locator('details', { hasText: 'Kilns' }).first()
  await expect(kilns.getByRole('link', { name: 'K60 kiln manual' })).toBeHidden()
  await kilns.locator('summary').first().click()
  const address = await kilns.getByRole('link', { name: 'Address of Kilns' }).getAttribute('href')
  // Sent to somebody, it opens where it leads.
  await visitor.goto(`${server.url}/trade${address}`)
  await expect(kilns.getByRole('link', { name: 'K60 kiln manual' })).toBeVisible()
  await visitor.context().close()
})
