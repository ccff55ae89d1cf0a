import { expect, test, type Frame, type Page, type Route } from '@playwright/test'
import { pageDocumentSchema } from '../core/page/schema'
import { carry, choose, copied, newPage, openDesk, openPage, ownerApi, row, showInLibrary } from './support/owner'
import { sendAt } from './support/pace'
import { makeData, startServer, type RunningServer } from './support/server'
import { signIn } from './support/upload'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const sheet = (page: Page) => page.getByRole('textbox', { name: 'The page', exact: true })
const saved = (page: Page) => expect(page.locator('.head .save')).toHaveText('Saved')

test('what is pressed in the finder is what is placed, though other answers come before the release', async ({ page }) => {
  await newPage(page, 'Pressed')
  await page.keyboard.type('/')
  // Files alone: the parts of a page are there before the files are.
  const options = page.getByRole('dialog', { name: 'Find a file to place' }).getByRole('option').and(page.locator('.file'))
  await expect(options.nth(3)).toBeVisible()
  let answer = () => {}
  const asked = new Promise<void>(resolve => (answer = resolve))
  await page.route('**/api/files?*', async route => {
    await asked
    await route.continue()
  })
  const answered = page.waitForResponse(/api\/files\?.*q=stock/)
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('stock')
  const title = await options.nth(3).locator('.title').innerText()
  await options.nth(3).hover()
  await page.mouse.down()
  answer()
  await (await answered).finished()
  await page.evaluate(() => new Promise(resolve => requestAnimationFrame(() => requestAnimationFrame(resolve))))
  await page.mouse.up()
  await expect(page.locator('.button-view.selected')).toContainText(title)
})

test('the preview is set in the type that visitors see', async ({ page }) => {
  const fontsOf = (frame: Frame) =>
    frame.evaluate(async () => {
      await document.fonts.ready
      return [...document.fonts].filter(font => font.status === 'loaded').map(font => font.family)
    })
  await openPage(page, 'Kilns')
  await page.getByRole('button', { name: 'Preview' }).click()
  await expect(page.frameLocator('iframe').getByRole('heading', { name: 'Kilns', exact: true })).toBeVisible()
  const preview = await fontsOf(page.frames().find(frame => frame.url().includes('/preview'))!)
  await page.goto(`${server.url}/kilns`)
  expect(preview).toEqual(await fontsOf(page.mainFrame()))
  expect(preview.length).toBeGreaterThan(0)
})

test('write, place by typing /, link words, publish: all of it reaches the visitor', async ({ page, request }) => {
  await newPage(page, 'Guides & more')
  await page.keyboard.type('Read the firing chart first.')
  await page.keyboard.press('Enter')
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('mixing')
  await page.keyboard.press('Enter')
  await expect(page.locator('.button-view.selected')).toContainText(/Mixing a glaze from powder\s*PDF, 3.5 kB/)
  // The library knows at once: a link and a card of the demo's, and this button.
  await showInLibrary(page, 'Mixing a glaze')
  await expect(row(page, 'Mixing a glaze').first()).toContainText('3 places')

  const finder = page.getByRole('combobox', { name: 'Find what these words lead to' })
  await sheet(page)
    .getByText('firing chart')
    .dblclick({ position: { x: 70, y: 12 } })
  await expect.poll(() => page.evaluate(() => getSelection()!.toString())).toMatch(/^\w+/)
  await page.keyboard.press('Control+Shift+k')
  await finder.fill('stoneware')
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
  await choose(page, 'Kind of line', 'Heading')
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
  await note.getByLabel('Second line').fill('{type}, {page}')
  await expect(note.getByText('There is no {page}: visitors read it as it stands.')).toBeVisible()
  await note.getByLabel('Second line').fill('{type}, {pages}')
  await expect(note.getByText('There is no')).toHaveCount(0)
  await expect(button).toContainText(/All our prices\s*PDF, 4 pages/)
  await expect(note).toContainText('Reads “PDF, 4 pages”')
  await note.getByLabel('Rim').check()
  await expect(button.locator('.tr-button')).toHaveClass(/tr-look-rim/)
  await note.getByLabel('Middle').check()
  await expect(button).toHaveClass(/tr-middle/)
  await note.getByRole('button', { name: 'Lead elsewhere…' }).click()
  await page.getByRole('combobox', { name: 'Find what this leads to' }).fill('tile pictures')
  await page.getByRole('option', { name: /Test tile pictures/ }).click()
  await expect(note).toContainText('Browsers cannot show ZIP files safely')
  await note.getByRole('button', { name: 'Duplicate' }).click()
  await expect(page.locator('.button-view', { hasText: 'All our prices' })).toHaveCount(2)
  const placements = await page
    .locator('.button-view', { hasText: 'All our prices' })
    .evaluateAll(all => all.map(element => element.getAttribute('data-placement')))
  expect(new Set(placements).size).toBe(2)
  await note.getByRole('button', { name: 'Remove' }).click()
  await expect(page.locator('.button-view', { hasText: 'All our prices' })).toHaveCount(1)
})

test('a button leads to a page, an address, an e-mail; an address of this site that is pasted is the file it leads to', async ({
  page,
}) => {
  await newPage(page, 'Onward')
  const note = page.getByRole('region', { name: 'Settings of this button' })
  const place = async (text: string, option: RegExp) => {
    await page.keyboard.type('/')
    await page.getByRole('combobox', { name: 'Find a file to place' }).fill(text)
    await page.getByRole('option', { name: option }).waitFor()
    await page.keyboard.press('Enter')
    await expect(page.getByRole('combobox', { name: 'Find a file to place' })).toHaveCount(0)
  }
  await place('https://www.example.com/price list', /Address elsewhere/)
  await expect(note).toContainText('https://www.example.com/price%20list')
  await expect(note.getByRole('radio', { name: 'Save' })).toBeDisabled()
  await page.keyboard.press('ArrowDown')
  await place('shop@example.com', /E-mail/)
  await page.keyboard.press('ArrowDown')
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('trade')
  await page.getByRole('option', { name: /\/trade/ }).click()
  await note.getByLabel('Label').fill('For the trade')
  await page.keyboard.press('Escape')
  await page.keyboard.press('ArrowDown')
  await page.evaluate(() => {
    const data = new DataTransfer()
    data.setData('text/plain', `${window.location.origin}/files/glaze-recipes.xlsx`)
    document
      .querySelector('.ProseMirror')!
      .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
  })
  await expect(sheet(page).locator('a.tr-link')).toHaveText('Glaze recipes')
  // A script is no place to lead to, whatever it is pasted as.
  await page.evaluate(() => {
    const data = new DataTransfer()
    data.setData('text/html', ' and <a href="javascript:alert(1)">this</a>, <a href="tel:+442079460000">that</a>')
    document
      .querySelector('.ProseMirror')!
      .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
  })
  await saved(page)
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('Live as it stands')).toBeVisible()
  const visitor = await page.context().newPage()
  await visitor.goto(`${server.url}/onward`)
  const addresses = await visitor
    .locator('main a')
    .evaluateAll(links => links.map(link => link.getAttribute('href')!.replace(/at=.*/, 'at=')))
  expect(addresses).toEqual([
    'https://www.example.com/price%20list',
    'mailto:shop@example.com',
    '/trade',
    '/files/glaze-recipes.xlsx?save&at=',
    'tel:+442079460000',
  ])
  await visitor.getByRole('main').getByRole('link', { name: 'For the trade' }).click()
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('Trade')
})

test('the draft is seen as a visitor would see it, at the width of a desktop, a tablet and a phone', async ({ page }) => {
  await openPage(page, 'Studio photos')
  await sheet(page).locator('p').first().click()
  await page.keyboard.press('End')
  await page.keyboard.type(' Only drafted.')
  await page.getByRole('button', { name: 'Preview' }).click()
  const frame = page.frameLocator('iframe')
  await expect(frame.getByText('Only drafted.')).toBeVisible()
  expect(await (await fetch(`${server.url}/studio-photos`)).text()).not.toContain('Only drafted.')
  const columns = () =>
    frame
      .locator('.tr-columns')
      .first()
      .evaluate(element => getComputedStyle(element).gridTemplateColumns.split(' ').length)
  await page.getByRole('radio', { name: 'Desktop' }).check()
  await expect.poll(columns).toBe(3)
  await page.getByRole('radio', { name: 'Phone' }).check()
  await expect.poll(columns).toBe(1)
  expect(await frame.locator('html').evaluate(element => element.clientWidth)).toBe(390)
  await page.getByRole('button', { name: 'Back to writing' }).click()
  await page.keyboard.type(' And more.')
  await expect(sheet(page)).toContainText('Only drafted. And more.')
})

test('a page begins with what is chosen for it, and does not go live before its places have their files', async ({ page }) => {
  await page.getByRole('button', { name: 'New page' }).click()
  await page.getByLabel('Title', { exact: true }).fill('The winter list')
  await page.getByRole('radio', { name: /One download/ }).check()
  await page.getByRole('button', { name: 'Make the page' }).click()
  await page.waitForURL(/\/desk\/pages\//)
  await expect(page.locator('.button-view', { hasText: 'Download the list' })).toContainText('Leads nowhere yet')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByRole('dialog')).toContainText('2 places would stop visitors')
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

test("a slug that is Trough's own is refused where it is typed, and by the server", async ({ page }) => {
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
  await expect(page.locator('.head .address code')).toHaveText('/clay-and-glaze')
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string; title: string }[] }>('/pages')
  const { draft } = await api<{ draft: unknown }>(`/pages/${items.find(item => item.title === 'Left in a hurry')!.id}`)
  expect(JSON.stringify(draft)).toContain('Last words.')
})

test('words linked to a file that is still arriving stay the linked ones while the page is written on', async ({ page }) => {
  await newPage(page, 'Arriving')
  await page.keyboard.type('See list')
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await page.keyboard.press('Control+Shift+ArrowLeft')
  await expect.poll(() => page.evaluate(() => getSelection()!.toString())).toBe('list')
  await sendAt(page, 20_000)
  const chooser = page.waitForEvent('filechooser')
  await page.keyboard.press('Control+Shift+k')
  await page.getByRole('option', { name: 'From this computer…' }).click()
  await (await chooser).setFiles({ name: 'arriving.txt', mimeType: 'text/plain', buffer: Buffer.alloc(900_000, 'words ') })
  await expect(page.locator('.ProseMirror a.without-target')).toHaveText('list')
  await sheet(page)
    .locator('p')
    .click({ position: { x: 1, y: 12 } })
  await page.keyboard.type('Please! ')
  await sendAt(page)
  await expect(page.locator('.ProseMirror a.tr-link:not(.without-target)')).toHaveText('list')
  await expect(sheet(page)).toHaveText('Please! See list')
})

test('a button whose page was left while its file was arriving gets the file all the same', async ({ page }) => {
  await newPage(page, 'Left behind')
  await sendAt(page, 20_000)
  const chooser = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Place a file' }).click()
  await page.getByRole('option', { name: 'From this computer…' }).click()
  await (await chooser).setFiles({ name: 'late.txt', mimeType: 'text/plain', buffer: Buffer.alloc(900_000, 'later ') })
  await expect(page.locator('.button-view')).toContainText('Arriving')
  await saved(page)
  await page.getByRole('link', { name: 'Pages', exact: true }).click()
  await expect(page.locator('.pages a.row', { hasText: 'Left behind' })).toBeVisible()
  // The page is opened again while the button is just being given its file.
  let goOn = () => {}
  const opened = new Promise<void>(resolve => (goOn = resolve))
  await page.route('**/api/pages/*/draft', async route => (await opened, route.continue()))
  await sendAt(page)
  await expect(row(page, 'Late')).toBeVisible()
  await openPage(page, 'Left behind')
  await page.keyboard.type('Written meanwhile.')
  await page.getByLabel('Title of the page').fill('Found again')
  goOn()
  await expect(page.locator('.button-view')).toContainText(/Late\s*TXT, 900 kB/)
  await expect(page.locator('.ProseMirror')).toContainText('Written meanwhile.')
  await saved(page)
  await page.reload()
  await expect(page.getByLabel('Title of the page')).toHaveValue('Found again')
  await expect(page.locator('.ProseMirror')).toContainText('Written meanwhile.')
})

test('the HTML of a page is there to copy, and shows the page wherever it is put', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await openPage(page, 'Kilns')
  // Also where the caret stands in a section, which has settings of its own.
  await page.locator('.shelf-view').first().scrollIntoViewIfNeeded()
  await page.getByRole('button', { name: 'Page settings' }).click()
  await expect(page.getByLabel('Address of this page')).toBeInViewport()
  await page.getByRole('button', { name: 'Show HTML…' }).click()
  await expect(page.getByLabel('HTML of the page')).toHaveValue(/^<!DOCTYPE html>[\s\S]*<base href="https:\/\/www\.marlpit\.example\/">/)
  await page.getByRole('button', { name: 'Copy', exact: true }).click()
  const html = await copied(page, /^<!DOCTYPE html>/)
  expect(html).not.toMatch(/<script(?! type="application\/ld\+json")/)
  const elsewhere = await context.newPage()
  await elsewhere.setContent(html)
  await expect(elsewhere.getByRole('heading', { level: 1 })).toHaveText('Kilns')
  expect(
    await elsewhere
      .getByRole('link', { name: /K60/ })
      .first()
      .evaluate(link => (link as HTMLAnchorElement).href),
  ).toMatch(/^https:\/\/www\.marlpit\.example\/files\//)
})

test('who signs out right after the last word loses none of it', async ({ page }) => {
  // A session of its own: the other tests go on with theirs.
  await carry(page, server.url, await signIn(server.url))
  await page.reload()
  await newPage(page, 'Closing time')
  const id = /[^/]+$/.exec(new URL(page.url()).pathname)![0]
  // Saving takes its time.
  await page.route('**/draft', async route => {
    await new Promise(resolve => setTimeout(resolve, 1000))
    await route.continue()
  })
  await page.keyboard.type('The yard closes at five.')
  // Where Trough cannot be reached one stays signed in, and is told so.
  const cut = (route: Route) => (route.request().method() === 'DELETE' ? route.abort() : route.continue())
  await page.route('**/api/session', cut)
  await page.getByRole('button', { name: 'Account and setup' }).click()
  await page.getByRole('menuitem', { name: 'Sign out' }).click()
  await expect(page.getByText('Trough cannot be reached.')).toBeVisible()
  await expect(page.getByRole('heading', { name: 'Pages', level: 1 })).toBeVisible()
  await page.unroute('**/api/session', cut)
  await page.getByRole('button', { name: 'Account and setup' }).click()
  await page.getByRole('menuitem', { name: 'Sign out' }).click()
  await expect(page.getByRole('heading', { name: 'Sign in' })).toBeVisible()
  expect(await (await page.request.get(`${server.url}/api/session`)).json()).toEqual({ account: null })
  const owner = await ownerApi(server.url)
  expect(JSON.stringify(await owner(`/pages/${id}`))).toContain('The yard closes at five.')
})
