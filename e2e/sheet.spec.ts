import { expect, test, type Page } from '@playwright/test'
import sharp from 'sharp'
import type { SiteStyle } from '../core/look/siteStyle'
import { add, choose, newPage, openDesk, openPage, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

/** Of a desktop, as the sheet lays a page out (see app/editor/screens.ts). */
const DESKTOP = 1080
/** Steps of 256 in one channel below which two pixels are the same to the eye, edges of letters included. */
const ALIKE = 40

/** A list shows on the sheet the card that is laid out and the names of some others: it is looked at by itself. */
const WITHOUT_LISTS = '.tr-entries,.list-view{display:none!important}'

/** What only the desk shows: marks of columns and blocks, counts, the caret. */
const WITHOUT_MARKS = `
.tr-column,.tr-row,.block-view,.button-view,.shelf-view{outline:none!important}
.block-state,.handle{display:none!important}
.tr-space{background:none!important}
*{caret-color:transparent!important}
${WITHOUT_LISTS}`

/** The share of pixels that differ, 0 to 1, of the height both have. */
async function difference(one: Buffer, other: Buffer): Promise<{ share: number; heights: [number, number] }> {
  const [a, b] = await Promise.all([one, other].map(png => sharp(png).removeAlpha().raw().toBuffer({ resolveWithObject: true })))
  expect(a!.info.width).toBe(b!.info.width)
  const height = Math.min(a!.info.height, b!.info.height)
  const pixels = a!.info.width * height
  let differing = 0
  for (let pixel = 0; pixel < pixels; pixel++)
    if ([0, 1, 2].some(channel => Math.abs(a!.data[pixel * 3 + channel]! - b!.data[pixel * 3 + channel]!) > ALIKE)) differing++
  return { share: differing / pixels, heights: [a!.info.height, b!.info.height] }
}

const visible = async (page: Page) => {
  await page.evaluate(async () => {
    await document.fonts.ready
    for (const image of document.images) image.loading = 'eager'
    await Promise.all([...document.images].map(image => image.decode().catch(() => undefined)))
  })
}

/** Where the last block of a page ends; pixels from the top of the window. */
const endOf = (page: Page, within: string) =>
  page
    .locator(within)
    .evaluate(element => Math.round(Math.max(...[...element.children].map(child => child.getBoundingClientRect().bottom))))

for (const [title, head] of [
  ['Clay, glaze and a warm kiln', 'beside'],
  ['Kilns', 'beside'],
  ['Classes', 'beside'],
  ['Clay, glaze and a warm kiln', 'over'],
] as const)
  test(`what is written on is what visitors get, to the pixel: ${title}, its head ${head}`, async ({ page, context }, info) => {
    const owner = await ownerApi(server.url)
    const { style } = await owner<{ style: SiteStyle }>('/looks')
    await owner('/style', { method: 'PUT', json: { ...style, head } satisfies SiteStyle })
    await page.setViewportSize({ width: 1800, height: 4000 })
    await openPage(page, title)
    await page.getByRole('button', { name: 'Fold the library away' }).click()
    await choose(page, 'Size of the sheet', '100 %')
    await page.addStyleTag({ content: WITHOUT_MARKS })
    const href = await page.getByRole('link', { name: 'View live' }).getAttribute('href')
    await visible(page)
    const box = (await page.locator('.visitor').boundingBox())!
    const shown = (await page.locator('.sheet').boundingBox())!
    const height = await endOf(page, '.ProseMirror')

    const live = await context.newPage()
    await live.setViewportSize({ width: DESKTOP, height: 4000 })
    await live.goto(server.url + href)
    // Fonts that came too late for the first time are there at once now.
    await live.evaluate(() => document.fonts.ready)
    await live.reload()
    // From the same line of pixels: how high the head is must not decide which way halves are rounded.
    await live.addStyleTag({ content: `header{display:none}${WITHOUT_LISTS}` })
    await visible(live)
    const main = (await live.locator('main').boundingBox())!
    const left = shown.x - box.x
    const liveHeight = await endOf(live, 'main')
    const shot = { width: Math.floor(shown.width), height: Math.min(height - box.y, liveHeight - main.y) }
    const ours = await page.screenshot({ clip: { x: shown.x, y: box.y, ...shot } })
    const theirs = await live.screenshot({ clip: { x: left, y: main.y, ...shot } })
    for (const [name, body] of Object.entries({ sheet: ours, live: theirs })) await info.attach(name, { body, contentType: 'image/png' })
    const { share } = await difference(ours, theirs)
    expect(share, 'of the pixels differ').toBeLessThan(0.01)
    // Nothing stands lower on the one than on the other.
    expect(Math.abs(height - box.y - (liveHeight - main.y))).toBeLessThan(2)
  })

test('a page is laid out as on the screen that is chosen, whatever room the board has, and is written on there', async ({ page }) => {
  await page.setViewportSize({ width: 1280, height: 800 })
  await openPage(page, 'Clay, glaze and a warm kiln')
  const columns = page.locator('.tr-columns').first().locator('.tr-column')
  const tops = async () => Promise.all([0, 1].map(async index => Math.round((await columns.nth(index).boundingBox())!.y)))
  const [first, second] = await tops()
  expect(first).toBe(second)
  // From below the section that ends the page, where there are no words, to its first ones.
  await page.keyboard.press('Control+Home')
  await expect(page.getByRole('region', { name: 'Settings of this section' })).toBeVisible()
  await choose(page, 'Screen of the visitor', 'Phone')
  await expect.poll(async () => (await tops())[1]! > (await tops())[0]!).toBe(true)
  await page.locator('.ProseMirror').focus()
  await page.keyboard.type('On a phone. ')
  await choose(page, 'Screen of the visitor', 'Desktop')
  await expect(page.getByText('Marlpit Pottery Supply digs')).toContainText('On a phone. ')
})

test('a button that is narrower than was set says so beside the setting, and how it is mended', async ({ page }) => {
  await newPage(page, 'Narrow')
  await add(page, 'Three columns')
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('Stock list')
  await page
    .getByRole('option', { name: /Stock list/ })
    .first()
    .waitFor()
  await page.keyboard.press('Enter')
  const note = page.getByRole('region', { name: 'Settings of this button' })
  await note.getByRole('button', { name: 'Width and room' }).click()
  await note.getByRole('radio', { name: 'Exact', exact: true }).check()
  await note.getByRole('textbox', { name: 'Exactly' }).fill('520')
  await note.getByRole('textbox', { name: 'Exactly' }).press('Enter')
  const line = note.getByRole('status').filter({ hasText: /Where it stands it is \d+ px wide/ })
  await expect(line).toBeVisible()
  await line.getByRole('button', { name: 'Let it take all the width' }).click()
  await expect(line).toHaveCount(0)
})
