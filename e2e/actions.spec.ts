import { expect, test, type Locator, type Page } from '@playwright/test'
import { VISITOR } from '../playwright.config'
import { dropFiles, dropFolders, realPdf, sha256, type RealFile } from './support/files'
import { copied, newPage, openDesk, openFolder, openPage, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
let pdf: RealFile
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(async ({ page }, { testId }) => {
  // One that the library does not have yet.
  pdf = await realPdf(`K90 manual ${testId.slice(-4)}.pdf`)
  await openDesk(page, server.url)
})

/** Counts what an owner does: a click, a drop, a field that is typed in, a key command. */
function counter() {
  const done: string[] = []
  const act = (what: string, how: () => Promise<unknown>) => test.step(what, () => (done.push(what), how()))
  return { done, act }
}

const note = (page: Page) => page.getByRole('region', { name: 'Settings of this button' })

test('a folder of files is got in, put in its place, found, looked at and linked, each in few actions', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const letter = { name: 'letter.txt', mimeType: 'text/plain', buffer: Buffer.from('To whom it concerns') }
  const getIn = counter()
  await getIn.act('drop the folder', () => dropFolders(page, { Paperwork: [pdf, letter] }, '.library', { x: 200, y: 600 }))
  const folder = page.locator('.folder-strip', { hasText: 'Paperwork' })
  await expect(folder).toContainText('2 files')

  const organise = counter()
  await organise.act('drag it onto another', () => folder.dragTo(page.locator('.folder-strip', { hasText: 'Kilns' })))
  await expect(page.getByText('1 folder moved to “Kilns”.')).toBeVisible()

  const find = counter()
  await find.act('the Find field', () => page.keyboard.press('Control+k'))
  await find.act('part of its name', () =>
    page.getByRole('combobox', { name: 'Find files, pages and settings' }).fill(pdf.name.replace('manual ', '').slice(0, -4)),
  )
  await expect(page.getByRole('option', { name: /K90 manual/ }).first()).toHaveAttribute('aria-selected', 'true')
  await find.act('open it', () => page.keyboard.press('Enter'))

  // What is in it is there to be looked at without another action.
  await expect(page.getByText('Page 1 of 31')).toBeVisible()

  const link = counter()
  await link.act('copy its link', () => page.getByRole('button', { name: 'Copy: Opens', exact: true }).click())
  const address = await copied(page, /^\/files\//)
  const stranger = await (await context.browser()!.newContext()).request.get(server.url + address)
  expect(sha256(await stranger.body())).toBe(sha256(pdf.buffer))
  expect([getIn, organise, find, link].map(({ done }) => done.length)).toEqual([1, 1, 3, 1])
})

test('a pointer for the whole site is put up in six actions, and a page taken elsewhere in three', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  await openFolder(page, 'Price lists')
  const point = counter()
  await point.act('signposts', () => page.getByRole('link', { name: 'Signposts' }).click())
  await point.act('a new one', () => page.getByRole('button', { name: 'New signpost' }).click())
  await point.act('what it is for', () => page.getByLabel('What is it for?').fill('The list for schools'))
  await point.act('make it', () => page.keyboard.press('Enter'))
  const post = page.locator('.signposts tr', { hasText: 'The list for schools' })
  await point.act('drop a file on it', () => row(page, 'Trade account form').dragTo(post))
  await point.act('turn it', () => page.getByRole('dialog').getByRole('button', { name: 'Turn it now' }).click())
  await expect(
    page.getByRole('region', { name: 'The signpost The list for schools' }).getByRole('link', { name: 'Trade account form' }),
  ).toBeVisible()
  expect((await page.request.get(`${server.url}/to/the-list-for-schools`)).status()).toBe(200)
  expect(point.done).toHaveLength(6)

  await page.getByRole('link', { name: 'Pages', exact: true }).click()
  await openPage(page, 'Kilns')
  const take = counter()
  await take.act('its settings', () => page.getByRole('button', { name: 'Page settings' }).click())
  await take.act('its HTML', () => page.getByRole('button', { name: 'Show HTML…' }).click())
  await take.act('copy it', () => page.getByRole('button', { name: 'Copy', exact: true }).click())
  const elsewhere = await context.newPage()
  await elsewhere.setContent(await copied(page, /^<!DOCTYPE html>/))
  await expect(elsewhere.getByRole('heading', { level: 1 })).toHaveText('Kilns')
  expect(take.done).toHaveLength(3)
})

/** Drops the PDF right below something on the sheet. */
async function dropBelow(page: Page, what: Locator) {
  const box = (await what.boundingBox())!
  await dropFiles(page, [pdf], '.ProseMirror', { x: box.x + box.width / 2, y: box.y + box.height + 4 })
  await expect(page.locator('.button-view.selected')).toContainText(/K90 manual.*\s*PDF, \d+ kB/)
}

/** Presses a button on the live page, as a visitor. */
async function tryLive(page: Page, slug: string, look: RegExp) {
  const visitor = await (await page.context().browser()!.newContext({ userAgent: VISITOR })).newPage()
  await visitor.goto(`${server.url}/${slug}`)
  const link = visitor.getByRole('link', { name: /K90 manual/ })
  await expect(link).toHaveClass(look)
  const got = await visitor.request.get(server.url + (await link.getAttribute('href')))
  expect(sha256(await got.body())).toBe(sha256(pdf.buffer))
  await visitor.context().close()
}

test('a button like its neighbour, live and tried, in three actions', async ({ page }) => {
  await newPage(page, 'Beside')
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('Stock list')
  await page
    .getByRole('option', { name: /Stock list/ })
    .first()
    .click()
  await note(page).getByRole('radio', { name: 'Rim' }).check()
  await note(page).getByRole('radio', { name: 'Middle' }).check()

  const { done, act } = counter()
  await act('drop the file below the button', () => dropBelow(page, page.locator('.button-view').first()))
  await act('publish', () => page.keyboard.press('Control+Enter'))
  await expect(page.getByText('“Beside” is live.')).toBeVisible()
  await act('try it', () => tryLive(page, 'beside', /tr-look-rim/))
  await expect(page.locator('p.button-view').last()).toHaveClass(/tr-middle/)
  expect(done).toHaveLength(3)
})

test('a button styled by itself, live and tried, in at most nine actions', async ({ page }) => {
  await newPage(page, 'Styled')
  await page.keyboard.type('What to know before it is switched on.')

  const { done, act } = counter()
  await act('drop the file', () => dropBelow(page, page.getByText('What to know before')))
  await act('look', () => note(page).getByRole('radio', { name: 'Rim' }).check())
  await act('place', () => note(page).getByRole('radio', { name: 'Middle' }).check())
  const icon = note(page).getByRole('button', { name: 'Icon', exact: true })
  await act('unfold the icons', () => icon.click())
  await act('find an icon', () => note(page).getByPlaceholder('Find an icon').fill('kiln'))
  await act('take it', () => note(page).getByRole('button', { name: 'fire', exact: true }).click())
  await act('publish', () => page.keyboard.press('Control+Enter'))
  await expect(page.getByText('“Styled” is live.')).toBeVisible()
  await act('try it', () => tryLive(page, 'styled', /tr-own-/))
  expect(done.length).toBeLessThanOrEqual(9)
})
