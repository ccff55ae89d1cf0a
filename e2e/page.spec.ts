import { expect, test, type Page } from '@playwright/test'
import { pageDocumentSchema } from '../core/page/schema'
import { openDesk, openPage, ownerApi, row, showInLibrary } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const sheet = (page: Page) => page.getByRole('textbox', { name: 'The page', exact: true })
const saved = (page: Page) => expect(page.locator('.head .save')).toHaveText('Saved')

async function newPage(page: Page, title: string) {
  await page.goto(`${server.url}/desk`)
  await page.getByRole('button', { name: 'New page' }).click()
  await page.getByLabel('Title').fill(title)
  await page.getByRole('button', { name: 'Make the page' }).click()
  await expect(sheet(page)).toBeFocused()
}

test('write, place by typing /, link words, publish: all of it reaches the visitor', async ({ page, request }) => {
  await newPage(page, 'Guides & more')
  await page.keyboard.type('Read the firing chart first.')
  await page.keyboard.press('Enter')
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('mixing')
    await page.keyboard.press('Enter')
  await expect(page.locator('.button-view.selected')).toContainText(/Mixing a glaze from powder\s*PDF, 3.5 kB/)
  // The library knows at once: one link of the demo's, and this button.
  await showInLibrary(page, 'Mixing a glaze')
  await expect(row(page, 'Mixing a glaze').first()).toContainText('2 places')

  await sheet(page).getByText('firing chart').dblclick({ position: { x: 70, y: 12 } })
  await page.keyboard.press('Control+Shift+k')
  await page.getByRole('combobox', { name: 'Find the file these words lead to' }).fill('stoneware')
  await expect(page.getByRole('option', { name: /Firing chart stoneware/ })).toBeVisible()
  await page.getByRole('option', { name: /Firing chart stoneware/ }).click()
  await saved(page)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Guides & more” is live.')).toBeVisible()

  const html = await (await request.get(`${server.url}/guides-and-more`)).text()
  expect(html).toMatch(/<a class="tr-link" href="\/files\/firing-chart-stoneware\.pdf\?open&amp;at=\w+" target="_blank" rel="noopener">\w+/)
  expect(html).toMatch(/href="\/files\/mixing-glaze-guide\.pdf\?open&amp;at=\w+"/)
})

test('what the editor saves fits the shared schema: headings, lists, bold and italic too', async ({ page }) => {
  await newPage(page, 'All kinds')
  await page.getByLabel('Kind of line').selectOption('Heading')
  await page.keyboard.type('A heading')
  await page.keyboard.press('Enter')
  await page.keyboard.press('Control+b')
  await page.keyboard.type('bold')
  await page.keyboard.press('Control+b')
  await page.keyboard.press('Control+i')
  await page.keyboard.type(' italic')
  await page.keyboard.press('Control+i')
  await page.keyboard.press('Shift+Enter')
  await page.keyboard.press('Enter')
  for (const kind of ['- ', '1. ']) {
    await page.keyboard.type(`${kind}one`)
    await page.keyboard.press('Enter')
    await page.keyboard.press('Tab')
    await page.keyboard.type('two')
    for (let times = 0; times < 3; times++) await page.keyboard.press('Enter')
  }
  await saved(page)
  const api = await ownerApi(server.url)
  const { draft } = await api<{ draft: unknown }>(`/pages/${page.url().split('/').at(-1)}`)
  const kinds = JSON.stringify(pageDocumentSchema.parse(draft))
  for (const kind of ['heading', 'bold', 'italic', 'hardBreak', 'bulletList', 'orderedList']) expect(kinds).toContain(`"${kind}"`)
  // Undo leads all the way back, and opening the page was nothing to undo.
  for (let times = 0; times < 40; times++) await page.keyboard.press('Control+z')
  await expect(sheet(page)).toHaveText('')
  await expect(page.getByRole('button', { name: 'Undo' })).toBeDisabled()
})

test('the settings beside a button change it at once', async ({ page }) => {
  await openPage(page, 'Clay, glaze')
  const button = page.locator('.button-view').first()
  await button.locator('.tr-button').click()
  const note = page.getByRole('region', { name: 'Settings of this button' })
  await expect(note.getByRole('img', { name: 'First page of Price list' })).toBeVisible()
  await expect(note).toContainText(/PDF\s*8.5 kB, 4 pages/)
  await note.getByLabel('Label').fill('All our prices')
  await note.getByLabel('Second line').fill('{type}, {pages}')
  await expect(button).toContainText(/All our prices\s*PDF, 4 pages/)
  await expect(note).toContainText('Reads “PDF, 4 pages”')
  await note.getByLabel('Rim').check()
  await expect(button.locator('.tr-button')).toHaveClass(/tr-look-rim/)
  await note.getByLabel('Middle').check()
  await expect(button.locator('.tr-place')).toHaveClass(/tr-middle/)
  await note.getByRole('button', { name: 'Other file…' }).click()
  await page.getByRole('combobox', { name: 'Find the file this leads to' }).fill('tile pictures')
  await page.getByRole('option', { name: /Test tile pictures/ }).click()
  await expect(note).toContainText('Browsers cannot show ZIP files safely')
  await note.getByRole('button', { name: 'Duplicate' }).click()
  await expect(page.locator('.button-view', { hasText: 'All our prices' })).toHaveCount(2)
  const placements = await page.locator('.button-view', { hasText: 'All our prices' }).evaluateAll(all => all.map(element => element.getAttribute('data-placement')))
  expect(new Set(placements).size).toBe(2)
  await note.getByRole('button', { name: 'Remove' }).click()
  await expect(page.locator('.button-view', { hasText: 'All our prices' })).toHaveCount(1)
})

test('two tabs on one page notice each other, and neither overwrites', async ({ page, context }) => {
  await newPage(page, 'Shared')
  const second = await context.newPage()
  await second.goto(page.url())
  await sheet(second).waitFor()
  await page.keyboard.type('From the first tab.')
  await saved(page)
  await sheet(second).pressSequentially('From the second.')
  await expect(second.getByRole('alert')).toContainText('changed in another tab')
  await second.getByRole('button', { name: 'Load the other version' }).click()
  await expect(sheet(second)).toHaveText('From the first tab.')
})

test('what is typed while the server is away is saved when it is back', async ({ page, context }) => {
  await newPage(page, 'Offline')
  await context.setOffline(true)
  await page.keyboard.type('Written on the train.')
  await expect(page.locator('.head .save')).toContainText('Not saved yet.')
  await context.setOffline(false)
  await saved(page)
})

test('a slug that is Trough\'s own is refused where it is typed, and by the server', async ({ page }) => {
  await page.getByRole('button', { name: 'New page' }).click()
  await page.getByLabel('Title').fill('Our files')
  for (const slug of ['files', 'desk', 'api', 'to']) {
    await page.getByLabel('Address').fill(slug)
    await expect(page.getByRole('alert')).toContainText('Trough uses this address itself')
  }
  const api = await ownerApi(server.url)
  await expect(api('/pages', { method: 'POST', json: { title: 'x', slug: 'api' } })).rejects.toMatchObject({ status: 422 })
})

test('going straight on to another page takes the last change along', async ({ page }) => {
  await newPage(page, 'Left in a hurry')
  // The first attempt to save is lost; before the next one the owner has gone.
  await page.route('**/draft', route => route.abort(), { times: 1 })
  await page.keyboard.type('Last words.')
  await expect(page.locator('.head .save')).toContainText('Not saved yet.')
  await page.keyboard.press('Control+k')
  await page.keyboard.type('Clay &')
  await page.keyboard.press('Enter')
  await expect(page.locator('.head .address')).toHaveText('/clay-and-glaze')
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string, title: string }[] }>('/pages')
  const { draft } = await api<{ draft: unknown }>(`/pages/${items.find(item => item.title === 'Left in a hurry')!.id}`)
  expect(JSON.stringify(draft)).toContain('Last words.')
})

test('words linked to a file that is still arriving stay the linked ones while the page is written on', async ({ page, context }) => {
  await newPage(page, 'Arriving')
  await page.keyboard.type('See list')
  for (let times = 0; times < 4; times++) await page.keyboard.press('Shift+ArrowLeft')
  const client = await context.newCDPSession(page)
  await client.send('Network.enable')
  await client.send('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: 300_000 })
  const chooser = page.waitForEvent('filechooser')
  await page.keyboard.press('Control+Shift+k')
  await page.getByRole('option', { name: 'From this computer…' }).click()
  await (await chooser).setFiles({ name: 'arriving.txt', mimeType: 'text/plain', buffer: Buffer.alloc(900_000, 'words ') })
  await expect(page.locator('.ProseMirror a.without-target')).toHaveText('list')
  await sheet(page).locator('p').click({ position: { x: 1, y: 12 } })
  await page.keyboard.type('Please! ')
  await expect(page.locator('.ProseMirror a.tr-link:not(.without-target)')).toHaveText('list', { timeout: 20_000 })
  await expect(sheet(page)).toHaveText('Please! See list')
})

test('a button whose page was left while its file was arriving gets the file all the same', async ({ page, context }) => {
  await newPage(page, 'Left behind')
  const client = await context.newCDPSession(page)
  await client.send('Network.enable')
  await client.send('Network.emulateNetworkConditions', { offline: false, latency: 0, downloadThroughput: -1, uploadThroughput: 300_000 })
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Place a file' }).click()
  await page.getByRole('option', { name: 'From this computer…' }).click()
  await (await chooser).setFiles({ name: 'late.txt', mimeType: 'text/plain', buffer: Buffer.alloc(900_000, 'later ') })
  await expect(page.locator('.button-view')).toContainText('Arriving')
  await saved(page)
  await page.getByRole('link', { name: 'Pages', exact: true }).click()
  await expect(page.locator('.pages a.row', { hasText: 'Left behind' })).toBeVisible()
  await expect(row(page, 'Late')).toBeVisible({ timeout: 20_000 })
  await openPage(page, 'Left behind')
  await expect(page.locator('.button-view')).toContainText(/Late\s*TXT, 900 kB/)
})
