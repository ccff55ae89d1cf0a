import { expect, test, type Page } from '@playwright/test'
import sharp from 'sharp'
import { toHex } from '../core/look/channels'
import { contrast } from '../core/look/contrast'
import { add, newPage, openDesk, openPage, row, showInLibrary } from './support/owner'
import { dropFiles } from './support/files'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

async function publishAndVisit(page: Page, slug: string): Promise<Page> {
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('Live as it stands')).toBeVisible()
  const visitor = await page.context().newPage()
  await visitor.goto(`${server.url}/${slug}`)
  return visitor
}

test('a picture is chosen, said in words, made to lead to a file, and comes to visitors no larger than they need it', async ({ page }) => {
  await newPage(page, 'Tiles')
  await add(page, 'Picture')
  const note = page.getByRole('region', { name: 'Settings of this picture' })
  // Nothing but a picture is offered.
  await page.getByRole('combobox', { name: 'Find a picture' }).fill('celadon')
  await expect(page.getByRole('option', { name: /Safety data sheet/ })).toHaveCount(0)
  await page.getByRole('option', { name: /Test tile celadon/i }).click()
  await expect(note.getByText('Say it in a few words')).toBeVisible()
  await expect(page.locator('.block-view img')).toBeVisible()
  await note.getByLabel('What it shows').fill('A tile in celadon')
  await expect(note.getByText('Say it in a few words')).toHaveCount(0)
  await note.getByLabel('Words below it').fill('Celadon, cone 8')
  await note.getByRole('button', { name: 'Lead somewhere…' }).click()
  await page.getByRole('combobox', { name: 'Find what this leads to' }).fill('picture pack')
  await page.getByRole('option', { name: /picture pack/ }).click()
  await expect(note).toContainText('A click leads to “Test tile picture pack”.')
  await note.getByRole('radio', { name: 'Half' }).check()

  const visitor = await publishAndVisit(page, 'tiles')
  const image = visitor.getByRole('img', { name: 'A tile in celadon' })
  await expect(image).toBeVisible()
  await expect.poll(() => image.evaluate((element: HTMLImageElement) => element.complete && element.naturalWidth > 0)).toBe(true)
  expect(await image.evaluate((element: HTMLImageElement) => element.currentSrc)).toMatch(
    /\/pictures\/test-tile-celadon\.png\?width=640&v=[0-9a-f]{8}$/,
  )
  const response = await visitor.request.get(await image.evaluate((element: HTMLImageElement) => element.currentSrc))
  expect(response.headers()).toMatchObject({ 'content-type': 'image/webp', 'cache-control': 'public, max-age=31536000, immutable' })
  const again = await visitor.request.get(`${server.url}/pictures/test-tile-celadon.png?width=640`, {
    headers: { 'If-None-Match': response.headers().etag! },
  })
  expect(again.status()).toBe(304)
  await expect(visitor.getByRole('link', { name: /A tile in celadon.*ZIP/ })).toHaveAttribute('href', /picture-pack\.zip\?save/)
})

test("a card shows the file, and its words are the file's until others are written", async ({ page }) => {
  await newPage(page, 'Products')
  await add(page, 'Card')
  const note = page.getByRole('region', { name: 'Settings of this card' })
  await note.getByRole('button', { name: 'Choose where it leads…' }).click()
  await page.getByRole('combobox', { name: 'Find what this leads to' }).fill('K100 kiln')
  await page.getByRole('option', { name: /K100 kiln manual/ }).click()
  const card = page.locator('.block-view')
  await expect(card.locator('.tr-card-title')).toHaveText('K100 kiln manual')
  await note.getByLabel('Title', { exact: true }).fill('The K100')
  await note.getByLabel('What it is').fill('All of it in thirty pages.')
  await note.getByRole('radio', { name: 'Rim' }).check()
  await expect(card.locator('.tr-button')).toHaveClass(/tr-look-rim/)
  await page.keyboard.press('Escape')
  // It is moved and copied like any block.
  await page.keyboard.press('Control+d')
  await expect(card).toHaveCount(2)
  await page.keyboard.press('Delete')
  await expect(card).toHaveCount(1)

  const visitor = await publishAndVisit(page, 'products')
  await expect(visitor.locator('.tr-card')).toContainText(/The K100\s*All of it in thirty pages\./)
  const link = visitor.getByRole('link', { name: /Download.*The K100.*new tab/ })
  await expect(link).toHaveAttribute('href', /\/files\/marlpit-k100-manual-2026-09\.pdf\?open&at=/)
  await expect(link).toHaveAttribute('target', '_blank')
  await expect(visitor.locator('.tr-card img')).toHaveAttribute('src', /\/pictures\/marlpit-k100-manual/)
})

test('a picture that is dropped is shown, from the library and from the computer, or is a button where that was meant', async ({
  page,
}) => {
  await newPage(page, 'Dropped')
  await page.keyboard.type('Words')
  await showInLibrary(page, 'Test tile shino')
  await row(page, 'Test tile shino').dragTo(page.locator('.ProseMirror p'))
  const pictures = page.locator('.ProseMirror .block-view img')
  await expect(pictures).toHaveCount(1)
  await expect(pictures).toHaveAttribute('src', /test-tile-shino/)
  await page.getByRole('button', { name: 'As a button instead' }).click()
  await expect(pictures).toHaveCount(0)
  await expect(page.locator('.ProseMirror .tr-button')).toContainText('Test tile shino')

  const photo = await sharp({ create: { width: 40, height: 30, channels: 3, background: '#886644' } })
    .png()
    .toBuffer()
  const box = (await page.locator('.ProseMirror > p:not(.button-view)').boundingBox())!
  await dropFiles(page, [{ name: 'shop front.png', mimeType: 'image/png', buffer: photo }], '.ProseMirror > p:not(.button-view)', {
    x: box.x + 20,
    y: box.y + 2,
  })
  await expect(pictures).toHaveAttribute('src', /shop-front/)

  // One that is pasted, as a picture of the screen is, is shown as well.
  await page.evaluate(
    base64 => {
      const data = new DataTransfer()
      data.items.add(new File([Uint8Array.from(atob(base64), character => character.charCodeAt(0))], 'pasted.png', { type: 'image/png' }))
      document
        .querySelector('.ProseMirror')!
        .dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }))
    },
    (await sharp(photo).negate().png().toBuffer()).toString('base64'),
  )
  await expect(pictures).toHaveCount(2)
})

test('a page has a picture that goes with links to it elsewhere', async ({ page }) => {
  await newPage(page, 'Shared')
  await page.keyboard.type('Words')
  await page.getByRole('button', { name: 'Page settings' }).click()
  const settings = page.getByRole('region', { name: 'Settings of this page' })
  await settings.getByRole('button', { name: 'Choose a picture…' }).click()
  await settings.getByRole('combobox', { name: 'Find a picture for links to this page' }).fill('tile honey')
  await settings.getByRole('option', { name: /honey/ }).click()
  await expect(settings.getByText('Test tile honey')).toBeVisible()
  const visitor = await publishAndVisit(page, 'shared')
  await expect(visitor.locator('meta[property="og:image"]')).toHaveAttribute(
    'content',
    /^https:\/\/www\.marlpit\.example\/pictures\/test-tile-honey/,
  )
  await settings.getByRole('button', { name: 'None' }).click()
  await expect(settings.getByText('Test tile honey')).toHaveCount(0)
})

test('a button is filled with a picture; what can then not be read is mended by more veil, and the picture is known to be used', async ({
  page,
  context,
}) => {
  await openPage(page, 'Classes')
  await page.locator('.ProseMirror .button-view').first().click()
  const note = page.locator('.placed-note')
  await note.getByText('Fill, border and shadow').click()
  await note.getByRole('radio', { name: 'Picture' }).check()
  await page.getByRole('combobox', { name: 'Find a picture for the fill' }).fill('shino')
  await page.getByRole('option', { name: /shino/i }).first().click()
  await note.getByLabel('Veil', { exact: true }).fill('10')
  await note.getByLabel('Veil', { exact: true }).press('Tab')
  await expect(note.getByText(/and 4.5 to 1 is needed/).first()).toBeVisible()
  await note
    .getByRole('button', { name: /Veil the picture to \d+ %/ })
    .first()
    .click()
  await expect(note.getByText(/Easy to read/)).toBeVisible()
  const veil = Number(await note.getByLabel('Veil', { exact: true }).inputValue())
  expect(veil).toBeGreaterThan(10)
  await expect(page.locator('.head .save')).toHaveText('Saved')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Classes” is live.')).toBeVisible()

  const visitor = await context.newPage()
  const shown = visitor.waitForResponse(/\/pictures\/test-tile-shino\.png\?width=960/)
  await visitor.goto(`${server.url}/classes`)
  expect((await shown).status()).toBe(200)
  // The words against what is drawn behind them, pixel by pixel (WCAG 2.2, 1.4.3).
  const button = visitor.locator('main .tr-button').first()
  await visitor.addStyleTag({ content: '.tr-button>*{visibility:hidden}' })
  const { data, info } = await sharp(await button.screenshot())
    .extract({ left: 8, top: 8, width: 40, height: 30 })
    .removeAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const words = await button.evaluate(element => getComputedStyle(element).color.match(/\d+/g)!.slice(0, 3).map(Number))
  const ratios = Array.from({ length: info.width * info.height }, (_, pixel) =>
    contrast(toHex(words), toHex([...data.subarray(pixel * 3, pixel * 3 + 3)])),
  )
  expect(Math.min(...ratios)).toBeGreaterThanOrEqual(4.5)
  expect(new Set(ratios).size).toBeGreaterThan(1)

  await showInLibrary(page, 'test-tile-shino')
  await row(page, /shino/i).first().click()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('dialog')).toContainText('Classes behind the button')
})

test('a section over a picture: chosen, veiled until its words are read easily, the title of the page in it, live as on the sheet', async ({
  page,
}) => {
  await newPage(page, 'Open kiln')
  await add(page, 'Section')
  await page.keyboard.type('Warm since Monday.')
  const settings = page.getByRole('region', { name: 'Settings of this section' })
  await settings.getByRole('radio', { name: 'Deep' }).check()
  await settings.getByRole('button', { name: 'A picture behind it…' }).click()
  await page.keyboard.type('kiln shelves')
  await page.getByRole('option', { name: /Kiln shelves/ }).click()
  await expect(page.locator('.ProseMirror .tr-behind-picture')).toBeVisible()
  await settings.getByLabel('Veil', { exact: true }).fill('0')
  await settings.getByLabel('Veil', { exact: true }).press('Tab')
  await settings.getByRole('button', { name: /^Veil the picture to \d+ %$/ }).click()
  await expect(settings).toContainText('Easy to read')

  // The file knows where it stands, and is not deleted unnoticed.
  await expect(page.getByText('Saved', { exact: true })).toBeVisible()
  await showInLibrary(page, 'Kiln shelves')
  await row(page, 'Kiln shelves').getByRole('link').focus()
  await page.keyboard.press('Delete')
  await expect(page.getByRole('dialog')).toContainText('Open kiln')
  await page.keyboard.press('Escape')

  const visitor = await publishAndVisit(page, 'open-kiln')
  const section = visitor.locator('main > .tr-pictured')
  await expect(section.getByRole('heading', { level: 1, name: 'Open kiln' })).toBeVisible()
  await expect(section.getByText('Warm since Monday.')).toBeVisible()
  await expect
    .poll(() => section.locator('img').evaluate((image: HTMLImageElement) => image.complete && image.naturalWidth))
    .toBeGreaterThan(0)
})

test('a gallery is seen large, opened and put away by press and by key, without script, and its tiles are taken as a zip', async ({
  browser,
}) => {
  const visitor = await browser.newPage({ javaScriptEnabled: false })
  await visitor.goto(`${server.url}/studio-photos`)
  await visitor.getByRole('button', { name: 'See Test tile celadon large' }).click()
  const seen = (title: string) => visitor.locator('.tr-large:popover-open').getByRole('link', { name: title })
  await expect(seen('Test tile celadon')).toBeVisible()
  await visitor.locator('.tr-large:popover-open').getByRole('button', { name: 'Close' }).click()
  await expect(visitor.locator('.tr-large:popover-open')).toHaveCount(0)
  await visitor.getByRole('button', { name: 'See Test tile tenmoku large' }).press('Enter')
  await expect(seen('Test tile tenmoku')).toBeVisible()
  await visitor.keyboard.press('Escape')
  await expect(visitor.locator('.tr-large:popover-open')).toHaveCount(0)
  await visitor.getByLabel('Choose Test tile chun').check()
  const [zip] = await Promise.all([visitor.waitForEvent('download'), visitor.getByRole('button', { name: 'Ticked files' }).click()])
  expect(zip.suggestedFilename()).toBe('Marlpit test tiles.zip')
  await visitor.close()
})

test('on a phone the menu comes when its key is pressed and goes again, without script; on a desktop it is there', async ({ browser }) => {
  const visitor = await browser.newPage({ javaScriptEnabled: false, viewport: { width: 390, height: 800 } })
  await visitor.goto(server.url)
  await expect(visitor.getByRole('img', { name: 'Marlpit Pottery Supply' })).toBeVisible()
  const kilns = visitor.getByRole('link', { name: 'Kilns', exact: true })
  await expect(kilns).toBeHidden()
  await visitor.getByRole('button', { name: 'Menu' }).click()
  await expect(kilns).toBeInViewport()
  await visitor.keyboard.press('Escape')
  await expect(kilns).toBeHidden()
  await visitor.getByRole('button', { name: 'Menu' }).click()
  await kilns.click()
  await expect(visitor).toHaveURL(/\/kilns$/)
  await visitor.setViewportSize({ width: 1280, height: 800 })
  await expect(visitor.getByRole('link', { name: 'Guides' })).toBeVisible()
  await expect(visitor.getByRole('button', { name: 'Menu' })).toBeHidden()
  await visitor.close()
})
