import { expect, test, type Page } from '@playwright/test'
import { dropFiles, dropFolders, type RealFile } from './support/files'
import { newPage, openDesk, openFolder, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

/** What comes from the computer onto a page: whole folders, and several files at once. */
let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const text = (name: string, words: string): RealFile => ({ name, mimeType: 'text/plain', buffer: Buffer.from(words) })
const sheet = (page: Page) => page.locator('.ProseMirror')
const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible()
const spot = async (page: Page) => {
  const box = (await sheet(page).boundingBox())!
  return { x: box.x + 40, y: box.y + 8 }
}

test('a folder dropped on a page comes into the library, and stands there as a shelf of it', async ({ page }) => {
  await newPage(page, 'Recipes')
  await dropFolders(
    page,
    { 'Slip recipes': [text('white slip.txt', 'ball clay'), text('black slip.txt', 'iron')] },
    '.ProseMirror',
    await spot(page),
  )
  const asked = page.getByRole('dialog', { name: 'How should the 2 files of “Slip recipes” stand?' })
  await asked.getByRole('button', { name: /^Shelf/ }).click()
  await expect(page.locator('.shelf-view')).toContainText('White slip')
  await expect(page.locator('.shelf-view')).toContainText('Black slip')
  await saved(page)
  await openFolder(page, 'Slip recipes')
  await expect(row(page, 'slip')).toHaveCount(2)
  // It lists the folder, not those two: what is put there later is on it.
  await dropFiles(page, [text('red slip.txt', 'terracotta')], '.library .rows', { x: 100, y: 400 })
  await expect(page.locator('.shelf-view')).toContainText('Red slip')
})

test('a folder dropped on a page becomes one zip, and one whose names are taken is asked about first', async ({ page, request }) => {
  const glazes = [text('celadon.txt', 'iron, one in a hundred'), text('tenmoku.txt', 'iron, eight in a hundred')]
  await newPage(page, 'Glazes')
  await dropFolders(page, { 'Glaze notes': glazes }, '.ProseMirror', await spot(page))
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^One bundle/ })
    .click()
  const button = page.locator('.button-view')
  await expect(button).toContainText(/Glaze notes\s*ZIP, /)
  await saved(page)
  await page.locator('.file-row', { hasText: 'Glaze notes' }).getByRole('link').click()
  await expect(page.getByLabel('What is in the bundle')).toContainText('2 files')

  await page.goto(`${server.url}/desk`)
  await newPage(page, 'Glazes again')
  await dropFolders(page, { 'Glaze notes': glazes }, '.ProseMirror', await spot(page))
  const clash = page.getByRole('dialog')
  await expect(clash).toContainText('celadon.txt')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect(sheet(page).locator('.button-view, .shelf-view')).toHaveCount(0)
  expect((await request.get(`${server.url}/files/celadon.txt`)).status()).toBe(200)
})

test('several files dropped on a page are one zip or a shelf at once, or only come in', async ({ page }) => {
  await newPage(page, 'Several')
  await dropFiles(page, [text('monday.txt', 'one'), text('tuesday.txt', 'two')], '.ProseMirror', await spot(page))
  await page
    .getByRole('dialog', { name: 'How should these 2 files stand?' })
    .getByRole('button', { name: /^Shelf/ })
    .click()
  await expect(page.locator('.shelf-view')).toContainText(/Monday[\s\S]*Tuesday/)
  await dropFiles(page, [text('wednesday.txt', 'three'), text('thursday.txt', 'four')], '.ProseMirror', await spot(page))
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Not on the page/ })
    .click()
  await expect(page.getByLabel('The trough')).toContainText('Wednesday')
  await expect(sheet(page).locator('.button-view, .shelf-view')).toHaveCount(1)
  await saved(page)
})

test('two folders dropped at once are one zip, named after the page, or a shelf of what is in both', async ({ page }) => {
  const folders = (of: string) => ({
    [`${of} left`]: [text(`${of} one.txt`, `${of} 1`)],
    [`${of} right`]: [text(`${of} two.txt`, `${of} 2`)],
  })
  await newPage(page, 'Both')
  await dropFolders(page, folders('zip'), '.ProseMirror', await spot(page))
  const asked = page.getByRole('dialog', { name: 'How should these 2 files stand?' })
  await asked.getByRole('button', { name: /^One bundle/ }).click()
  await expect(page.locator('.button-view')).toContainText(/Files of “Both”\s*ZIP, /)
  await dropFolders(page, folders('shelf'), '.ProseMirror', await spot(page))
  await asked.getByRole('button', { name: /^Shelf/ }).click()
  await expect(page.locator('.shelf-view')).toContainText(/Shelf one[\s\S]*Shelf two/)
  await saved(page)
  await expect(page.locator('.folder-strip', { hasText: /(?:zip|shelf) (?:left|right)/ })).toHaveCount(4)
})
