import { expect, test, type Page } from '@playwright/test'
import { openDesk, openFolder, openPage, ownerApi, row } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const note = (page: Page, title: string) => page.getByRole('region', { name: `The signpost ${title}` })
const pathOf = async (page: Page, path: string) => {
  const response = await page.request.get(server.url + path, { maxRedirects: 0 })
  return { status: response.status(), name: /filename="?([^";]+)/.exec(response.headers()['content-disposition'] ?? '')?.[1] }
}

test('a signpost is put up, pointed by dropping a file on it, placed, turned everywhere at once, and turned back', async ({ page }) => {
  await page.getByRole('link', { name: 'Signposts' }).click()
  await page.getByRole('button', { name: 'New signpost' }).click()
  await page.getByLabel('What is it for?').fill('Current trade list')
  await page.keyboard.press('Enter')
  await expect(note(page, 'Current trade list')).toContainText('nothing is here just now')
  await openFolder(page, 'Price lists')
  await row(page, 'Trade account form').dragTo(page.locator('.signposts tr', { hasText: 'Current trade list' }))
  const turning = page.getByRole('dialog', { name: 'Turn “Current trade list”' })
  await turning.getByRole('button', { name: 'Turn it now' }).click()
  await expect(note(page, 'Current trade list').getByRole('link', { name: 'Trade account form' })).toBeVisible()
  expect(await pathOf(page, '/to/current-trade-list')).toEqual({ status: 200, name: 'trade-account-form-2026-03.pdf' })

  await page.getByRole('link', { name: 'Pages', exact: true }).click()
  await openPage(page, 'Kilns')
  await page.keyboard.type('/')
  await page.getByRole('combobox', { name: 'Find a file to place' }).fill('current trade')
  await page.getByRole('option', { name: /Current trade list/ }).click()
  const settings = page.getByRole('region', { name: 'Settings of this button' })
  await expect(settings).toContainText('by the signpost “Current trade list”')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Kilns” is live.')).toBeVisible()
  const live = async () => (await page.request.get(`${server.url}/kilns`)).text()
  expect(await live()).toContain('/to/current-trade-list?open')

  await settings.getByRole('link', { name: /by the signpost/ }).click()
  await note(page, 'Current trade list').getByRole('button', { name: 'Turn it…' }).click()
  await page.getByRole('combobox', { name: 'Find what it shall point at' }).fill('glaze recipes')
  await page.getByRole('option', { name: /Glaze recipes/ }).click()
  await expect(turning).toContainText('1 place and its address will follow')
  await expect(turning.getByRole('link', { name: 'Kilns' })).toBeVisible()
  await turning.getByRole('button', { name: 'Turn it now' }).click()
  await expect(page.getByText('points at “Glaze recipes” now, wherever it is used.')).toBeVisible()
  expect(await live()).toContain('/to/current-trade-list?save')
  expect((await pathOf(page, '/to/current-trade-list')).name).toBe('glaze-recipes.xlsx')
  await page.locator('.notice', { hasText: 'Glaze recipes' }).getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await pathOf(page, '/to/current-trade-list')).name).toBe('trade-account-form-2026-03.pdf')
  expect(await live()).toContain('/to/current-trade-list?open')
})

test('by key: a time is set and taken back; a signpost that is used is taken down with its places led straight on', async ({ page }) => {
  await page.keyboard.press('Control+k')
  await page.keyboard.type('class timetable')
  await page.getByRole('option', { name: /\/to\/class-timetable/ }).click()
  const timetable = note(page, 'Class timetable')
  await timetable.getByRole('button', { name: 'Turn it…' }).press('Enter')
  await page.keyboard.type('packing')
  await page.getByRole('option', { name: /What to bring/ }).waitFor()
  await page.keyboard.press('Enter')
  const turning = page.getByRole('dialog', { name: 'Turn “Class timetable”' })
  await turning.getByRole('button', { name: 'At a set time…' }).press('Enter')
  const setTime = async (day: string, time: string) => {
    const asked = turning.getByRole('form', { name: 'Turn “Class timetable” at' })
    await asked.getByLabel('Day', { exact: true }).fill(day)
    await asked.getByLabel('Time').fill(time)
  }
  await setTime('2027-03-28', '01:30')
  await turning.getByRole('button', { name: 'Set it' }).press('Enter')
  // Clocks in the demo's zone go from 1 to 2 in that night (IANA time zone database, Europe/London).
  await expect(turning.getByText('choose 02:30')).toBeVisible()
  await setTime('2027-03-28', '02:30')
  await turning.getByRole('button', { name: 'Set it' }).press('Enter')
  await expect(timetable).toContainText(/Turns to “What to bring to a class” .*2027/)
  await expect(page.locator('.signposts tr.chosen')).toContainText('turns by itself')
  await timetable.getByRole('button', { name: 'Take that back' }).press('Enter')
  await expect(timetable).not.toContainText('Turns to')

  await timetable.getByRole('button', { name: 'Take it down…' }).press('Enter')
  const down = page.getByRole('dialog', { name: '1 place leads to “Class timetable”' })
  await down.getByRole('button', { name: /Lead them straight/ }).press('Enter')
  await expect(page.getByText('The signpost “Class timetable” is down.')).toBeVisible()
  expect((await pathOf(page, '/to/class-timetable')).status).toBe(410)
  expect(await (await page.request.get(server.url)).text()).toContain('/files/timetable-2027-01.pdf?open')
})

test('an edition gets a note and an address of its own, and is withdrawn; the walk says so and mends it', async ({ page }) => {
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string; title: string; edition: number; handle: string }[] }>('/files?q=price+list')
  const file = items.find(item => item.title === 'Price list')!
  await page.goto(`${server.url}/desk/files/${file.id}`)
  await page.getByRole('button', { name: 'Edition 2', exact: true }).click()
  await page.getByLabel('Note, for yourself').fill('With the new clays')
  // What somebody else changes meanwhile is shown, and does not take away what is being typed.
  await api(`/files/${file.id}`, { method: 'PATCH', json: { description: 'All we sell by weight.' } })
  await page.evaluate(() => window.dispatchEvent(new Event('focus')))
  await expect(page.getByRole('textbox', { name: 'Description' })).toHaveValue('All we sell by weight.')
  await page.getByLabel('Note, for yourself').press('Tab')
  await expect(page.getByRole('row', { name: /^Edition 2 / })).toContainText('With the new clays')
  await page.getByRole('checkbox', { name: 'Anyone can have this edition, by its number' }).click()
  await expect(page.getByText(`/files/${file.handle}?edition=2`)).toBeVisible()
  expect((await pathOf(page, `/files/${file.handle}?edition=2`)).status).toBe(200)
  expect((await pathOf(page, `/files/${file.handle}?edition=1`)).status).toBe(404)
  await page.getByRole('button', { name: 'Edition 2', exact: true }).click()

  await page.getByRole('button', { name: 'Edition 3', exact: true }).click()
  await page.getByRole('button', { name: 'Withdraw it' }).click()
  await expect(page.getByText('Edition 3 was withdrawn: visitors are told so')).toBeVisible()
  expect((await pathOf(page, `/files/${file.handle}`)).status).toBe(410)
  await page.getByRole('link', { name: /^Checks/ }).click()
  const finding = page.locator('.checks li', { hasText: 'withdrawn' }).first()
  await finding.getByRole('button', { name: 'Give out edition 2 instead' }).click()
  await expect(page.getByText(/^Mended/)).toBeVisible()
  expect((await pathOf(page, `/files/${file.handle}`)).name).toBe('price-list-2026-08.pdf')
})

test('another file is put in the place of one everywhere, after a look at the places, and taken back', async ({ page }) => {
  await openFolder(page, 'Classes')
  await row(page, 'Class joining form').getByRole('link').click()
  await page.getByRole('button', { name: 'Another file in its place…' }).click()
  const dialog = page.getByRole('dialog', { name: 'Another file in the place of “Class joining form”' })
  await dialog.getByRole('combobox').fill('rules of the studio')
  await dialog.getByRole('option', { name: /Rules of the studio/ }).click()
  await expect(dialog.getByRole('link', { name: 'Clay, glaze and a warm kiln' })).toBeVisible()
  await dialog.getByRole('button', { name: /^Put it in all/ }).click()
  await expect(page.getByText('now where “Class joining form” was.')).toBeVisible()
  const home = async () => (await page.request.get(server.url)).text()
  expect(await home()).not.toContain('/files/joining-form.docx')
  await expect(page.getByText('Not used anywhere')).toBeVisible()
  await page.locator('.notice', { hasText: 'Rules of the studio' }).getByRole('button', { name: 'Undo' }).click()
  await expect.poll(home).toContain('/files/joining-form.docx')
})
