import { expect, test, type Page } from '@playwright/test'
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
  await openDesk(page, server.url)
  await page.goto(`${server.url}/desk/looks`)
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
