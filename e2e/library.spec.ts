import { expect, test } from '@playwright/test'
import { dropFiles, realPdf } from './support/files'
import { copied, openDesk, openPage, ownerApi, row, showInLibrary } from './support/owner'
import { sendAt } from './support/pace'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
let data: string
test.beforeAll(async () => {
  data = await makeData('demo')
  server = await startServer(data)
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

/** A promise that is kept from outside. */
function openPromise() {
  let resolve!: () => void
  return { promise: new Promise<void>(done => (resolve = done)), resolve: () => resolve() }
}

test('several files at once come in by the button, newest first, with type, size and use', async ({ page }) => {
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Put files in…' }).click()])
  await chooser.setFiles([await realPdf('Uno.pdf'), { name: 'Duo.txt', mimeType: 'text/plain', buffer: Buffer.from('words') }])
  await expect(row(page, 'Uno')).toContainText(/PDF.*Uno.*kB.*not used/)
  await expect(row(page, 'Duo')).toContainText(/TXT.*Duo.*5 B.*not used/)
  await expect(page.getByText('68 files')).toBeVisible()
  // Both wait in the trough to be placed.
  await expect(page.getByRole('region', { name: 'The trough' }).getByRole('listitem').filter({ hasNotText: 'from' })).toHaveCount(2)
})

test('a drop anywhere on the board is taken; the same bytes again are said, a wrong name too', async ({ page }) => {
  const pdf = await realPdf('Twice.pdf')
  await dropFiles(page, [pdf], '.library .rows', { x: 100, y: 400 })
  await expect(row(page, 'Twice')).toHaveCount(1)
  await dropFiles(
    page,
    [
      { ...pdf, name: 'Again.pdf' },
      { ...pdf, name: 'Wrong.docx' },
    ],
    '.library',
    { x: 100, y: 400 },
  )
  await expect(page.getByText('"Again" holds the same bytes as "Twice". They are stored once.')).toBeVisible()
  await expect(page.getByText(/The name says DOCX, but the file holds PDF/)).toBeVisible()
  await page.getByRole('button', { name: 'Show that one' }).first().click()
  await expect(page.getByRole('heading', { name: 'Twice' })).toBeVisible()
})

test('details: picture, facts, links, a new title and a new address', async ({ page, request }) => {
  await showInLibrary(page, 'K60 kiln manual')
  await row(page, 'K60 kiln manual').getByRole('link').click()
  await expect(page.getByRole('img', { name: /^Page 1 of \d+$/ })).toBeVisible()
  await expect(page.getByText('application/pdf')).toBeVisible()
  await expect(page.getByText('https://www.marlpit.example/files/marlpit-k60-manual.pdf?save')).toBeVisible()
  await page.getByLabel('Title').fill('The K60 manual')
  await page.getByLabel('Title').press('Enter')
  await expect(row(page, 'The K60 manual')).toBeVisible()
  await page.getByRole('button', { name: 'Change the address…' }).click()
  await page.getByLabel('New address').fill('k60.pdf')
  await page.getByRole('button', { name: 'Change', exact: true }).click()
  await expect(page.getByText('/files/k60.pdf?open').first()).toBeVisible()
  expect((await request.get(`${server.url}/files/marlpit-k60-manual.pdf`, { maxRedirects: 0 })).status()).toBe(308)
  expect((await request.get(`${server.url}/files/marlpit-k60-manual.pdf`)).url()).toContain('/files/k60.pdf')
})

test('copying a link puts the address on the clipboard', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await showInLibrary(page, 'Stock list')
  await row(page, 'Stock list').getByRole('link').click()
  await page.getByRole('button', { name: 'Copy: Saves', exact: true }).click()
  await copied(page, /^\/files\/stock-list-2026-11-20\.csv\?save$/)
})

test('a file goes to the bin by key and comes back by Undo', async ({ page }) => {
  await showInLibrary(page, 'Carriage rates')
  await row(page, 'Carriage rates').getByRole('link').focus()
  await page.keyboard.press('Delete')
  await expect(page.getByText('"Carriage rates" is in the bin for 30 days.')).toBeVisible()
  await expect(row(page, 'Carriage rates')).toHaveCount(0)
  await page.locator('.notice').getByRole('button', { name: 'Undo' }).first().click()
  await expect(row(page, 'Carriage rates')).toHaveCount(1)
})

test('who looks away after deleting a file can still take that back; it goes when they do something else', async ({ page }) => {
  await page.clock.install()
  await showInLibrary(page, 'Carriage rates')
  const remove = async () => {
    await row(page, 'Carriage rates').getByRole('link').focus()
    await page.keyboard.press('Delete')
    await expect(page.getByText('"Carriage rates" is in the bin for 30 days.')).toBeVisible()
  }
  const undo = page.locator('.notice').getByRole('button', { name: 'Undo' })
  await remove()
  await page.clock.fastForward(30_000)
  await undo.first().click()
  await expect(row(page, 'Carriage rates')).toHaveCount(1)

  await remove()
  await page.mouse.move(300, 300)
  await page.clock.fastForward(10_000)
  await expect(undo).toHaveCount(0)
})

test('a file in use is not deleted unseen; another takes its place everywhere, or it is taken off, and Undo undoes all of that', async ({
  page,
  request,
}) => {
  const { items } = await (await ownerApi(server.url))<{ items: { title: string; handle: string }[] }>('/files?q=Stock%20list')
  const address = `/files/${items.find(({ title }) => title === 'Stock list')!.handle}`
  await showInLibrary(page, 'Stock list')
  await row(page, 'Stock list').getByRole('link').focus()
  await page.keyboard.press('Delete')
  const dialog = page.getByRole('dialog').first()
  await expect(dialog).toContainText('1 place leads to “Stock list”')
  await dialog.getByRole('button', { name: /Put another file in its place/ }).click()
  const finder = page.getByRole('combobox', { name: 'Find the file that takes its place' })
  // It cannot take its own place, so it is not offered.
  await finder.fill('list')
  await expect(page.getByRole('listbox').getByRole('option', { name: /Trade price list/ })).toBeVisible()
  await expect(page.getByRole('listbox').getByRole('option', { name: /Stock list/ })).toHaveCount(0)
  await finder.fill('recipes')
  await page.getByRole('option', { name: /Glaze recipes/ }).click()
  await expect(page.getByText('"Stock list" is in the bin')).toBeVisible()
  const trade = async () => (await request.get(`${server.url}/trade`)).text()
  expect(await trade()).toContain('/files/glaze-recipes.xlsx?save')
  const undo = page.locator('.notice').getByRole('button', { name: 'Undo' }).first()
  await undo.click()
  await expect(row(page, 'Stock list')).toHaveCount(1)
  await expect.poll(trade).toContain(address)

  // Taken off, its button is gone for visitors, and back where it was by Undo.
  await row(page, 'Stock list').getByRole('link').focus()
  await page.keyboard.press('Delete')
  await page.getByRole('button', { name: /Take it off those places/ }).click()
  await expect(row(page, 'Stock list')).toHaveCount(0)
  expect(await trade()).not.toContain(address)
  await undo.click()
  await expect(row(page, 'Stock list')).toContainText('1 place')
  expect(await trade()).toContain(address)
})

test('Find reaches files and pages by part of their name; an upload shows progress and can be stopped', async ({ page }) => {
  await page.keyboard.press('Control+k')
  await page.keyboard.type('tenmo')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: 'Test tile tenmoku' })).toBeVisible()

  await sendAt(page, 100_000)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Put files in…' }).click()])
  await chooser.setFiles({ name: 'slow.bin', mimeType: 'application/octet-stream', buffer: Buffer.alloc(6_000_000, 7) })
  const entry = page.getByRole('region', { name: 'The trough' }).getByRole('listitem').filter({ hasText: 'slow.bin' })
  await expect(entry).toContainText(/\d+ % of 6 MB, [\d.]+ kB\/s, \d+ s left/)
  await entry.getByRole('button', { name: 'Pause slow.bin' }).click()
  await expect(entry).toContainText('Paused at')
  // A reload forgets the file, not what has arrived of it.
  await page.reload()
  await expect(entry).toContainText(/\d+ % is here\. Choose the file again to go on\./)
  await sendAt(page)
  const [second] = await Promise.all([page.waitForEvent('filechooser'), entry.getByRole('button', { name: 'Choose…' }).click()])
  await second.setFiles({ name: 'slow.bin', mimeType: 'application/octet-stream', buffer: Buffer.alloc(6_000_000, 7) })
  await expect(row(page, 'Slow')).toContainText('6 MB')
})

test('a list that was still on its way when something changed shows the change', async ({ page }) => {
  const api = await ownerApi(server.url)
  const {
    items: [file],
  } = await api<{ items: { id: string }[] }>('/files?q=Scan0007')
  const [list, folders, asked] = [openPromise(), openPromise(), openPromise()]
  let changed = false
  // The list as it was when it was asked for arrives late, as on a slow line; and the folders later still.
  await page.route(
    url => url.pathname === '/api/files' && url.searchParams.get('q') === 'Scan0007' && url.searchParams.has('sort'),
    async route => {
      const response = await route.fetch()
      asked.resolve()
      if (!changed) await list.promise
      await route.fulfill({ response })
    },
  )
  await showInLibrary(page, 'Scan0007')
  await asked.promise
  changed = true
  await api(`/files/${file!.id}`, { method: 'PATCH', json: { title: 'Scan0007 of today' } })
  await page.route('**/api/folders', route => folders.promise.then(() => route.continue()))
  // Another window is left for this one: it reads the library anew.
  await Promise.all([page.waitForRequest('**/api/folders'), page.evaluate(() => window.dispatchEvent(new Event('focus')))])
  list.resolve()
  await expect(page.getByText('1 file found')).toBeVisible()
  folders.resolve()
  await expect(row(page, 'Scan0007 of today')).toBeVisible()
})

test('an upload goes on by itself after a lost connection', async ({ page }) => {
  await sendAt(page, 100_000)
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), page.getByRole('button', { name: 'Put files in…' }).click()])
  await chooser.setFiles({ name: 'cut.bin', mimeType: 'application/octet-stream', buffer: Buffer.alloc(4_000_000, 9) })
  const entry = page.getByRole('region', { name: 'The trough' }).getByRole('listitem').filter({ hasText: 'cut.bin' })
  await expect(entry).toContainText(/[1-9]\d? % of/)
  await server.stop('SIGKILL')
  await expect(entry).toContainText('Connection lost, trying again…')
  server = await startServer(data, server)
  await sendAt(page)
  await expect(row(page, 'Cut')).toContainText('4 MB')
})

test('the boards are shared by key and fold away', async ({ page }) => {
  const divider = page.getByRole('separator', { name: 'Width of the library' })
  await divider.focus()
  const before = Number(await divider.getAttribute('aria-valuenow'))
  await page.keyboard.press('ArrowRight')
  await expect(divider).toHaveAttribute('aria-valuenow', String(before + 24))
  await page.getByRole('button', { name: 'Fold the library away' }).click()
  await expect(page.getByRole('grid', { name: 'Files' })).toHaveCount(0)
  await page.reload()
  await page.getByRole('button', { name: 'Library', exact: true }).click()
  await expect(page.getByRole('grid', { name: 'Files' })).toBeVisible()
})

test('a file is dragged from the library onto the page', async ({ page }) => {
  await openPage(page, 'Clay & glaze')
  await showInLibrary(page, 'What to bring')
  await row(page, 'What to bring').dragTo(page.locator('.ProseMirror h2', { hasText: 'Mix your own' }), { targetPosition: { x: 60, y: 3 } })
  await expect(page.locator('.button-view.selected')).toContainText(/What to bring to a class\s*DOCX/)
})
