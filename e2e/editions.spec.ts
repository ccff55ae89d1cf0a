import { expect, test, type Page } from '@playwright/test'
import { makePdf } from '../demo/pdf'
import { priceList } from '../demo/texts'
import { dropFiles, realPdf, sha256, type RealFile } from './support/files'
import { openDesk, openFolder, openPage, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

/** The list of the demo with prices a little higher. */
const december = async (): Promise<RealFile> => ({
  name: 'price-list-2026-12.pdf',
  mimeType: 'application/pdf',
  buffer: await makePdf(priceList('Price list', 'December 2026', 1.04), new Date('2026-12-01')),
})

async function dropOnRow(page: Page, file: RealFile, title: string) {
  await page
    .locator('.file-row')
    .filter({ has: page.getByRole('link', { name: title, exact: true }) })
    .evaluate(element => (element.id = 'drop-here'))
  await dropFiles(page, [file], '#drop-here', { x: 100, y: 300 })
}

test('a new file takes the place of another on every page in three actions, after a look at both', async ({ page, request }) => {
  const file = await december()
  await openDesk(page, server.url)
  // One: to where it lies. Two: dropped on the old one. Three: live.
  await openFolder(page, 'Price lists')
  await dropOnRow(page, file, 'Price list')
  const dialog = page.getByRole('dialog', { name: 'Next edition of “Price list”' })
  await expect(dialog.getByText('price-list-2026-12.pdf')).toBeVisible()
  await expect(dialog.getByLabel('What changed in the text')).toContainText('December 2026')
  await expect(dialog.locator('.doubts')).toHaveCount(0)
  // The label that says November goes along; that is seen before, and can be left out.
  await expect(dialog.getByRole('checkbox', { name: 'The label of one place follows, too' })).toBeChecked()
  await expect(dialog.getByRole('region', { name: 'Labels that speak' })).toContainText('Price list, December 2026')
  const before = await (await request.get(`${server.url}/`)).text()
  await dialog.getByRole('button', { name: 'Put it live' }).click()
  await expect(page.getByText('Visitors get the new “Price list” now')).toBeVisible()
  const after = await (await request.get(`${server.url}/`)).text()
  expect(before).toContain('Price list, November 2026')
  await expect.poll(async () => (await request.get(`${server.url}/`)).text()).toContain('Price list, December 2026')
  const [, address] = /href="(\/files\/price-list[^"?]*)/.exec(after)!
  expect(before).toContain(address)
  const {
    items: [item],
  } = (await (await page.request.get(`${server.url}/api/files?q=price-list-2026-12`)).json()) as { items: { handle: string }[] }
  expect(sha256(await (await request.get(`${server.url}/files/${item!.handle}`)).body())).toBe(sha256(file.buffer))
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await request.get(`${server.url}/`)).text()).toBe(before)
})

test('what looks like the wrong document is said, and made a file of its own', async ({ page }) => {
  await openDesk(page, server.url)
  await openFolder(page, 'Kilns')
  await dropOnRow(
    page,
    { name: 'oven-gloves-2025-01.txt', mimeType: 'text/plain', buffer: Buffer.from('Oven gloves, washed at forty degrees.\n') },
    'K60 kiln manual',
  )
  const dialog = page.getByRole('dialog', { name: /^Next edition of/ })
  await expect(dialog.locator('.doubts')).toContainText('It has hardly a word in common')
  await expect(dialog.locator('.doubts')).toContainText('It is of another type')
  await dialog.getByRole('button', { name: 'It is another file: keep both' }).click()
  await expect(row(page, 'Oven gloves')).toBeVisible()
  await expect(row(page, 'K60 kiln manual').getByText('newer')).toHaveCount(0)
})

test('the next edition is chosen in the details, waits, is compared there and thrown away, by keyboard once it is there', async ({
  page,
}) => {
  await openDesk(page, server.url)
  await openFolder(page, 'Kilns')
  await row(page, 'K60 kiln manual').getByRole('link').first().focus()
  await page.keyboard.press('Enter')
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Next edition…' }).click()
  await (
    await choosing
  ).setFiles({ name: 'Marlpit K60 manual 2027.txt', mimeType: 'text/plain', buffer: Buffer.from('The manual, shortened.\n') })
  const dialog = page.getByRole('dialog', { name: /^Next edition of/ })
  await dialog.getByRole('button', { name: 'Keep it waiting' }).focus()
  await page.keyboard.press('Enter')
  const compare = page.getByRole('button', { name: /^Compare edition \d+ with what visitors get/ })
  await compare.focus()
  await page.keyboard.press('Enter')
  await dialog.getByRole('button', { name: 'Throw it away' }).focus()
  await page.keyboard.press('Enter')
  await expect(dialog).toHaveCount(0)
  await expect(compare).toHaveCount(0)
})

test('dropped on a button, a new file is the next edition of what that leads to; or the button alone leads to it', async ({
  page,
  request,
}) => {
  await openDesk(page, server.url)
  await openPage(page, 'Classes')
  const button = page.locator('.button-view', { hasText: 'joining form' }).first()
  const label = button.locator('.tr-button')
  const dropOnButton = async (file: RealFile) => {
    await label.evaluate(element => (element.id = 'drop-here'))
    const box = (await label.boundingBox())!
    await dropFiles(page, [file], '#drop-here', { x: box.x + box.width / 2, y: box.y + box.height / 2 })
  }
  await dropOnButton({ name: 'joining-form.txt', mimeType: 'text/plain', buffer: Buffer.from('Name, address, evenings.\n') })
  const dialog = page.getByRole('dialog', { name: 'Next edition of “Class joining form”' })
  await expect(dialog.locator('.doubts')).toContainText('It is of another type')
  await dialog.getByRole('button', { name: 'Lead only this button to it' }).click()
  await expect(page.getByText('That button leads to “Joining form” now.')).toBeVisible()
  await expect(label).toContainText('TXT')
  expect((await request.get(`${server.url}/files/joining-form.docx`)).status()).toBe(200)

  // Now it leads to a text: the next one follows without a doubt, and is live on the page at once.
  await dropOnButton({ name: 'joining-form.txt', mimeType: 'text/plain', buffer: Buffer.from('Name, address, evenings, clay.\n') })
  await page.getByRole('dialog', { name: 'Next edition of “Joining form”' }).getByRole('button', { name: 'Put it live' }).click()
  await expect(page.getByText('Visitors get the new “Joining form” now')).toBeVisible()
  expect(await (await request.get(`${server.url}/files/joining-form.txt`)).text()).toBe('Name, address, evenings, clay.\n')
})

test('by key: the next edition of the file the keyboard stands on comes in, and the one that waits goes live', async ({ page }) => {
  await openDesk(page, server.url)
  await openFolder(page, 'Guides')
  const title = row(page, 'Wedging clay').getByRole('link')
  await row(page, 'Wedging clay').locator('.cell').first().click()
  await expect(title).toBeFocused()
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.keyboard.press('e')])
  await chooser.setFiles(await realPdf('wedging-clay.pdf'))
  const dialog = page.getByRole('dialog', { name: /Wedging clay/ })
  await expect(dialog).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(dialog).toHaveCount(0)
  await expect(row(page, 'Wedging clay')).toContainText('newer')
  await title.focus()
  await page.keyboard.press('l')
  await expect(page.getByText('Visitors get the new “Wedging clay” now, from every button.')).toBeVisible()
  await expect(row(page, 'Wedging clay')).not.toContainText('newer')
  await title.focus()
  await page.keyboard.press('l')
  await expect(page.getByText('No newer edition of “Wedging clay” waits.')).toBeVisible()
})
