import { expect, test, type Browser, type Page } from '@playwright/test'
import { violations } from './support/axe'
import { choose, newPage, openDesk, openFolder, ownerApi, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { upload } from './support/upload'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

/** A visitor whose browser runs no script. */
const visitorIn = async (browser: Browser) => (await browser.newContext({ javaScriptEnabled: false, acceptDownloads: true })).newPage()

/** Counts what an owner does. */
function counting() {
  let actions = 0
  return {
    async act(what: () => Promise<unknown>) {
      actions++
      await what()
    },
    count: () => actions,
  }
}
const who = (page: Page) => page.locator('.v-select', { hasText: 'Who may have it' })

test('a password is put on a file in three actions, and a visitor without script gets through with it', async ({ page, browser }) => {
  await openFolder(page, 'Price lists')
  const { act, count } = counting()
  await act(() => row(page, 'Carriage rates').getByRole('link').click())
  await act(() => who(page).click())
  await act(() => page.getByRole('option', { name: 'Whoever has a new password' }).click())
  const password = (await page.locator('.copy-line', { hasText: 'Its password' }).locator('code').textContent())!
  expect(password).toMatch(/^(?:[bdfghjkmnprstvz][aeiou]){2}-[a-z]{4}-[a-z]{4}-[2-9]{3}$/)
  expect(count()).toBe(3)
  await expect(row(page, 'Carriage rates').locator('.gated')).toBeVisible()

  const visitor = await visitorIn(browser)
  await visitor.goto(`${server.url}/files/carriage-rates-2026-03.csv?save`)
  await expect(visitor.getByRole('heading', { name: 'Carriage rates' })).toBeVisible()
  await visitor.getByLabel('Password').fill('wrong')
  await visitor.getByRole('button', { name: 'Go on' }).click()
  await expect(visitor.getByRole('alert')).toHaveText('That is not the password. Check it, and try again.')
  await visitor.getByLabel('Password').fill(password)
  const download = visitor.waitForEvent('download')
  await visitor.getByRole('button', { name: 'Go on' }).click()
  expect((await download).suggestedFilename()).toBe('carriage-rates-2026-03.csv')
  await visitor.context().close()

  // Open again with one choice.
  await who(page).click()
  await page.getByRole('option', { name: 'Everyone' }).click()
  await expect.poll(async () => (await fetch(`${server.url}/files/carriage-rates-2026-03.csv`)).status).toBe(200)
})

test('a file is given for an e-mail address in three actions; who left one stands among the contacts', async ({ page, browser }) => {
  await openFolder(page, 'Guides')
  const { act, count } = counting()
  await act(() => row(page, 'Wedging clay').getByRole('link').click())
  await act(() => who(page).click())
  await act(() => page.getByRole('option', { name: 'Whoever leaves an e-mail address' }).click())
  expect(count()).toBe(3)
  await page.getByRole('link', { name: 'Set up this gate' }).click()
  const note = page.getByRole('region', { name: 'The gate Wedging clay' })
  await note.getByLabel('What they tick before they go on').fill('You may write to me about clay.')
  await note.getByRole('button', { name: 'Ask for something more' }).click()
  await note.getByLabel('What is asked').fill('Your studio')
  await note.getByLabel('What is asked').press('Tab')
  await expect(note.getByLabel('What is asked')).toHaveValue('Your studio')

  const visitor = await visitorIn(browser)
  await expect(async () => {
    await visitor.goto(`${server.url}/files/wedging-clay-2026-03.pdf?save`)
    await expect(visitor.getByLabel('Your studio')).toBeVisible({ timeout: 2000 })
  }).toPass()
  await visitor.getByLabel('Your e-mail address').fill('clay@three-bridges.example')
  await visitor.getByLabel('Your studio').fill('Three Bridges')
  // Nobody writes as fast as a test.
  await visitor.waitForTimeout(900)
  await visitor.getByLabel('You may write to me about clay.').check()
  const download = visitor.waitForEvent('download')
  await visitor.getByRole('button', { name: 'Go on' }).click()
  await download
  await visitor.context().close()

  await note.getByRole('link', { name: 'Who left an address here' }).click()
  await page.getByRole('button', { name: 'clay@three-bridges.example' }).click()
  const contact = page.getByRole('region', { name: 'What is known of clay@three-bridges.example' })
  await expect(contact).toContainText('Three Bridges')
  await expect(contact).toContainText('You may write to me about clay.')
  await expect(contact.getByRole('link', { name: 'Wedging clay' })).toBeVisible()
  await contact.getByRole('button', { name: 'Erase…' }).click()
  await page.getByRole('button', { name: 'Erase it' }).click()
  await expect(page.getByRole('button', { name: 'clay@three-bridges.example' })).toHaveCount(0)
})

test('the outbox shows a message as its receiver reads it, and its link leads to the file', async ({ page, browser }) => {
  await page.goto(`${server.url}/desk/outbox`)
  await page.getByRole('button', { name: 'wheel@hollow-lane-school.example' }).click()
  const letter = page.frameLocator('iframe[title="The message as it is read"]')
  const href = (await letter.getByRole('link', { name: 'Get “Trade account form”' }).getAttribute('href'))!
  expect(href.startsWith(server.url)).toBe(true)
  const visitor = await visitorIn(browser)
  await visitor.goto(href)
  // A browser without windows saves what others show.
  const download = visitor.waitForEvent('download')
  await visitor.getByRole('button', { name: 'Get “Trade account form”' }).click()
  expect((await download).suggestedFilename()).toContain('trade-account-form')
  await visitor.context().close()
})

test('a gate is made, put on a folder and a page, and taken away with what stands behind it named first', async ({ page }) => {
  await page.goto(`${server.url}/desk/gates`)
  await page.getByRole('button', { name: 'New gate' }).click()
  await page.getByLabel('Whom is it for?').fill('Members')
  await page.keyboard.press('Enter')
  const note = page.getByRole('region', { name: 'The gate Members' })
  await expect(note.getByText('Write it down, it is not shown again')).toBeVisible()
  await expect(note.getByText('Nothing stands behind it yet')).toBeVisible()
  await page.getByRole('link', { name: 'Pages', exact: true }).click()
  await page.locator('.pages a.row', { hasText: 'Studio photos' }).click()
  await page.locator('.v-select', { hasText: 'Who may read it' }).click()
  await page.getByRole('option', { name: 'Members' }).click()
  await expect.poll(async () => (await fetch(`${server.url}/studio-photos`)).status).toBe(403)
  await page.goto(`${server.url}/desk/gates`)
  await page.getByRole('button', { name: /^Members/ }).click()
  await expect(note.getByRole('link', { name: 'Studio photos' })).toBeVisible()
  await note.getByRole('button', { name: 'Take it away…' }).click()
  await expect(page.getByText('1 page stands behind it and will be open to everyone')).toBeVisible()
  await page.getByRole('button', { name: 'Take it away, and open them' }).click()
  await expect(page.getByRole('button', { name: /^Members/ })).toHaveCount(0)
  await expect.poll(async () => (await fetch(`${server.url}/studio-photos`)).status).toBe(200)
})

test('what is moved or copied out from behind a gate is said to be open to everyone', async ({ page }) => {
  await openFolder(page, 'Contracts')
  await row(page, 'Supply agreement').getByRole('link').focus()
  await page.keyboard.press('m')
  await page.getByRole('combobox', { name: 'Find a folder' }).fill('guid')
  await expect(page.getByRole('option', { name: 'Guides' })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  await expect(page.getByText(/1 file moved to “Guides”\. No gate stands before one of them there: everyone may have it\./)).toBeVisible()
  const address = `${server.url}/files/supply-agreement-hollow-lane-2026-09.pdf`
  expect((await fetch(address)).status).toBe(200)
  await page.getByRole('button', { name: 'Undo', exact: true }).click()
  await expect(row(page, 'Supply agreement')).toBeVisible()
  expect((await fetch(address)).status).toBe(404)

  // As is a copy.
  await row(page, 'Supply agreement').getByRole('link').focus()
  await page.keyboard.press('m')
  await page.getByRole('combobox', { name: 'Find a folder' }).fill('guid')
  await expect(page.getByRole('option', { name: 'Guides' })).toHaveAttribute('aria-selected', 'true')
  await page.getByRole('button', { name: 'Copy there' }).click()
  await expect(page.getByText(/1 file made in “Guides”\..* No gate stands before one of them there: everyone may have it\./)).toBeVisible()
})

test('gates, guests, contacts, outbox, people and what visitors meet at gates are accessible, also at 390 pixels', async ({
  page,
  browser,
}) => {
  for (const width of [1280, 390]) {
    await page.setViewportSize({ width, height: 800 })
    for (const board of ['gates', 'guests', 'contacts', 'outbox', 'people']) {
      await page.goto(`${server.url}/desk/${board}`)
      await page.getByRole('heading', { level: 1 }).waitFor()
      await page.locator('tbody tr').first().waitFor()
      expect(await violations(page, 'main'), `${board} at ${width}`).toEqual([])
    }
  }
  const visitor = await (await browser.newContext({ viewport: { width: 390, height: 800 } })).newPage()
  for (const path of ['/files/trade-price-list-2026-11.pdf', '/files/first-bowl-2026-03.pdf', '/files/raw-materials.csv']) {
    await visitor.goto(server.url + path)
    expect(await violations(visitor), path).toEqual([])
    expect(await visitor.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  }
  await visitor.context().close()
})

test('a shelf puts what it lists behind a gate, or takes it back to the desk alone', async ({ page }) => {
  const api = await ownerApi(server.url)
  const { id } = await api<{ id: string }>('/folders', { method: 'POST', json: { name: 'Recipes of the house', parent: null } })
  const uploaded = await upload(server.url, 'house-recipe.txt', Buffer.from('Secret'))
  await api('/selection/move', { method: 'POST', json: { files: [uploaded], folders: [], to: id } })
  const file = await api<{ handle: string }>(`/files/${uploaded}`)
  // What was made from outside is known to a desk that is opened after it.
  await openDesk(page, server.url)
  await newPage(page, 'House recipes')
  await page.keyboard.type('/shelf')
  await expect(page.getByRole('option', { name: /^Shelf/ })).toHaveAttribute('aria-selected', 'true')
  await page.keyboard.press('Enter')
  const note = page.getByRole('region', { name: 'Settings of this shelf' })
  await page.locator('.shelf-view').click()
  await note.getByRole('button', { name: 'All of a folder…' }).click()
  await page.getByRole('combobox', { name: 'Find a folder' }).fill('Recipes of')
  await page.getByRole('button', { name: 'List it' }).click()
  await expect(page.locator('.shelf-view')).toContainText('House recipe')
  expect((await fetch(`${server.url}/files/${file.handle}`)).status).toBe(200)
  await choose(note, 'Who may have these', 'Whoever has a new password')
  await expect(note).toContainText('Its password: write it down')
  await expect.poll(async () => (await fetch(`${server.url}/files/${file.handle}`)).status).toBe(403)
  await choose(note, 'Who may have these', 'Nobody: only at the desk')
  await expect.poll(async () => (await fetch(`${server.url}/files/${file.handle}`)).status).toBe(404)
  await choose(note, 'Who may have these', 'Everyone')
  await expect.poll(async () => (await fetch(`${server.url}/files/${file.handle}`)).status).toBe(200)
})
