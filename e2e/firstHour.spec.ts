import { expect, test } from '@playwright/test'
import { makePdf } from '../demo/pdf'
import { letter } from '../demo/texts'
import { setUp } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeEach(async ({ page }) => {
  server = await startServer(await makeData('empty'))
  await setUp(page, server)
})
test.afterEach(() => server.remove())

test('from an empty Trough to a live site that gives its first file, in the style that was tried', async ({ page, browser }) => {
  const steps = page.getByRole('region', { name: /^From an empty Trough/ })
  const bytes = await makePdf(letter, new Date('2026-11-02T09:00:00Z'))
  const [chooser] = await Promise.all([page.waitForEvent('filechooser'), steps.getByRole('button', { name: 'Choose a file…' }).click()])
  await chooser.setFiles({ name: 'price-list.pdf', mimeType: 'application/pdf', buffer: bytes })

  await steps.getByLabel('Opening hours').fill('Monday to Friday, 8 to 5\nSaturday, 9 to 12')
  await steps.getByLabel('Phone').fill('call us')
  await steps.getByRole('button', { name: 'Make the pages' }).click()
  await expect(steps).toContainText('Give a phone number')
  await steps.getByLabel('Phone').fill('01632 960146')
  await steps.getByLabel('What it is').fill('Clay, glazes and kilns from one yard.')
  await steps.getByRole('button', { name: 'Make the pages' }).click()

  // The styles are shown on the page that was just made, though nobody else sees it yet.
  const shown = steps.frameLocator('iframe').first()
  await expect(shown.getByRole('link', { name: /Price list/ }).first()).toBeAttached()
  expect((await fetch(server.url)).status).toBe(404)
  await steps.getByRole('button', { name: /Tenmoku/i }).click()
  await page.getByRole('button', { name: 'Take this style' }).click()

  const trial = steps.frameLocator('iframe[title^="Your home page"]')
  const asked = page.context().waitForEvent('request', request => request.url().includes('/files/price-list.pdf?open'))
  await trial.getByRole('link', { name: /Price list/ }).click()
  expect((await (await asked).response())!.status()).toBe(200)
  // The home page goes live last; until then the way stays, whatever is heard of the other pages.
  let letGo = () => {}
  const held = new Promise<void>(resolve => (letGo = resolve))
  const { items } = (await (await page.request.get(`${server.url}/api/pages`)).json()) as { items: { id: string; slug: string }[] }
  await page.route(`**/api/pages/${items.find(({ slug }) => slug === '')!.id}/publish`, route => held.then(() => route.continue()))
  await steps.getByRole('button', { name: 'Go live', exact: true }).click()
  await expect(
    page
      .getByRole('listitem')
      .filter({ hasText: '/downloads' })
      .getByText(/^Live since/),
  ).toBeVisible()
  await expect(steps.getByRole('button', { name: 'Going live…' })).toBeVisible()
  letGo()
  await expect(page.getByText(/pages are live\.$/)).toBeVisible()
  await expect(steps).toHaveCount(0)

  const visitor = await browser.newPage({ javaScriptEnabled: false })
  await visitor.goto(server.url)
  await expect(visitor.getByRole('heading', { level: 1, name: 'Marlpit' })).toBeVisible()
  await expect(visitor.getByText('Saturday, 9 to 12').first()).toBeVisible()
  const href = await visitor
    .getByRole('link', { name: /Price list/ })
    .first()
    .getAttribute('href')
  expect(Buffer.from(await (await fetch(server.url + href)).arrayBuffer()).equals(bytes)).toBe(true)
  await visitor.getByRole('link', { name: 'Downloads', exact: true }).click()
  await expect(visitor.getByRole('link', { name: /Download/ }).last()).toBeVisible()
  await visitor.close()
})

test('the way is left and found again, by key', async ({ page }) => {
  const steps = page.getByRole('region', { name: /^From an empty Trough/ })
  await steps.getByRole('button', { name: 'I’ll do it by hand' }).press('Enter')
  await expect(steps).toHaveCount(0)
  await page.reload()
  await page.getByRole('button', { name: 'First steps' }).press('Enter')
  await steps.getByRole('button', { name: /A style/ }).press('Enter')
  await expect(steps.getByRole('button', { name: /Slip/ })).toBeVisible()
})
