import { expect, test, type Locator, type Page } from '@playwright/test'
import { VISITOR } from '../playwright.config'
import { dropFiles, realPdf, sha256, type RealFile } from './support/files'
import { newPage, openDesk } from './support/owner'
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
