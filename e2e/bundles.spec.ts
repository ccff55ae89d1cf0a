import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test, type Page } from '@playwright/test'
import { unzipSync } from 'fflate'
import { dropFiles } from './support/files'
import { openDesk, openFolder, openPage, ownerApi, row, showInLibrary } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())
test.beforeEach(({ page }) => openDesk(page, server.url))

const composer = (page: Page) => page.getByRole('region', { name: 'What is in the bundle' })
const paths = (page: Page) =>
  composer(page)
    .locator('.path input')
    .evaluateAll(fields => fields.map(field => (field as HTMLInputElement).value))
const namesOf = async (url: string) => Object.keys(unzipSync(new Uint8Array(await (await fetch(url)).arrayBuffer())))

test('a bundle is made of a selection, composed by mouse and key, placed on a page and downloaded', async ({ page }) => {
  await openFolder(page, 'Guides')
  await row(page, 'Wedging clay').locator('.cell').first().click()
  await row(page, 'Throwing a first bowl')
    .locator('.cell')
    .first()
    .click({ modifiers: ['Control'] })
  await page.getByRole('toolbar', { name: 'With what is chosen' }).getByRole('button', { name: 'Bundle…' }).click()
  const title = page.getByLabel('What visitors know it as')
  await expect(title).toBeFocused()
  await title.fill('For the first evening')
  await expect(page.getByRole('dialog')).toContainText('/files/for-the-first-evening.zip')
  await title.press('Enter')
  await page
    .locator('.notice', { hasText: '“For the first evening” is a bundle of 2 files.' })
    .getByRole('button', { name: 'Open it' })
    .click()
  await expect(composer(page)).toContainText('2 files')
  const bundle = row(page, 'For the first evening')
  await expect(bundle).toContainText('bundle')

  const before = await paths(page)
  expect(before).toHaveLength(2)
  await composer(page).locator('.path input').first().focus()
  await page.keyboard.press('Alt+ArrowDown')
  await expect.poll(() => paths(page)).toEqual(before.toReversed())
  await composer(page).locator('.path input').first().fill('Read first/start here.pdf')
  await page.keyboard.press('Enter')
  await expect.poll(async () => (await paths(page))[0]).toBe('Read first/start here.pdf')

  await composer(page).getByRole('button', { name: 'Write a read-me' }).click()
  await page.getByLabel('Text of READ ME.txt').fill('Bring an apron.')
  await page.getByRole('button', { name: 'Put it in' }).click()
  await expect(composer(page)).toContainText('3 files')
  await composer(page).getByRole('button', { name: 'Add files…' }).click()
  await page.getByRole('combobox', { name: 'Find a file for the bundle' }).fill('witness')
  await page.getByRole('option', { name: /Reading a witness cone/ }).click()
  await expect(composer(page)).toContainText('4 files')
  await dropFiles(page, [{ name: 'apron.txt', mimeType: 'text/plain', buffer: Buffer.from('linen') }], '.composer', { x: 60, y: 60 })
  await expect(composer(page)).toContainText('5 files')

  await composer(page)
    .getByRole('button', { name: /^Take reading-a-cone/ })
    .or(composer(page).getByRole('button', { name: /^Take .*cone/ }))
    .first()
    .click()
  await expect(composer(page)).toContainText('4 files')
  await page.locator('.notice').getByRole('button', { name: 'Undo' }).first().click()
  await expect(composer(page)).toContainText('5 files')

  await page.goto(`${server.url}/desk?folder=top`)
  await openPage(page, 'Trade')
  await openFolder(page, 'Guides')
  await row(page, 'For the first evening').getByRole('link').focus()
  await page.keyboard.press('p')
  // One of its files is given for an e-mail address alone, and so is the bundle.
  await expect(page.locator('.button-view', { hasText: 'For the first evening' })).toContainText('ZIP, for your e-mail address')
})

test('what is dropped on a bundle goes into it; a folder in it is always what the folder holds', async ({ page }) => {
  await openFolder(page, 'Safety data sheets')
  const all = `${server.url}/files/all-safety-data-sheets.zip`
  const before = await namesOf(all)
  await dropFiles(page, [{ name: 'sds-new-glaze.txt', mimeType: 'text/plain', buffer: Buffer.from('new') }], '.library', { x: 200, y: 500 })
  await expect(row(page, 'Sds new glaze')).toHaveCount(1)
  await expect.poll(() => namesOf(all)).toEqual([...before, 'Safety data sheets/sds-new-glaze.txt'].sort())

  await row(page, 'Sds new glaze').dragTo(row(page, 'All safety data sheets'))
  await expect(page.getByText(/Put into “All safety data sheets”/)).toBeVisible()
  await expect.poll(() => namesOf(all)).toContain('sds-new-glaze.txt')
  await page.getByRole('button', { name: 'Open it' }).click()
  await expect(composer(page)).toContainText('always what the folder “Safety data sheets” holds')
  await row(page, 'Sds new glaze').getByRole('link').click()
  await expect(page.getByRole('heading', { name: 'In 1 bundle' })).toBeVisible()
})

test('a visitor resumes a bundle with curl, and unzip finds it whole', async () => {
  const address = `${server.url}/files/test-tile-picture-pack.zip`
  const whole = Buffer.from(await (await fetch(address)).arrayBuffer())
  const path = join(mkdtempSync(join(tmpdir(), 'trough-resume-')), 'resumed.zip')
  execFileSync('sh', ['-c', `curl -sS -r 0-99999 "$1" -o "$2" && curl -sS -C - -o "$2" "$1" && unzip -tq "$2"`, 'sh', address, path])
  expect(execFileSync('sha256sum', [path], { encoding: 'utf8' }).slice(0, 64)).toBe(
    execFileSync('sha256sum', { input: whole, encoding: 'utf8' }).slice(0, 64),
  )
})

test('a file that lies in a bundle is not deleted unseen, and is taken out of it', async ({ page }) => {
  const api = await ownerApi(server.url)
  const { items } = await api<{ items: { id: string }[] }>('/files?q=Test%20tile%20oribe')
  await api('/bundles', { method: 'POST', json: { title: 'Greens', files: [items[0]!.id] } })
  await showInLibrary(page, 'Test tile oribe')
  await row(page, 'Test tile oribe').getByRole('link').focus()
  await page.keyboard.press('Delete')
  const dialog = page.getByRole('dialog')
  await expect(dialog).toContainText('Greens bundle')
  await dialog.getByRole('button', { name: /Take it off/ }).click()
  await expect(row(page, 'Test tile oribe')).toHaveCount(0)
})
