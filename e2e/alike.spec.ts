import { expect, test, type Page } from '@playwright/test'
import { add, newPage, openDesk, openPage } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const buttons = (page: Page) => page.locator('.button-view .tr-button')
const note = (page: Page) => page.getByRole('region', { name: 'Settings of this button' })

/** Puts a button for a file where the caret is. */
async function place(page: Page, words: string) {
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill(words)
  await page
    .getByRole('option', { name: new RegExp(words, 'i') })
    .first()
    .waitFor()
  await page.keyboard.press('Enter')
}

test('a button that is put below one, or beside it, looks like it, does the same at a click, and is undone in one step', async ({
  page,
}) => {
  await newPage(page, 'All alike')
  await place(page, 'Stock list')
  await note(page).getByRole('radio', { name: 'Rim' }).check()
  await note(page).getByRole('radio', { name: 'Save' }).check()
  await note(page).getByRole('radio', { name: 'Middle' }).check()
  await page.locator('div.sheet').click({ position: { x: 200, y: 600 } })
  await place(page, 'Carriage rates')
  await expect(buttons(page)).toHaveCount(2)
  await expect(buttons(page).last()).toHaveClass(/tr-look-rim/)
  await expect(page.locator('p.button-view').last()).toHaveClass(/tr-middle/)
  await expect(note(page).getByRole('radio', { name: 'Save' })).toBeChecked()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Control+z')
  await expect(buttons(page)).toHaveCount(1)
  await page.keyboard.press('Control+Shift+z')

  // Elsewhere on the page it takes what the page uses most; a row begins so as well.
  await page.locator('div.sheet').click({ position: { x: 200, y: 600 } })
  await page.keyboard.type('More of it below.')
  await page.keyboard.press('Enter')
  await add(page, 'Row of buttons')
  await expect(page.locator('.tr-row .tr-button.tr-look-rim')).toHaveCount(1)
})

test('the same button again, for files of the computer, one below the other', async ({ page }) => {
  await newPage(page, 'Again')
  await place(page, 'Stock list')
  await note(page).getByRole('radio', { name: 'Rim' }).check()
  await note(page).getByRole('button', { name: 'Same again…' }).click()
  await page.getByRole('combobox', { name: 'Find what the next button leads to' }).waitFor()
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('option', { name: /computer/i }).click()
  await (
    await choosing
  ).setFiles(
    ['Slip recipes.txt', 'Wax resist.txt'].map(name => ({ name, mimeType: 'text/plain', buffer: Buffer.from(`${name}, ${Date.now()}`) })),
  )
  await expect(buttons(page)).toHaveText([/Stock list/, /Slip recipes/, /Wax resist/])
  await expect(page.locator('.button-view .tr-button.tr-look-rim')).toHaveCount(3)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Again” is live.')).toBeVisible()
  const live = await (await page.request.get(`${server.url}/again`)).text()
  expect(live).toMatch(/href="\/files\/slip-recipes\.txt\?open/)
  expect(live).toMatch(/href="\/files\/wax-resist\.txt\?open/)
})

test('a label that spoke of another file is offered anew when the button is led elsewhere, and may be left', async ({ page }) => {
  await newPage(page, 'Labels')
  await place(page, 'Stock list')
  const lead = async (words: string) => {
    await note(page).getByRole('button', { name: 'Lead elsewhere…' }).click()
    await page.getByRole('combobox', { name: 'Find what this leads to' }).fill(words)
    await page
      .getByRole('option', { name: new RegExp(words) })
      .first()
      .click()
  }
  await lead('Carriage rates')
  await note(page).getByRole('button', { name: 'Say “Carriage rates”' }).click()
  await expect(buttons(page)).toHaveText(/Carriage rates/)
  await expect(note(page)).not.toContainText('Leave the label')

  await note(page).getByLabel('Label').fill('Trade prices, May 2026')
  await lead('Trade price list')
  await expect(note(page).getByRole('button', { name: 'Say “Trade prices, November 2026”' })).toBeVisible()
  await note(page).getByRole('button', { name: 'Leave the label' }).click()
  await expect(note(page)).not.toContainText('Leave the label')
  await expect(buttons(page)).toHaveText(/Trade prices, May 2026/)
})

test('an address is made of what is written, for a page and a file, and what cannot be one is said at its field', async ({ page }) => {
  await page.getByRole('button', { name: 'New page' }).click()
  await page.getByLabel('Title', { exact: true }).fill('Schools')
  await page.getByLabel('Address', { exact: true }).fill('Kilns for Schools')
  await page.getByRole('button', { name: 'Make the page' }).click()
  await page.waitForURL(/\/desk\/pages\//)
  const address = page.getByLabel('Address of this page')
  await expect(address).toHaveValue('kilns-for-schools')

  await address.fill('Öfen & Co.')
  await address.press('Enter')
  await expect(address).toHaveValue('ofen-and-co')
  await expect(page.getByText('The page is at /ofen-and-co now; /kilns-for-schools leads there.')).toBeVisible()
  await address.fill('trade')
  await address.press('Enter')
  await expect(page.locator('.fields .v-input--error')).toContainText(/address/)
  await expect(address).toHaveValue('trade')
  await page.getByRole('link', { name: 'Pages', exact: true }).click()
  await openPage(page, 'Trade')
  await expect(page.getByLabel('Address of this page')).toHaveValue('trade')
})

test('a file that the library has already is offered instead of a second one like it', async ({ page }) => {
  const found = await (await page.request.get(`${server.url}/api/files?q=carriage+rates`)).json()
  const bytes = await (await page.request.get(`${server.url}/files/${found.items[0].handle}`)).body()
  await newPage(page, 'Twins')
  const bring = async () => {
    const choosing = page.waitForEvent('filechooser')
    await page.keyboard.press('Control+u')
    await (await choosing).setFiles({ name: 'rates copy.csv', mimeType: 'text/csv', buffer: bytes })
  }
  await bring()
  const asked = page.getByRole('alertdialog', { name: /The library has this file/ })
  await asked.getByRole('button', { name: 'Use the one you have' }).click()
  await expect(page.locator('.target .title')).toContainText('Carriage rates')
  expect((await (await page.request.get(`${server.url}/api/files?q=rates+copy`)).json()).total).toBe(0)
  await bring()
  await asked.getByRole('button', { name: 'Put it in once more' }).click()
  await expect(page.locator('.target .title')).toContainText('Rates copy')
})

test('words that a file was dropped on show at once where they lead', async ({ page }) => {
  await newPage(page, 'Words')
  await page.keyboard.type('Take the rates')
  await page.keyboard.press('Shift+Control+ArrowLeft')
  await page.keyboard.press('Control+Shift+K')
  await page.getByRole('combobox', { name: 'Find what these words lead to' }).fill('Carriage rates')
  await page
    .getByRole('option', { name: /Carriage rates/ })
    .first()
    .waitFor()
  await page.keyboard.press('Enter')
  const settings = page.getByRole('region', { name: 'Settings of this link' })
  await expect(settings).toContainText('Carriage rates')
  await page.keyboard.type(' along')
  await expect(settings).toHaveCount(0)
})
