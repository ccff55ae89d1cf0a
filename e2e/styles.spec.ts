import { expect, test, type Page } from '@playwright/test'
import { trueType } from '../server/testing/fonts'
import { dropFiles } from './support/files'
import { openDesk } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const styled = (page: Page, element: string, property: string) =>
  page
    .locator(element)
    .first()
    .evaluate((found, name) => getComputedStyle(found).getPropertyValue(name), property)

test('a style is tried on a page of the site, taken, seen by visitors in light and dark, and taken back', async ({ page, context }) => {
  await openDesk(page, server.url, '/desk/looks')
  const gallery = page.getByRole('region', { name: 'Finished styles' })
  await expect(gallery.getByRole('button', { name: /^Slip/ })).toContainText('Worn now')
  await gallery.getByRole('button', { name: /^Tenmoku/ }).click()
  const tried = page.frameLocator('iframe[title="A page in the style Tenmoku"]')
  await expect(tried.getByRole('heading', { level: 1 })).toBeVisible()

  const visitor = await context.newPage()
  await visitor.goto(`${server.url}/kilns`)
  await expect.poll(() => styled(visitor, 'html', 'background-color')).toBe('rgb(252, 251, 248)')
  await page.getByRole('button', { name: 'Take this style' }).click()
  await expect(page.getByText('All pages wear “Tenmoku” now.')).toBeVisible()
  await visitor.reload()
  expect(await styled(visitor, 'html', 'background-color')).toBe('rgb(250, 247, 241)')
  expect(await styled(visitor, 'h2', 'font-family')).toMatch(/^"?Bitter/)
  await expect.poll(() => visitor.evaluate(() => document.fonts.check('560 20px Bitter'))).toBe(true)
  await visitor.emulateMedia({ colorScheme: 'dark' })
  expect(await styled(visitor, 'html', 'background-color')).toBe('rgb(20, 17, 14)')
  expect(await styled(visitor, 'main', 'color')).toBe('rgb(241, 234, 224)')
  await visitor.emulateMedia({ colorScheme: 'dark', media: 'print' })
  expect(await styled(visitor, 'main', 'color')).toBe('rgb(0, 0, 0)')
  await expect(visitor.getByRole('navigation')).toBeHidden()

  await page.getByRole('button', { name: 'Undo' }).click()
  await expect(gallery.getByRole('button', { name: /^Slip/ })).toContainText('Worn now')
})

test('a font of one’s own is dropped, chosen for headings, given its bold one, and set for visitors', async ({ page, context }) => {
  await openDesk(page, server.url, '/desk/looks')
  const own = page.getByRole('group', { name: 'Typefaces of your own' })
  const font = async (weight: number) => ({
    name: `Karla ${weight}.ttf`,
    mimeType: 'font/ttf',
    buffer: await trueType('karla', weight),
  })
  await own.scrollIntoViewIfNeeded()
  await dropFiles(page, [await font(400)], '.own', { x: 500, y: 500 })
  await expect(own.getByText('Karla', { exact: true })).toBeVisible()
  await expect(own.getByText('regular', { exact: true })).toBeVisible()
  await own.getByRole('button', { name: 'Headings' }).click()

  const visitor = await context.newPage()
  const loaded = () =>
    visitor.evaluate(async () => {
      await document.fonts.ready
      return [...document.fonts].filter(face => face.status === 'loaded' && face.family.includes('own-')).map(face => face.weight)
    })
  await expect
    .poll(async () => {
      await visitor.goto(`${server.url}/kilns`)
      return styled(visitor, 'h1', 'font-family')
    })
    .toMatch(/^"?own-/)
  expect(await loaded()).toContain('400')

  const chooser = page.waitForEvent('filechooser')
  await own.getByRole('button', { name: 'Add its bold font…' }).click()
  await own.getByRole('option', { name: 'From this computer…' }).click()
  await (await chooser).setFiles([await font(700)])
  await expect(own.getByText('regular and bold')).toBeVisible()
  await expect
    .poll(async () => {
      await visitor.goto(`${server.url}/kilns`)
      return loaded()
    })
    .toContain('700')

  await dropFiles(page, [{ name: 'no font.ttf', mimeType: 'font/ttf', buffer: Buffer.from('words') }], '.own', { x: 500, y: 500 })
  await expect(own.getByRole('alert')).toContainText('It is no font.')
  await own.getByRole('button', { name: 'Take off Karla' }).click()
  await expect(own.getByText('Karla', { exact: true })).toBeHidden()
  await expect
    .poll(async () => {
      await visitor.goto(`${server.url}/kilns`)
      return styled(visitor, 'h1', 'font-family')
    })
    .toMatch(/^"?Literata/)
})

// Web Vitals: cumulative layout shift, as Chromium measures it. The fonts come late on purpose.
for (const width of [390, 1280])
  test(`nothing on a page jumps when its fonts and pictures arrive: ${width} px`, async ({ page }) => {
    await page.setViewportSize({ width, height: 800 })
    await page.addInitScript(() => {
      const shifts: number[] = []
      Object.assign(window, { shifts })
      new PerformanceObserver(list => {
        for (const entry of list.getEntries()) shifts.push((entry as PerformanceEntry & { value: number }).value)
      }).observe({ type: 'layout-shift', buffered: true })
    })
    await page.route('**/_fonts/**', async route => {
      await new Promise(resolve => setTimeout(resolve, 400))
      await route.continue()
    })
    for (const slug of ['', 'kilns', 'classes', 'clay-and-glaze', 'trade', 'studio-photos', 'guides']) {
      await page.goto(`${server.url}/${slug}`)
      await page.evaluate(() => document.fonts.ready)
      await page.waitForLoadState('networkidle')
      const shifts = await page.evaluate(() => (window as unknown as { shifts: number[] }).shifts)
      expect(
        shifts.reduce((sum, value) => sum + value, 0),
        `/${slug}`,
      ).toBe(0)
    }
  })
