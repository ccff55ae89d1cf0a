import { expect, test } from '@playwright/test'
import { zipSync, strToU8 } from 'fflate'
import { dropFiles } from './support/files'
import { choose, copied, openDesk, openFolder, openPage, row, showInLibrary } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const text = (name: string, words: string) => ({ name, mimeType: 'text/plain', buffer: Buffer.from(words) })

test('folders are made where one stands, renamed in place, marked, and moved by key with search', async ({ page }) => {
  await openFolder(page, 'Kilns')
  await page.getByRole('button', { name: 'More ways in' }).click()
  await page.getByRole('menuitem', { name: 'New folder' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Old models')
  await page.getByRole('radio', { name: 'straw' }).check()
  await page.getByRole('button', { name: 'Make the folder' }).click()
  const link = page.locator('.folder-strip a.name', { hasText: 'Old models' })
  await link.focus()
  await page.keyboard.press('F2')
  await page.getByLabel('New name of Old models').fill('spare parts')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alert')).toContainText('There is a folder "spare parts" here already.')
  // It comes to stand below another one then.
  await page.getByLabel('New name of Old models').fill('Withdrawn')
  await page.keyboard.press('Enter')
  const withdrawn = page.locator('.folder-strip a.name', { hasText: 'Withdrawn' })
  await expect(withdrawn).toBeFocused()

  await page.keyboard.press('m')
  const chooser = page.getByRole('combobox', { name: 'Find a folder' })
  await chooser.fill('guid')
  await expect(page.getByRole('option', { name: 'Guides' })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await expect(page.getByText('1 folder moved to “Guides”.')).toBeVisible()
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(withdrawn).toBeVisible()
})

test('files are chosen by click, Shift, Ctrl and key, dragged onto a strip, and brought back', async ({ page }) => {
  await openFolder(page, 'Firing charts')
  await row(page, 'Firing chart biscuit').locator('.cell').first().click()
  await row(page, 'Firing chart porcelain')
    .locator('.cell')
    .first()
    .click({ modifiers: ['Shift'] })
  const bar = page.getByRole('toolbar', { name: 'With what is chosen' })
  await expect(bar).toContainText('3 files')
  await row(page, 'Firing chart raku')
    .locator('.cell')
    .first()
    .click({ modifiers: ['Control'] })
  await expect(bar).toContainText('2 files')
  await page.keyboard.press('Escape')
  await row(page, 'Firing chart biscuit').getByRole('link').focus()
  await page.keyboard.press('Control+a')
  await expect(bar).toContainText('5 files')
  await row(page, 'Firing chart stoneware').dragTo(
    page.getByRole('navigation', { name: 'Way to this folder' }).getByText('Library', { exact: true }),
  )
  await expect(page.getByText('5 files moved to the top of the library.')).toBeVisible()
  await page.locator('.notice').getByRole('button', { name: 'Undo' }).first().click()
  await expect(row(page, 'Firing chart')).toHaveCount(5)

  // A box drawn in the gutter beside the rows.
  const [first, third] = [(await row(page, 'Firing chart').nth(0).boundingBox())!, (await row(page, 'Firing chart').nth(2).boundingBox())!]
  await page.mouse.move(first.x + 10, first.y + 10)
  await page.mouse.down()
  await page.mouse.move(third.x + 12, third.y + 10, { steps: 5 })
  await page.mouse.up()
  await expect(bar).toContainText('3 files')
})

test('what is chosen is described at once, and its links are copied in four ways', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await openFolder(page, 'Guides')
  await row(page, 'Wedging clay').locator('.cell').first().click()
  await row(page, 'Throwing a first bowl')
    .locator('.cell')
    .first()
    .click({ modifiers: ['Control'] })
  await page.getByRole('button', { name: 'Describe…' }).click()
  await expect(page.getByLabel('Add tags')).toBeFocused()
  await page.keyboard.type('beginners')
  await page.keyboard.press('Enter')
  await page.getByLabel('Description, for all of them').fill('For the first evening')
  await page.getByRole('button', { name: 'Save' }).click()
  await expect(page.getByText('2 files described.')).toBeVisible()
  await expect(page.locator('.file-row a.title:focus')).toHaveCount(1)
  for (const [format, start] of [
    ['Plain addresses', 'https://www.marlpit.example/files/'],
    ['HTML list', '<ul>'],
    ['Markdown', '- ['],
    ['CSV', 'title,address'],
  ] as const) {
    await page.getByRole('button', { name: 'Copy links' }).click()
    await page.getByRole('menuitem', { name: format, exact: true }).click()
    await copied(page, new RegExp(`^${start.replace('[', '\\[')}`))
  }
  await showInLibrary(page, 'beginners')
  await expect(row(page, /Wedging|bowl/)).toHaveCount(2)
})

test('a folder goes to the bin with what is in it, stopped by files in use, and comes back', async ({ page }) => {
  await page.locator('.folder-strip', { hasText: 'Classes' }).locator('.count').click()
  await page.keyboard.press('Delete')
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('25 places lead to “Classes”')
  await dialog.getByRole('button', { name: /Delete all the same/ }).click()
  await expect(page.locator('.folder-strip', { hasText: 'Classes' })).toHaveCount(0)
  await page.getByRole('button', { name: 'Bin', exact: true }).click()
  await page.getByRole('button', { name: 'Restore Classes' }).click()
  await page.getByRole('button', { name: 'Take away: in the bin' }).click()
  await openFolder(page, 'Classes')
  await expect(row(page, /.+/)).toHaveCount(5)
})

test('the keyboard comes to the list, and goes on in the next one', async ({ page }) => {
  await page.keyboard.press('Alt+1')
  await expect(page.locator('.folder-strip a.name').first()).toBeFocused()
  await page.locator('.folder-strip a.name', { hasText: 'Guides' }).focus()
  await page.keyboard.press('Enter')
  await page.getByRole('navigation', { name: 'Way to this folder' }).getByText('Guides', { exact: true }).waitFor()
  await expect(page.locator('.file-row a.title').first()).toBeFocused()
  await page.keyboard.press('Control+k')
  await page.keyboard.type('thermocouple')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('button', { name: 'Take away: “thermocouple”' })).toBeVisible()
  await expect(page.locator('.file-row a.title').first()).toBeFocused()
})

test('the keyboard goes on where the last file or a folder was that it moved away', async ({ page }) => {
  await openFolder(page, 'Kilns')
  const moveToGuides = async () => {
    await page.keyboard.press('m')
    await page.getByRole('combobox', { name: 'Find a folder' }).fill('guid')
    await page.keyboard.press('Enter')
  }
  const links = page.locator('.file-row a.title')
  await row(page, 'K60 kiln manual').waitFor()
  await links.last().focus()
  const left = (await links.count()) - 1
  await moveToGuides()
  await expect(links).toHaveCount(left)
  await expect(links.last()).toBeFocused()
  const strips = page.locator('.folder-strip a.name')
  const folders = await strips.count()
  await strips.first().focus()
  await moveToGuides()
  await expect(strips).toHaveCount(folders - 1)
  await expect(strips.or(links).first()).toBeFocused()
  await page.locator('.notice', { hasText: '1 folder moved to “Guides”' }).getByRole('button', { name: 'Undo' }).click()
  await expect(strips).toHaveCount(folders)

  // So does who presses a button of the bar that goes with the selection.
  await links.first().focus()
  await page.keyboard.press('Space')
  await page.getByRole('button', { name: 'Choose nothing' }).press('Enter')
  await expect(strips.or(links).and(page.locator(':focus'))).toHaveCount(1)

  // From an empty folder, too, what is found is where the keyboard goes on, however long it is in coming.
  await page.getByRole('button', { name: 'More ways in' }).click()
  await page.getByRole('menuitem', { name: 'New folder' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Nothing yet')
  await page.keyboard.press('Enter')
  await openFolder(page, 'Nothing yet')
  await page.clock.install()
  let letGo = () => {}
  const held = new Promise<void>(resolve => (letGo = resolve))
  await page.route(/\/api\/files\?.*q=thermocouple.*from=0/, route => held.then(() => route.continue()))
  await page.keyboard.press('Alt+1')
  await page.keyboard.press('Control+k')
  await page.keyboard.type('thermocouple')
  await page.keyboard.press('Control+Enter')
  await page.getByRole('button', { name: 'Take away: “thermocouple”' }).waitFor()
  await page.clock.fastForward(20_000)
  letGo()
  await expect(links.first()).toBeFocused()
})

test('an own order is kept, changed by key and undone', async ({ page }) => {
  await openFolder(page, 'Classes')
  const titles = () => page.locator('.file-row a.title').allTextContents()
  await expect
    .poll(titles)
    .toEqual([
      'Class joining form',
      'What to bring to a class',
      'Rules of the studio',
      'Class dates, winter 2027',
      'Class timetable, winter 2027',
    ])
  await row(page, 'Class timetable').getByRole('link').focus()
  await page.keyboard.press('Alt+ArrowUp')
  await expect
    .poll(titles)
    .toEqual([
      'Class joining form',
      'What to bring to a class',
      'Rules of the studio',
      'Class timetable, winter 2027',
      'Class dates, winter 2027',
    ])
  await expect(row(page, 'Class timetable').getByRole('link')).toBeFocused()
  await row(page, 'Class dates').dragTo(row(page, 'Class joining form'), { targetPosition: { x: 120, y: 4 } })
  await expect.poll(async () => (await titles())[0]).toBe('Class dates, winter 2027')
  await page.locator('.notice').getByRole('button', { name: 'Undo' }).first().click()
  await expect.poll(async () => (await titles())[0]).toBe('Class joining form')
})

test('names that are there already are asked about once; a new edition keeps address and buttons', async ({ page, request }) => {
  await openFolder(page, 'Guides')
  await dropFiles(page, [text('one.txt', 'old one'), text('two.txt', 'old two')], '.library', { x: 100, y: 500 })
  await expect(row(page, /One|Two/)).toHaveCount(2)
  await dropFiles(page, [text('one.txt', 'new one'), text('two.txt', 'new two'), text('three.txt', 'new three')], '.library', {
    x: 100,
    y: 500,
  })
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('2 files of the same names are there already')
  await dialog.getByRole('radiogroup', { name: 'What becomes of two.txt' }).getByRole('radio', { name: 'Leave out' }).check()
  await dialog.getByRole('button', { name: 'Go on' }).click()
  await expect(row(page, 'Three')).toHaveCount(1)
  await expect.poll(async () => (await request.get(`${server.url}/files/one.txt`)).text()).toBe('new one')
  expect(await (await request.get(`${server.url}/files/two.txt`)).text()).toBe('old two')
  await row(page, /^TXT\s*One/)
    .getByRole('link')
    .click()
  await page.getByRole('button', { name: 'Show this one: edition 1' }).click()
  await expect.poll(async () => (await request.get(`${server.url}/files/one.txt`)).text()).toBe('old one')
  await expect(row(page, /^TXT\s*One/)).toContainText('newer')
})

test('a folder chosen on the computer keeps its structure', async ({ page }) => {
  const { mkdtempSync, mkdirSync, writeFileSync } = await import('node:fs')
  const folder = `${mkdtempSync('/tmp/trough-folder-')}/Archive`
  mkdirSync(`${folder}/2025/deep`, { recursive: true })
  writeFileSync(`${folder}/top.txt`, 'top')
  writeFileSync(`${folder}/2025/deep/low.txt`, 'low')
  await page.getByRole('button', { name: 'More ways in' }).click()
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('menuitem', { name: 'A whole folder…' }).click()])
  await chooser.setFiles(folder)
  for (const name of ['Archive', '2025', 'deep']) await openFolder(page, name)
  await expect(row(page, 'Low')).toHaveCount(1)
})

test('a zip is unpacked with a report; a web address is fetched once its host is allowed', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const zip = Buffer.from(zipSync({ 'inner/good.txt': strToU8('good'), '../bad.txt': strToU8('bad') }))
  await dropFiles(page, [{ name: 'parcel.zip', mimeType: 'application/zip', buffer: zip }], '.library', { x: 100, y: 500 })
  await row(page, 'Parcel').getByRole('link').click()
  await expect(page.getByRole('cell', { name: 'inner/good.txt' })).toBeVisible()
  await page.getByRole('button', { name: 'Unpack into the library' }).click()
  await expect(page.getByText('1 file unpacked from “Parcel”. 1 left out.')).toBeVisible()
  await page.getByRole('button', { name: 'Show report' }).click()
  await expect(page.getByRole('dialog')).toContainText('Its name leads out of the zip.')
  await page.getByRole('button', { name: 'Close' }).click()
  for (const name of ['parcel', 'inner']) await openFolder(page, name)
  await expect(row(page, 'Good')).toHaveCount(1)

  // Pasted outside any field, an address is offered to be fetched; this server stands in for another.
  await page.evaluate(address => navigator.clipboard.writeText(address), `${server.url}/files/glaze-notebook.md`)
  await row(page, 'Good').getByRole('link').focus()
  await page.keyboard.press('Control+v')
  await page.getByRole('button', { name: 'Fetch it' }).click()
  await expect(page.getByRole('region', { name: 'The trough' })).toContainText('lies in a private network')
  await page.getByRole('button', { name: 'Allow this host' }).click()
  await expect(row(page, 'Glaze notebook')).toHaveCount(1)
})

test('found by words inside, with passage and page; narrowed by filters that are in the address', async ({ page }) => {
  await showInLibrary(page, 'witness cone')
  const chart = row(page, 'Firing chart stoneware')
  await expect(chart).toContainText(/Page 1.*witness cone bends/)
  await expect(chart.locator('mark')).toHaveText(['witness', 'cone'])
  await page.getByRole('button', { name: 'Narrow down' }).click()
  await choose(page, 'Use', 'used on a page')
  await expect(row(page, 'Firing chart biscuit')).toHaveCount(0)
  await page.getByRole('button', { name: 'Take away: used' }).click()
  await expect(row(page, 'Firing chart biscuit')).toHaveCount(1)
  await page.getByRole('checkbox', { name: 'Pictures' }).check()
  await expect(page.getByText('No file fits “witness cone”.')).toBeVisible()
  await expect(page).toHaveURL(/type=picture/)
  const address = page.url()
  await page.getByRole('button', { name: 'Show all files' }).click()
  await page.goto(address)
  await expect(page.getByRole('button', { name: 'Take away: Pictures' })).toBeVisible()
  await page.getByRole('button', { name: 'Take away: Pictures' }).click()
  await page.getByRole('button', { name: 'Size', exact: true }).click()
  await expect(page).toHaveURL(/sort=-size/)
  await expect(page.locator('.file-row a.title').last()).toHaveText('Changing the thermocouple')
})

test('two filters set at once are both kept, on the board and in its address', async ({ page }) => {
  await page.getByRole('button', { name: 'Narrow down' }).click()
  await expect(page.getByRole('checkbox', { name: 'Pictures' })).toBeVisible()
  // By script: no hand is fast enough, but a hand on a slow machine is.
  await page.getByRole('group', { name: 'Narrow down' }).evaluate(async panel => {
    const [first, second] = panel.querySelectorAll<HTMLInputElement>('.kinds input')
    first!.click()
    await Promise.resolve()
    second!.click()
  })
  await expect(page).toHaveURL(/type=.*&type=/)
  await expect(page.getByRole('button', { name: /^Take away: / })).toHaveCount(2)
  await page.reload()
  await expect(page.getByRole('button', { name: /^Take away: / })).toHaveCount(2)
})

test('a slip of typing in a title is forgiven; Back leads to the folder before', async ({ page }) => {
  await showInLibrary(page, 'thremocouple')
  await expect(row(page, 'Changing the thermocouple')).toContainText('nearly')
  await page.getByRole('button', { name: 'Take away' }).first().click()
  await openFolder(page, 'Kilns')
  await openFolder(page, 'Spare parts')
  await page.goBack()
  await expect(page.getByRole('navigation', { name: 'Way to this folder' }).getByText('Kilns')).toBeVisible()
  await expect(row(page, 'K60 kiln manual')).toBeVisible()
})

test('a better name is offered, and taken or not; the address stays', async ({ page, request }) => {
  await row(page, 'Opening hours FINAL').getByRole('link').click()
  const advice = page.getByRole('region', { name: 'A better name' })
  await expect(advice).toContainText('“final” tells visitors nothing')
  await advice.getByRole('button', { name: /Call it opening-hours-\d{4}-\d\d\.docx/ }).click()
  await expect(page.getByText(/Visitors now save it as opening-hours-/)).toBeVisible()
  expect((await request.get(`${server.url}/files/opening-hours-final-2.docx`)).headers()['content-disposition']).toMatch(
    /opening-hours-\d{4}-\d\d\.docx/,
  )
  await expect(advice).toHaveCount(0)
})

test('the trough gathers files from several folders, to be placed or moved together', async ({ page }) => {
  await openPage(page, 'Trade')
  const trough = page.getByRole('region', { name: 'The trough' })
  for (const [folder, title] of [
    ['Guides', 'Wedging clay'],
    ['Kilns', 'K100 kiln manual'],
  ] as const) {
    await openFolder(page, folder)
    await row(page, title).getByRole('link').focus()
    await page.keyboard.press('t')
    await page.getByRole('navigation', { name: 'Way to this folder' }).getByText('Library', { exact: true }).click()
  }
  await expect(trough.getByRole('listitem').filter({ hasNotText: 'from' })).toHaveCount(2)
  await trough.getByRole('button', { name: 'Choose all 2' }).click()
  await page.getByRole('toolbar', { name: 'With what is chosen' }).getByRole('button', { name: 'Place' }).click()
  await expect(page.locator('.button-view', { hasText: /K100 kiln manual|Wedging clay/ })).toHaveCount(2)
  const [download] = await Promise.all([page.waitForEvent('download'), page.getByRole('button', { name: 'As a zip' }).click()])
  expect(download.suggestedFilename()).toBe('files.zip')
})

for (const [title, words] of [
  ['Spare parts k60', 'Thermocouple, type R'],
  ['Stock list', 'Porcelain P40'],
  ['Test tile pictures', 'celadon.png'],
  ['Order form', 'Order form'],
] as const) {
  test(`the contents of “${title}” are shown`, async ({ page }) => {
    await showInLibrary(page, title)
    await row(page, title).first().getByRole('link').click()
    await expect(page.locator('.file-view')).toContainText(words)
  })
}

test('a document is shown as one, where no script runs; a PDF page by page', async ({ page }) => {
  await showInLibrary(page, 'Class joining form')
  await row(page, 'Class joining form').first().getByRole('link').click()
  await expect(page.frameLocator('.file-view iframe').getByText('Have you thrown before?')).toBeVisible()
  await expect(page.locator('.file-view iframe')).toHaveAttribute('sandbox', '')
  await showInLibrary(page, 'K200')
  await row(page, 'K200 kiln manual').getByRole('link').click()
  await expect(page.getByRole('img', { name: /^Page 1 of/ })).toBeVisible()
  await page.getByLabel('Go to page').fill('9')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/Page (8|9) of/)).toBeVisible()
  await expect
    .poll(() => page.getByRole('img', { name: /^Page 9 of/ }).evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBeGreaterThan(500)
})

test('on a phone a file that is tapped comes to the front, and the library when one goes back', async ({ page }) => {
  await openFolder(page, 'Guides')
  await page.setViewportSize({ width: 390, height: 800 })
  await page.getByRole('button', { name: 'Library', exact: true }).click()
  await row(page, 'Wedging clay').getByRole('link').click()
  await expect(page.getByRole('heading', { name: 'Wedging clay' })).toBeVisible()
  await expect(row(page, 'Wedging clay')).toBeHidden()
  await page.getByRole('button', { name: 'Library', exact: true }).click()
  await row(page, 'Wedging clay').getByRole('link').click()
  await expect(page.getByRole('heading', { name: 'Wedging clay' })).toBeVisible()
  await page.goBack()
  await expect(row(page, 'Wedging clay')).toBeVisible()
})

test('a part of the desk that cannot be fetched when it is called for is said, with the way on', async ({ page }) => {
  await page.route('**/_nuxt/**', route => route.abort())
  const narrow = page.getByRole('button', { name: 'Narrow down' })
  await narrow.click()
  await expect(page.getByText('A part of the desk could not be fetched.')).toBeVisible()
  await page.unroute('**/_nuxt/**')
  await page.getByRole('button', { name: 'Load again' }).click()
  await page.getByRole('grid', { name: 'Files' }).waitFor()
  await narrow.click()
  await expect(page.getByRole('group', { name: 'Narrow down' })).toBeVisible()
})
