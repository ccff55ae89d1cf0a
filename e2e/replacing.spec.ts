import { expect, test } from '@playwright/test'
import { button, heading, pageOf } from '../core/testing/pages'
import type { PageDetails } from '../core/page/pageItem'
import type { Target } from '../core/page/schema'
import { openDesk, openPage, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

/** A live page with a button of its own for each target, and what visitors get of it. */
async function makePage(title: string, ...targets: Target[]) {
  const owner = await ownerApi(server.url)
  const { id, revision, slug } = await owner<PageDetails>('/pages', { method: 'POST', json: { title } })
  const draft = pageOf(
    heading('Where to go'),
    ...targets.map((target, index) =>
      button({ placement: `${slug.replace(/\W/g, '')}${index}aaaa`, target, label: `Way ${index + 1}`, note: '' }),
    ),
  )
  await owner(`/pages/${id}/draft`, { method: 'PUT', json: { title, draft, revision } })
  await owner(`/pages/${id}/publish`, { method: 'POST', json: {} })
  return { id, html: async () => (await fetch(`${server.url}/${slug}`)).text() }
}
const supplier: Target = { kind: 'address', href: 'https://supplier.example/clay' }

test('an address is replaced everywhere from one button that leads there, with what was just written, and taken back', async ({ page }) => {
  const [one, other] = [await makePage('Linkage', supplier), await makePage('Otherwise', supplier)]
  await page.reload()
  await openPage(page, 'Linkage')
  await page.keyboard.type('Just written.')
  await page.locator('.button-view').click()
  await page.getByRole('button', { name: 'Replace everywhere…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Something else in the place of “supplier.example/clay”' })
  await expect(dialog.getByRole('listitem')).toHaveText([/^Linkagebutton “Way 1”, under “Where to go”live$/, /^Otherwisebutton/])
  await dialog.getByRole('combobox').fill('https://clay.example/new')
  await dialog.getByRole('option', { name: /clay.example\/new/ }).click()
  await dialog.getByRole('button', { name: 'Lead all 2 places there' }).click()
  await expect(page.getByText('2 places lead to “clay.example/new” now')).toBeVisible()
  for (const made of [one, other]) expect(await made.html()).toContain('href="https://clay.example/new"')
  // The open page shows it, and has what was written.
  await expect(page.locator('.margin, .note').getByText('https://clay.example/new')).toBeVisible()
  await expect(page.getByText('Just written.')).toBeVisible()
  await page.locator('.notice').getByRole('button', { name: 'Undo' }).first().click()
  await expect.poll(other.html).toContain('href="https://supplier.example/clay"')
  await expect(page.locator('.note').getByText('https://supplier.example/clay')).toBeVisible()
})

test('a page that others lead to shows where, and goes once they lead elsewhere or are taken off', async ({ page }) => {
  const sale = await makePage('Winter sale')
  const leading = await makePage('Winter', { kind: 'page', id: sale.id }, supplier)
  await page.reload()
  await openPage(page, 'Winter sale')
  await page.getByText('1 place on other pages leads here').click()
  await expect(page.getByRole('link', { name: 'Winter', exact: true })).toBeVisible()
  await page.getByRole('button', { name: 'Take offline' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Take it offline' }).click()
  const dialog = page.getByRole('dialog', { name: '1 place leads to “Winter sale”' })
  await dialog.getByRole('button', { name: /^Lead it somewhere else/ }).click()
  await dialog.getByRole('combobox').fill('kilns')
  await dialog.getByRole('option', { name: /Kilns.*\/kilns/ }).click()
  await expect(page.getByText('Visitors no longer find /winter-sale.')).toBeVisible()
  expect(await leading.html()).toContain('href="/kilns"')

  const other = await makePage('Winter clearance')
  const led = await makePage('Ways', { kind: 'page', id: other.id })
  await page.goto(`${server.url}/desk`)
  await page.getByRole('button', { name: 'Remove Winter clearance' }).click()
  await page
    .getByRole('dialog')
    .getByRole('button', { name: /^Take it off/ })
    .click()
  const listed = page.locator('.pages a.row', { hasText: 'Winter clearance' })
  await expect(listed).toHaveCount(0)
  expect(await led.html()).not.toContain('Way 1')
  // It lies in the bin, and comes back from there as well as by Undo.
  const back = page.getByText('“Winter clearance” is back.')
  await page.getByRole('button', { name: 'Restore Winter clearance' }).click()
  await expect(back).toHaveCount(1)
  await page.getByRole('button', { name: 'Remove Winter clearance' }).click()
  // That it went the first time is said there still: its Undo must not be pressed before it has gone again.
  await expect(listed).toHaveCount(0)
  await page.locator('.notice', { hasText: '“Winter clearance” is in the bin.' }).first().getByRole('button', { name: 'Undo' }).click()
  await expect(listed).toHaveCount(1)
  await page.getByRole('button', { name: 'Remove Winter clearance' }).click()
  await page.getByRole('button', { name: 'Delete Winter clearance for good' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Delete it' }).click()
  await expect(page.locator('.pages').getByText('Winter clearance')).toHaveCount(0)
})

test('what was replaced everywhere is undone with the keyboard among all that was done on the page, also after a reload, and done once more', async ({
  page,
}) => {
  const [one, other] = [await makePage('Undone', supplier), await makePage('Elsewhere', supplier)]
  await page.reload()
  await openPage(page, 'Undone')
  await page.keyboard.type('Written before.')
  await page.locator('.button-view').click()
  await page.getByRole('button', { name: 'Replace everywhere…' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('combobox').fill('https://clay.example/undone')
  await dialog.getByRole('option', { name: /clay.example\/undone/ }).click()
  await dialog.getByRole('button', { name: /^Lead all \d+ places there/ }).click()
  await expect.poll(other.html).toContain('href="https://clay.example/undone"')
  await page.getByText('Written before.').click()
  await page.keyboard.press('End')
  // In one go: what is typed slowly is undone piece by piece.
  await page.keyboard.insertText(' Written after.')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()

  await page.reload()
  const writing = page.getByRole('textbox', { name: 'The page', exact: true })
  await expect(writing).toContainText('Written before. Written after.')
  await page.keyboard.press('Control+z')
  await expect(writing).not.toContainText('Written after.')
  expect(await other.html()).toContain('href="https://clay.example/undone"')
  await page.keyboard.press('Control+z')
  for (const made of [one, other]) await expect.poll(made.html).toContain('href="https://supplier.example/clay"')
  await page.keyboard.press('Control+Shift+z')
  for (const made of [one, other]) await expect.poll(made.html).toContain('href="https://clay.example/undone"')
  await page.keyboard.press('Control+z')
  await expect.poll(other.html).toContain('href="https://supplier.example/clay"')
  await page.keyboard.press('Control+z')
  await expect(writing).not.toContainText('Written before.')

  // Who signs in next in this window finds nothing of it.
  await page.getByRole('button', { name: 'Account and setup' }).click()
  await page.getByRole('menuitem', { name: 'Sign out' }).click()
  await expect(page.getByLabel('Password')).toBeVisible()
  expect(await page.evaluate(() => Object.keys(sessionStorage))).toEqual([])
})
