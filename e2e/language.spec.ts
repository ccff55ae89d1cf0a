import { expect, test } from '@playwright/test'
import { choose, openDesk } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

test('a site speaks the language that is chosen, in words of its owner where they are given, what is not there included', async ({
  page,
  context,
}) => {
  const visitor = await context.newPage()
  await visitor.goto(`${server.url}/kilns`)
  await expect(visitor.locator('html')).toHaveAttribute('lang', 'en')
  await expect(visitor.getByRole('navigation', { name: 'Pages' })).toBeVisible()

  await page.goto(`${server.url}/desk/setup`)
  await choose(page, 'Language', 'Deutsch')
  await page.getByRole('button', { name: 'Save', exact: true }).click()
  await expect(page.getByText('Saved. Live pages show it at once.')).toBeVisible()
  await page.getByRole('button', { name: 'Words visitors read' }).click()
  await page.getByLabel('Angekreuzte Dateien als ein Zip').fill('Auswahl mitnehmen')
  await page.getByRole('button', { name: 'Save the words' }).click()
  await expect(page.getByText('Saved. Live pages say it at once.')).toBeVisible()

  await visitor.reload()
  await expect(visitor.locator('html')).toHaveAttribute('lang', 'de')
  await expect(visitor.getByRole('navigation', { name: 'Seiten' })).toBeVisible()
  await expect(visitor.getByRole('button', { name: 'Auswahl mitnehmen' }).first()).toBeVisible()
  await expect(visitor.getByRole('button', { name: 'Alle 4 als ein Zip' })).toBeVisible()
  await expect(visitor.getByRole('link', { name: /Before a kiln is installed/ }).first()).toHaveAccessibleName(
    /PDF, 1 Seite, 2,3 kB \(öffnet sich in einem neuen Tab\)/,
  )
  await visitor.goto(`${server.url}/files/nothing-of-this-name.pdf`)
  await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('Diese Datei gibt es nicht.')
  await expect(visitor.getByRole('link', { name: 'Zur ersten Seite' })).toBeVisible()

  // The sheet says it as visitors read it.
  await page.goto(`${server.url}/desk`)
  await page.locator('.pages a.row', { hasText: 'Kilns' }).click()
  await expect(page.locator('.tr-take').first()).toContainText('Auswahl mitnehmen')
})

test('Hebrew is laid out from right to left, what stands beside it from left to right', async ({ page }) => {
  await page.getByRole('button', { name: 'New page' }).click()
  await page.getByLabel('Title', { exact: true }).fill('Hebrew')
  await page.getByRole('button', { name: 'Make the page' }).click()
  await page.waitForURL(/\/desk\/pages\//)
  await expect(page.getByRole('textbox', { name: 'The page', exact: true })).toBeFocused()
  await page.keyboard.type('רשימת מחירים לחרסית ולזיגוג')
  await page.keyboard.press('Enter')
  await page.keyboard.type('Price list for clay and glaze')
  await expect(page.locator('.head .save')).toHaveText('Saved')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Hebrew” is live.')).toBeVisible()
  await page.goto(`${server.url}/hebrew`)
  const [right, left] = await page.locator('main p').evaluateAll(paragraphs =>
    paragraphs.map(paragraph => {
      const range = document.createRange()
      range.selectNodeContents(paragraph)
      const [words, box] = [range.getBoundingClientRect(), paragraph.getBoundingClientRect()]
      return { fromLeft: words.left - box.left, fromRight: box.right - words.right }
    }),
  )
  expect(right!.fromRight).toBeLessThan(2)
  expect(right!.fromLeft).toBeGreaterThan(50)
  expect(left!.fromLeft).toBeLessThan(2)
})
