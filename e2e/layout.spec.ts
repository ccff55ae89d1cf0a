import { expect, test, type Page } from '@playwright/test'
import { pageDocumentSchema } from '../core/page/schema'
import { add, newPage, openDesk, openPage, ownerApi, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const writing = (page: Page) => page.locator('.ProseMirror')
const saved = (page: Page) => expect(page.getByText('Saved', { exact: true })).toBeVisible()

test('parts are put in by typing /, written in, moved by key into and out of columns, and reach the visitor', async ({ page }) => {
  const id = await newPage(page, 'Laid out')
  await add(page, 'Two columns')
  await page.keyboard.type('Left words')
  await page.locator('.tr-column').nth(1).click()
  await page.keyboard.type('Right words')
  await expect(page.locator('.tr-column').nth(1)).toHaveText('Right words')

  // Out of the columns, back into the last of them, and on into the first.
  await page.keyboard.press('Alt+ArrowDown')
  await expect(page.locator('.tr-columns + p')).toHaveText('Right words')
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.locator('.tr-column').nth(1)).toContainText('Right words')
  await page.keyboard.press('Alt+ArrowUp')
  await page.keyboard.press('Alt+ArrowUp')
  await expect(page.locator('.tr-column').nth(0)).toContainText('Right words')
  for (let undone = 0; undone < 4; undone++) await page.keyboard.press('Control+z')
  await expect(page.locator('.tr-column').nth(1)).toHaveText('Right words')

  await page.getByRole('region', { name: 'Settings of these columns' }).getByRole('radio', { name: '3' }).check()
  await expect(page.locator('.tr-column')).toHaveCount(3)
  await page.locator('.tr-column').nth(0).click()
  await page.getByRole('region', { name: 'Settings of these columns' }).getByRole('radio', { name: '2' }).check()
  await expect(page.locator('.tr-column')).toHaveCount(2)

  await page.locator('.sheet').click({ position: { x: 200, y: 600 } })
  await add(page, 'Section')
  await page.keyboard.type('In a section')
  await page.getByRole('region', { name: 'Settings of this section' }).getByRole('radio', { name: 'Deep' }).check()
  await page.keyboard.press('Escape')
  await page.keyboard.press('Enter')
  await add(page, 'Divider')
  await saved(page)
  const api = await ownerApi(server.url)
  const { draft } = await api<{ draft: unknown }>(`/pages/${id}`)
  expect(pageDocumentSchema.safeParse(draft).success).toBe(true)

  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Laid out” is live.')).toBeVisible()
  const visitor = await page.context().newPage()
  await visitor.goto(`${server.url}/laid-out`)
  const [left, right] = [await visitor.locator('.tr-column').nth(0).boundingBox(), await visitor.locator('.tr-column').nth(1).boundingBox()]
  expect(left!.y).toBeCloseTo(right!.y, 0)
  expect(right!.x).toBeGreaterThan(left!.x + left!.width - 1)
  const section = (await visitor.locator('main .tr-section').boundingBox())!
  expect(section.width).toBe(visitor.viewportSize()!.width)
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
  await visitor.setViewportSize({ width: 390, height: 800 })
  const [above, below] = [
    await visitor.locator('.tr-column').nth(0).boundingBox(),
    await visitor.locator('.tr-column').nth(1).boundingBox(),
  ]
  expect(below!.y).toBeGreaterThan(above!.y + above!.height - 1)
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
})

test('a file dropped on a button is what it leads to, and is taken back by Undo; beside it, it is another one', async ({ page }) => {
  await newPage(page, 'Re-targeted')
  await add(page, 'Row of buttons')
  const buttons = page.locator('.tr-row .tr-button')
  await expect(buttons).toHaveCount(1)
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find files, pages and settings' }).fill('Firing chart')
  await page.keyboard.press('Control+Enter')
  await row(page, 'Firing chart raku').dragTo(buttons.first())
  await expect(page.getByText('That button leads to “Firing chart raku” now.')).toBeVisible()
  await expect(buttons.first()).toContainText('Firing chart raku')
  await page.locator('.notice', { hasText: 'leads to' }).getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('.tr-row')).toContainText('Leads nowhere yet')
  await row(page, 'Firing chart raku').dragTo(buttons.first())
  await expect(buttons.first()).toContainText('Firing chart raku')

  const box = (await buttons.first().boundingBox())!
  await row(page, 'Firing chart biscuit').dragTo(page.locator('.tr-row'), { targetPosition: { x: box.width + 30, y: box.height / 2 } })
  await expect(buttons).toHaveText([/raku/, /biscuit/])
  await page.getByRole('region', { name: 'Settings of this row of buttons' }).getByRole('radio', { name: 'Middle' }).press('Space')
  // What cannot stand in a row goes behind it.
  await page.getByRole('button', { name: 'Take away: “Firing chart”' }).click()
  await page.locator('.folder-strip', { hasText: 'Guides' }).dragTo(page.locator('.tr-row'), { targetPosition: { x: 4, y: 40 } })
  await expect(page.locator('.tr-row ~ .shelf-view')).toHaveCount(1)
  await expect(page.locator('.tr-row .shelf-view')).toHaveCount(0)
  await saved(page)
  await page.reload()
  await expect(buttons).toHaveText([/raku/, /biscuit/])
  await expect(page.locator('.tr-row-middle')).toBeVisible()
})

test('a page moves and leaves a way behind it, goes offline, comes back as it was, and is copied', async ({ page }) => {
  const api = await ownerApi(server.url)
  await openPage(page, 'Clay & glaze')
  const settings = page.getByRole('region', { name: 'Settings of this page' })
  await expect(settings).toContainText('Visitors see it as it stands')
  await settings.getByLabel('Address of this page').fill('materials')
  await settings.getByLabel('Address of this page').press('Enter')
  await expect(page.getByText('The page is at /materials now; /clay-and-glaze leads there.')).toBeVisible()
  const moved = await fetch(`${server.url}/clay-and-glaze`, { redirect: 'manual' })
  expect([moved.status, moved.headers.get('location')]).toEqual([308, '/materials'])
  await settings.getByLabel('Address of this page').fill('Trade!')
  await settings.getByLabel('Address of this page').press('Enter')
  await expect(settings.getByRole('alert')).toContainText('“Trade” is at /trade already.')
  await settings.getByLabel('In a few words').fill('Clays, glazes and their data sheets')
  await settings.getByLabel('In a few words').blur()
  await expect
    .poll(async () => (await fetch(`${server.url}/materials`)).text())
    .toContain('<meta name="description" content="Clays, glazes and their data sheets">')

  await writing(page).locator('p').first().click()
  await page.keyboard.press('Control+Home')
  await page.keyboard.type('Before anything else: ')
  await expect(settings).toContainText('Visitors do not see yet')
  await expect(settings).toContainText('Changed text “Before anything else: Every body')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Clay & glaze” is live.')).toBeVisible()
  await settings.getByText('Versions that were live').click()
  await expect(settings.locator('.versions tbody tr')).toHaveCount(2)
  await settings.locator('.versions tbody tr').nth(1).getByRole('button', { name: 'Bring back' }).click()
  await expect(writing(page)).not.toContainText('Before anything else')
  await expect(page.getByText('That version is in the draft now.')).toBeVisible()

  await settings.getByRole('button', { name: 'Take offline' }).click()
  await page.getByRole('alertdialog').getByRole('button', { name: 'Take it offline' }).click()
  // The menu and other pages lead there.
  await page
    .getByRole('dialog', { name: /lead to “Clay & glaze”/ })
    .getByRole('button', { name: /^Take it offline all the same/ })
    .click()
  await expect.poll(async () => (await fetch(`${server.url}/materials`)).status).toBe(404)
  await settings.getByRole('button', { name: 'Duplicate page' }).click()
  await expect(page.locator('.head .address code')).toHaveText('/clay-and-glaze-copy')
  const pages = (await api<{ items: { slug: string; published: string | null }[] }>('/pages')).items
  expect(pages.filter(item => item.slug.includes('clay') || item.slug === 'materials').map(item => [item.slug, item.published])).toEqual([
    ['materials', null],
    ['clay-and-glaze-copy', null],
  ])
})

test('several files dropped at once ask how they should stand', async ({ page }) => {
  await newPage(page, 'Several')
  await page.keyboard.type('Words above')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find files, pages and settings' }).fill('Firing chart')
  await page.keyboard.press('Control+Enter')
  // Keys in the Find field are its own: nothing goes live by them.
  await row(page, 'Firing chart raku').locator('.cell').first().click()
  await expect(page.getByText('Not live yet')).toBeVisible()
  await row(page, 'Firing chart biscuit')
    .locator('.cell')
    .first()
    .click({ modifiers: ['Control'] })
  const dropBoth = () => row(page, 'Firing chart raku').dragTo(writing(page).locator('p', { hasText: 'Words above' }))
  const ways = page.getByRole('dialog', { name: 'How should these 2 files stand?' })

  await dropBoth()
  await ways.getByRole('button', { name: /^Row of buttons/ }).click()
  await expect(page.locator('.tr-row .tr-button')).toHaveText([/Firing chart/, /Firing chart/])
  await page.getByRole('toolbar').getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('.tr-row')).toHaveCount(0)

  await dropBoth()
  await ways.getByRole('button', { name: /^Cards/ }).click()
  await expect(page.locator('.tr-columns-2 .tr-card-title')).toHaveText([/Firing chart/, /Firing chart/])
  await page.getByRole('toolbar').getByRole('button', { name: 'Undo' }).click()
  await expect(page.locator('.tr-card')).toHaveCount(0)

  await dropBoth()
  await ways.getByRole('button', { name: /^Shelf/ }).press('Enter')
  await expect(page.locator('.shelf-view .tr-item')).toHaveCount(2)
  await dropBoth()
  await ways.getByRole('button', { name: /^One bundle/ }).click()
  const bundle = page.locator('.button-view .tr-button')
  await expect(bundle).toHaveText(/Files of “Several”.*ZIP/)
  await saved(page)
})

test('a row is filled from a folder, and goes on with the same button for another file', async ({ page }) => {
  await newPage(page, 'Filled')
  await add(page, 'Row of buttons')
  await page.getByRole('region', { name: 'Settings of this button' }).getByRole('radio', { name: 'Rim' }).check()
  await page.getByRole('button', { name: 'A button for each file of a folder…' }).click()
  await page.getByRole('combobox', { name: 'Find a folder' }).fill('firing')
  await page.keyboard.press('Enter')
  const buttons = page.locator('.tr-row .tr-button.tr-look-rim')
  await expect(buttons).toHaveCount(5)
  await buttons.last().click()
  await page.getByRole('button', { name: 'Same again…' }).click()
  await page.getByRole('combobox', { name: 'Find what the next button leads to' }).fill('opening')
  await page.getByRole('option', { name: /Opening hours/ }).click()
  await expect(buttons).toHaveCount(6)
  await expect(buttons.last()).toContainText('Opening hours FINAL (2)')
  await page.keyboard.press('Control+z')
  await expect(buttons).toHaveCount(5)
  await saved(page)
})

test('a table is written by key, grows, and reaches the visitor with its headings', async ({ page }) => {
  await newPage(page, 'Hours')
  await add(page, 'Table')
  for (const words of ['Day', 'Opens', 'Closes', 'Saturday', '9:00', '12:00', 'Sunday', 'closed', '']) {
    await page.keyboard.type(words)
    await page.keyboard.press('Tab')
  }
  // Tab in the last cell gives one more line.
  await page.keyboard.type('Monday')
  const note = page.getByRole('region', { name: 'Settings of this table' })
  await note.getByRole('checkbox', { name: 'First column names the rows' }).check()
  await note.getByRole('button', { name: 'Column after' }).click()
  await page.keyboard.press('Tab')
  await note.getByRole('button', { name: 'Take column away' }).click()
  await expect(writing(page).locator('tr')).toHaveCount(4)
  await saved(page)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Hours” is live.')).toBeVisible()
  const visitor = await page.context().newPage()
  await visitor.setViewportSize({ width: 390, height: 800 })
  await visitor.goto(`${server.url}/hours`)
  await expect(visitor.getByRole('columnheader')).toHaveText(['Day', 'Opens', 'Closes'])
  await expect(visitor.getByRole('rowheader')).toHaveText(['Saturday', 'Sunday', 'Monday'])
  expect(await visitor.evaluate(() => document.documentElement.scrollWidth <= innerWidth)).toBe(true)
})

test('a block is dragged by its handle, out of columns and back, and undone', async ({ page }) => {
  await newPage(page, 'Dragged')
  await page.keyboard.type('First words')
  await page.keyboard.press('Enter')
  await add(page, 'Two columns')
  await page.keyboard.type('In a column')
  const handle = page.getByRole('button', { name: 'Drag this block' })
  const dragByHandle = async (words: string, to: { x: number; y: number }) => {
    await writing(page).locator('p', { hasText: words }).hover()
    await handle.hover()
    await page.mouse.down()
    await page.mouse.move(to.x, to.y, { steps: 6 })
    await expect(page.locator('.drop-mark')).toBeVisible()
    await page.mouse.up()
  }
  const inside = (await page.locator('.tr-column').nth(1).boundingBox())!
  await dragByHandle('First words', { x: inside.x + 20, y: inside.y + 4 })
  await expect(page.locator('.tr-column').nth(1)).toContainText('First words')
  const top = (await page.locator('.tr-columns').boundingBox())!
  await dragByHandle('In a column', { x: top.x + 60, y: top.y - 12 })
  await expect(writing(page).locator('> p').first()).toHaveText('In a column')
  await page.keyboard.press('Control+z')
  await expect(page.locator('.tr-column').nth(0)).toHaveText('In a column')
  await saved(page)
})

test('a question folds out without script, with a button in it; two columns share their room as is chosen', async ({ page }) => {
  await newPage(page, 'Questions')
  await add(page, 'Fold-out')
  await page.keyboard.type('How hot does it get?')
  await page.keyboard.press('ArrowDown')
  await page.keyboard.type('As hot as it takes. ')
  await page.keyboard.press('Enter')
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('Firing chart raku')
  await page
    .getByRole('option', { name: /Firing chart raku/ })
    .first()
    .waitFor()
  await page.keyboard.press('Enter')
  await expect(page.locator('.tr-fold .button-view')).toHaveCount(1)
  await saved(page)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Questions” is live.')).toBeVisible()
  const visitor = await page.context().newPage()
  await visitor.goto(`${server.url}/questions`)
  const button = visitor.getByRole('link', { name: /Firing chart raku/ })
  await expect(button).toBeHidden()
  await visitor.getByText('How hot does it get?').click()
  await expect(button).toBeVisible()
  await visitor.close()

  await page.goto(`${server.url}/desk`)
  await newPage(page, 'Shares')
  await add(page, 'Two columns')
  await page.keyboard.type('Words')
  await page.getByRole('region', { name: 'Settings of these columns' }).getByRole('radio', { name: 'First wider' }).check()
  const widths = () =>
    page
      .locator('.tr-column')
      .evaluateAll(([first, second]) => first!.getBoundingClientRect().width / second!.getBoundingClientRect().width)
  await expect.poll(widths).toBeGreaterThan(1.7)
})
