import { expect, test } from '@playwright/test'
import { openDesk } from './support/owner'
import { EACH_LOOK } from './support/pace'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const SITEMAP = `<?xml version="1.0" encoding="UTF-8"?>
<urlset xmlns="http://www.sitemaps.org/schemas/sitemap/0.9">
${['downloads/price_list_2024.pdf', 'manuals/K60-manual-final.pdf', 'our-story.html'].map(path => `<url><loc>http://old.marlpit.example/${path}</loc></url>`).join('\n')}
</urlset>`

test('the site moves: a sitemap of the old one comes in, what is sure is led on at once, the rest is chosen, and visitors arrive', async ({
  page,
}) => {
  const ask = async (path: string) => {
    const response = await page.request.get(server.url + path, { maxRedirects: 0 })
    return [response.status(), response.headers().location]
  }
  await openDesk(page, server.url)
  await page.keyboard.press('Control+k')
  await page.keyboard.type('old addresses')
  await page.getByRole('option', { name: /Old addresses/ }).click()
  const choosing = page.waitForEvent('filechooser')
  await page.getByRole('button', { name: 'Choose a list…' }).click()
  await (await choosing).setFiles({ name: 'sitemap.xml', mimeType: 'application/xml', buffer: Buffer.from(SITEMAP) })
  await expect(page.getByText('3 addresses read, 3 of them new.')).toBeVisible()
  expect(await ask('/our-story.html')).toEqual([404, undefined])
  await page.getByRole('button', { name: 'Take all sure suggestions' }).click()
  await expect(page.getByText('2 addresses lead on now.')).toBeVisible()
  // What is current was meant: the signpost.
  expect(await ask('/downloads/price_list_2024.pdf')).toEqual([308, '/to/current-price-list'])
  expect(await ask('/manuals/K60-manual-final.pdf')).toEqual([308, '/files/marlpit-k60-manual.pdf'])

  const row = page.locator('.old tbody tr', { hasText: '/our-story.html' })
  await expect(async () => {
    await page.reload()
    await expect(row).toContainText('asked for once, in vain', { timeout: EACH_LOOK })
  }).toPass()
  await row.getByRole('button', { name: 'Choose… for /our-story.html' }).press('Enter')
  await page.keyboard.type('classes')
  await page.getByRole('option', { name: /Classes.*\/classes/ }).waitFor()
  await page.getByRole('option', { name: /Classes.*\/classes/ }).click()
  await expect(page.getByText('Every old address leads somewhere.')).toBeVisible()
  expect(await ask('/our-story.html?ref=mail')).toEqual([308, '/classes'])
  await page.locator('.notice', { hasText: '/our-story.html leads to' }).getByRole('button', { name: 'Undo' }).click()
  await expect(row).toBeVisible()
  expect(await ask('/our-story.html')).toEqual([404, undefined])
})
