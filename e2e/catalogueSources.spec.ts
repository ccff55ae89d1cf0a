import { expect, test, type Page } from '@playwright/test'
import { strToU8, zipSync } from 'fflate'
import type { FileItem } from '../core/files/fileItem'
import type { FolderItem } from '../core/folders/folderItem'
import { dropFiles } from './support/files'
import { catalogueNamed, entriesIn } from './support/catalogues'
import { add, newPage, openDesk, ownerApi } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { upload } from './support/upload'

let server: RunningServer
let api: Awaited<ReturnType<typeof ownerApi>>
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  api = await ownerApi(server.url)
})
test.afterAll(() => server.remove())

const catalogueOf = (name: string) => catalogueNamed(api, name)
const entriesOf = (id: string) => entriesIn(api, id)
const html = async (path: string) => (await fetch(server.url + path)).text()
const openCatalogue = async (page: Page, name: string) => openDesk(page, server.url, `/desk/catalogues/${(await catalogueOf(name)).id}`)
const fieldButton = (page: Page, name: string) =>
  page.getByRole('region', { name: 'The catalogue' }).getByRole('button', { name, exact: true })

test('a value of the whole site is written once, named in the words of a page, and changes on all of them', async ({ page }) => {
  await openDesk(page, server.url, '/desk/catalogues')
  await page.getByRole('button', { name: 'values of the whole site' }).click()
  await expect(page.getByLabel('Open on weekdays', { exact: true })).toHaveValue('Monday to Friday, eight to five')
  await page.getByRole('button', { name: 'New value' }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByLabel('Name').fill('Kiln hire')
  await dialog.getByRole('button', { name: 'Add the field' }).click()
  await page.getByLabel('Kiln hire', { exact: true }).fill('Forty pounds a firing')
  await page.getByLabel('Open on weekdays', { exact: true }).fill('Every day, nine to five')
  await page.getByLabel('Kiln hire', { exact: true }).click()
  await expect.poll(async () => JSON.stringify(await entriesOf((await catalogueOf('Site values')).id))).toContain('Every day')
  expect(await html('/')).toContain('Monday to Friday, eight to five')

  await openDesk(page, server.url)
  const id = await newPage(page, 'Hire a kiln')
  await page.keyboard.type('It costs: ')
  await add(page, 'Kiln hire')
  await expect(page.locator('.field-view')).toHaveText('Forty pounds a firing')
  await expect.poll(async () => JSON.stringify(await api(`/pages/${id}`))).toContain('siteValue')
  await api(`/pages/${id}/publish`, { method: 'POST', json: {} })
  // A value that is not live yet is no value for visitors.
  expect(await html('/hire-a-kiln')).not.toContain('Forty pounds')

  await openCatalogue(page, 'Site values')
  await page.getByRole('button', { name: 'Publish 1' }).click()
  await expect(page.getByText('1 entry is live.')).toBeVisible()
  const shown = await html('/hire-a-kiln')
  expect(shown).toContain('It costs: Forty pounds a firing')
  expect(shown.split('<footer')[1]).toContain('Every day, nine to five')
})

test('a folder feeds a field: what comes into it finds its entry, and what fits none is asked', async ({ page }) => {
  const { items } = await api<{ items: FolderItem[] }>('/folders')
  const folder = items.find(({ name }) => name === 'Safety data sheets')!
  await openCatalogue(page, 'Clays')
  await fieldButton(page, 'Safety data sheet').click()
  await page.getByRole('button', { name: 'Take files from a folder…' }).click()
  const pick = page.getByRole('dialog').last()
  await pick.getByRole('combobox', { name: 'Find a folder' }).fill('Safety data')
  await page.getByRole('option', { name: /Safety data sheets/ }).click()
  await pick.getByRole('button', { name: 'Take files from it' }).click()
  await page.getByRole('button', { name: 'Change the field' }).click()
  await expect(page.getByRole('dialog')).toHaveCount(0)
  await expect
    .poll(async () => (await catalogueOf('Clays')).fields.find(({ name }) => name === 'Safety data sheet')?.folder)
    .toBe(folder.id)

  const field = (await catalogueOf('Clays')).fields.find(({ name }) => name === 'Safety data sheet')!
  const file = await upload(server.url, 'C106-sds.pdf', Buffer.from('%PDF-1.7 raku body'))
  await api('/selection/move', { method: 'POST', json: { files: [file], folders: [], to: folder.id } })
  const raku = async () => (await entriesOf((await catalogueOf('Clays')).id)).find(({ values }) => values.number === 'C106')!
  await expect.poll(async () => (await raku()).values[field.id]).toBe(file)
  // Visitors have it with the entry that they see already.
  const { handle } = await api<FileItem>(`/files/${file}`)
  expect(await html('/clays/raku-body')).toContain(`/files/${handle}`)
  await expect(page.getByText(/files in “Safety data sheets” fit no clay beyond doubt/)).toBeVisible()
  await page.getByRole('button', { name: 'Say where they belong' }).click()
  await expect(page.getByRole('dialog')).toBeVisible()
})

test('a table of the library is followed: its next edition is looked at before it comes in', async ({ page }) => {
  const file = await upload(server.url, 'brushes.csv', Buffer.from('No,Name,Price\nB1,Hake,£4.00\nB2,Fan,£5.00\n'))
  await openDesk(page, server.url, '/desk/catalogues')
  await page.getByRole('button', { name: 'New catalogue' }).click()
  await page.getByLabel('All of them are called').fill('Brushes')
  await page.getByLabel('One of them is a').fill('brush')
  await page.getByRole('button', { name: 'Make it' }).click()
  await page.getByRole('button', { name: 'More to do with the catalogue' }).click()
  await page.getByRole('menuitem', { name: 'Bring in a table of the library…' }).click()
  await page.getByRole('combobox', { name: 'Find a table' }).fill('brushes')
  await page
    .getByRole('option', { name: /brushes/i })
    .first()
    .click()
  await page.getByLabel('Its next edition is the next table').check()
  await page.getByRole('button', { name: 'Bring it in' }).click()
  await expect(page.getByRole('gridcell', { name: 'Name: Hake' })).toBeVisible()

  await dropFiles(
    page,
    [{ name: 'brushes.csv', mimeType: 'text/csv', buffer: Buffer.from('No,Name,Price\nB1,Hake,£4.50\nB3,Mop,£7.00\n') }],
    '.library',
    {
      x: 200,
      y: 600,
    },
  )
  await page.getByRole('dialog').getByRole('button', { name: 'Go on' }).click()
  await expect(page.getByText('has a new edition. Nothing of it is in the catalogue yet.')).toBeVisible()
  const brushes = await catalogueOf('Brushes')
  expect((await entriesOf(brushes.id)).map(({ values }) => values.title)).toEqual(['Hake', 'Fan'])
  await page.getByRole('button', { name: 'Look at what it changes' }).click()
  await expect(page.getByText('1 new, 1 changed')).toBeVisible()
  await page.getByRole('button', { name: 'Bring it in' }).click()
  await expect(page.getByRole('gridcell', { name: 'Name: Mop' })).toBeVisible()
  await expect(page.getByText('has a new edition. Nothing of it')).toHaveCount(0)
  expect((await catalogueOf('Brushes')).source).toMatchObject({ file, edition: 2 })
})

test('what a table names comes along with it as a zip; a section stands on the pages of single entries', async ({ page }) => {
  await openCatalogue(page, 'Kilns')
  const zip = Buffer.from(zipSync({ 'K410 manual.txt': strToU8('Fire it slowly.') }))
  const table = 'Model,Manual\nK410,K410 manual.txt\n'
  await dropFiles(
    page,
    [
      { name: 'more kilns.csv', mimeType: 'text/csv', buffer: Buffer.from(table) },
      { name: 'manuals.zip', mimeType: 'application/zip', buffer: zip },
    ],
    '.catalogue',
    { x: 900, y: 600 },
  )
  const dialog = page.getByRole('dialog', { name: /more kilns/ })
  await expect(dialog.getByText('1 new, 0 changed')).toBeVisible()
  // The file is found once it is there.
  await expect(dialog.getByText('cannot come in')).toHaveCount(0)
  await dialog.getByRole('button', { name: 'Bring it in' }).click()
  await expect(dialog).toHaveCount(0)
  const kilns = await catalogueOf('Kilns')
  const manual = kilns.fields.find(({ name }) => name === 'Manual')!
  const made = (await entriesOf(kilns.id)).find(({ values }) => values.title === 'K410')!
  const { fileName } = await api<FileItem>(`/files/${String(made.values[manual.id])}`)
  expect(fileName).toBe('K410 manual.txt')
  await api(`/catalogues/${kilns.id}/entries/publish`, { method: 'POST', json: { ids: [made.id] } })

  await openDesk(page, server.url, `/desk/pages/${kilns.layout}`)
  await expect(page.getByRole('textbox', { name: 'The page', exact: true })).toBeVisible()
  const layout = await api<{ draft: { content: object[] }; title: string; revision: number }>(`/pages/${kilns.layout}`)
  const section = {
    type: 'section',
    attrs: { tone: 'tint', padding: 'small', width: 'text' },
    content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Made to order' }] }],
  }
  const draft = { type: 'doc', content: [...layout.draft.content, section] }
  await api(`/pages/${kilns.layout}/draft`, { method: 'PUT', json: { title: layout.title, draft, revision: layout.revision } })
  await openDesk(page, server.url, `/desk/pages/${kilns.layout}`)
  await page.getByText('Made to order').click()
  const only = page.getByRole('combobox', { name: 'Only for some kilns' })
  await only.fill('K410')
  await page.getByRole('option', { name: 'K410' }).click()
  await expect.poll(async () => JSON.stringify(await api(`/pages/${kilns.layout}`))).toContain(`"onlyFor":["${made.id}"]`)
  await api(`/pages/${kilns.layout}/publish`, { method: 'POST', json: {} })
  expect(await html(`/kilns/${made.slug}`)).toContain('Made to order')
  expect(await html('/kilns/k60')).not.toContain('Made to order')

  // Find leads to it by its name.
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find files, pages and settings' }).fill('k410')
  await page
    .getByRole('option')
    .filter({ hasText: /K410\s*kiln/ })
    .click()
  await expect(page.getByRole('region', { name: 'One kiln' }).getByRole('heading', { name: 'K410' })).toBeVisible()
})

test('a field that is taken out comes back with what was in it; an entry leaves at its set time, and is held back where something leads to it', async ({
  page,
}) => {
  await openCatalogue(page, 'Glazes')
  const glazes = await catalogueOf('Glazes')
  const surface = glazes.fields.find(({ name }) => name === 'Surface')!
  const before = (await entriesOf(glazes.id)).map(({ values }) => values[surface.id])
  await page.getByRole('button', { name: 'Take out Surface' }).click()
  await expect(page.getByText(/“Surface” is in the bin, with what \d+ entries had in it/)).toBeVisible()
  await expect.poll(async () => (await entriesOf(glazes.id)).some(({ values }) => surface.id in values)).toBe(false)
  await page.getByRole('button', { name: 'Undo' }).click()
  await expect.poll(async () => (await entriesOf(glazes.id)).map(({ values }) => values[surface.id])).toEqual(before)

  const [first] = await entriesOf(glazes.id)
  await page.getByRole('gridcell', { name: `Name: ${String(first!.values.title)}`, exact: true }).click()
  await page.getByRole('button', { name: 'Leave at a set time…' }).click()
  await page.getByRole('form', { name: 'Take it from visitors by itself' }).getByRole('button', { name: 'Set it' }).click()
  await expect(page.getByText('Leaves the site')).toBeVisible()
  const { items } = await api<{ items: { act: object }[] }>('/timetable')
  expect(items.map(({ act }) => act)).toContainEqual({ kind: 'entry', entry: first!.id, to: 'off' })

  await openDesk(page, server.url)
  const id = await newPage(page, 'Glaze of the month')
  const { revision, title } = await api<{ revision: number; title: string }>(`/pages/${id}`)
  const target = { kind: 'entry', id: first!.id }
  const link = { type: 'downloadLink', attrs: { placement: 'monthly000', target, action: 'here', saveAs: '' } }
  const draft = { type: 'doc', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'This one', marks: [link] }] }] }
  await api(`/pages/${id}/draft`, { method: 'PUT', json: { title, draft, revision } })
  await openCatalogue(page, 'Glazes')
  await page.getByRole('gridcell', { name: `Name: ${String(first!.values.title)}`, exact: true }).click()
  await page.getByRole('button', { name: 'Address, and out of the catalogue' }).click()
  await page.getByRole('button', { name: 'Put it in the bin' }).click()
  const asked = page.getByRole('alertdialog')
  await expect(asked).toContainText('Something on “Glaze of the month” leads there.')
  await asked.getByRole('button', { name: 'Keep it' }).click()
  expect(await entriesOf(glazes.id)).toHaveLength(before.length)
})
