import { expect, test } from '@playwright/test'
import { HtmlValidate } from 'html-validate'
import { BUILT_IN_LOOKS } from '../core/look/builtin'
import type { PageDetails } from '../core/page/pageItem'
import { mapLooks } from '../core/page/buttonLooks'
import { withFreshPlacements } from '../core/page/copy'
import type { Block } from '../core/page/schema'
import { START_NAMES } from '../core/page/starts'
import { mapTargets } from '../core/page/targets'
import { mapBlocks } from '../core/page/blocks'
import { violations } from './support/axe'
import { choose, openDesk, openFolder, openPage, ownerApi, row, showInLibrary } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'

let server: RunningServer
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
})
test.afterAll(() => server.remove())

const PAGES = ['', 'clay-and-glaze', 'trade', 'kilns', 'classes', 'studio-photos', 'guides', 'no-such-page']
/** Pages that show what is in a file: pages with marks, a table, a document, a sound; and what was found. */
const LOOKS = ['marlpit-k60-manual.pdf?page=2&find=kiln', 'spare-parts-k60.xlsx', 'joining-form.docx?find=name', 'kiln-finished.wav'].map(
  name => `see/${name}`,
)
/** Pages of entries, with a picture and without. */
const ENTRIES = ['glazes/celadon-pale', 'kilns/k60']
const FOUND = ['shelves/find', 'shelves/find?q=cone&kind=document', 'shelves/find?q=zebra']

const DIALOG = '[role=dialog]'

const WIDTHS = [1280, 390]

for (const [what, slugs] of Object.entries({
  'published pages': PAGES,
  'looks at files': LOOKS,
  'pages of entries and of what was found': [...ENTRIES, ...FOUND],
}))
  test(`${what} at 1280 and 390 px: axe, validator, no sideways scrolling`, async ({ page }) => {
    const validator = new HtmlValidate({ extends: ['html-validate:standard', 'html-validate:a11y'], rules: { 'doctype-style': 'off' } })
    for (const slug of slugs) {
      const response = await page.goto(`${server.url}/${slug}`)
      const report = await validator.validateString(await response!.text())
      expect(
        report.results.flatMap(result => result.messages.map(message => message.message)),
        slug,
      ).toEqual([])
      expect(await page.evaluate(() => [...document.scripts].filter(script => script.type !== 'application/ld+json').length), slug).toBe(0)
      for (const width of WIDTHS) {
        await page.setViewportSize({ width, height: 800 })
        expect.soft(await violations(page), `${slug} at ${width}`).toEqual([])
        expect(await page.evaluate(() => document.documentElement.scrollWidth), `${slug} at ${width}`).toBeLessThanOrEqual(width)
      }
    }
  })

test('setup, a menu and a list that is open pass axe at 1280 and 390 px', async ({ page }) => {
  await openDesk(page, server.url)
  await page.setViewportSize({ width: 390, height: 800 })
  await page.getByRole('button', { name: 'Page', exact: true }).click()
  const atEach = async (part: string, what: string) => {
    for (const width of WIDTHS) {
      await page.setViewportSize({ width, height: 800 })
      expect.soft(await violations(page, part), `${what} at ${width}`).toEqual([])
    }
  }
  for (const [section, heading] of [
    ['', 'Site'],
    ['/files', 'Fetching from the web'],
    ['/people', 'Password'],
    ['/storage', 'What is cleaned away'],
    ['/moving', 'Take the library with you'],
    ['/services', 'Other services'],
    ['/log', 'Who did what'],
  ] as const) {
    await page.goto(`${server.url}/desk/setup${section}`)
    await page.getByRole('heading', { name: heading, exact: true }).waitFor()
    await atEach('.work', `setup${section}`)
  }
  for (const width of WIDTHS) {
    await page.setViewportSize({ width, height: 800 })
    await page.getByRole('button', { name: 'Account and setup' }).click()
    await page.getByRole('menuitem', { name: 'Looks' }).waitFor()
    expect.soft(await violations(page), `menu at ${width}`).toEqual([])
    await page.keyboard.press('Escape')
    await page.goto(`${server.url}/desk/setup`)
    await page.getByRole('combobox', { name: 'Time zone' }).click()
    await page.getByRole('option').first().waitFor()
    // What lies below it is out of reach as long as it is open.
    expect.soft(await violations(page, '.v-overlay'), `list at ${width}`).toEqual([])
    await page.keyboard.press('Escape')
  }
})

for (const width of WIDTHS)
  test(`the boards at ${width} px pass axe`, async ({ page }) => {
    await page.setViewportSize({ width, height: 800 })
    await page.goto(`${server.url}/desk`)
    await page.getByLabel('E-mail').waitFor()
    expect.soft(await violations(page), 'sign in').toEqual([])
    if (width === 1280) await openDesk(page, server.url)
    else {
      await page.getByLabel('E-mail').fill('owner@marlpit.example')
      await page.getByLabel('Password').fill('marlpit-demo')
      await page.getByRole('button', { name: 'Sign in' }).click()
    }
    await page.locator('.pages a.row').first().waitFor()
    expect.soft(await violations(page), 'pages').toEqual([])
    await openPage(page, 'Trade')
    await page.locator('.button-view .tr-button').first().click()
    await expect(page.getByRole('region', { name: 'Settings of this button' })).toBeVisible()
    expect.soft(await violations(page), 'page').toEqual([])
    await page.goto(`${server.url}/desk/pages/head`)
    await page.locator('.tr-row .tr-button').last().click()
    await expect(page.getByRole('region', { name: 'Settings of this button' })).toBeVisible()
    expect.soft(await violations(page, '.work'), 'head').toEqual([])
    await page.goto(`${server.url}/desk/looks`)
    await page.locator('.rack li').first().waitFor()
    expect.soft(await violations(page, '.work'), 'looks').toEqual([])
    await page.goto(`${server.url}/desk/checks`)
    await page.locator('.finding').first().waitFor()
    expect.soft(await violations(page, '.work'), 'checks').toEqual([])
    await page.goto(`${server.url}/desk/catalogues`)
    await page.locator('.margin-board').getByRole('link', { name: 'Kilns', exact: true }).waitFor()
    expect.soft(await violations(page, '.work'), 'catalogues').toEqual([])
    await page.getByRole('button', { name: 'values of the whole site' }).click()
    await page.getByLabel('Season', { exact: true }).waitFor()
    expect.soft(await violations(page, '.work'), 'values of the site').toEqual([])
    await page.goBack()
    await page.locator('.margin-board').getByRole('link', { name: 'Kilns', exact: true }).click()
    await page.getByRole('gridcell', { name: 'Model: K60', exact: true }).waitFor()
    expect.soft(await violations(page, '.work'), 'a catalogue').toEqual([])
    await page.getByRole('gridcell', { name: 'Model: K60', exact: true }).click()
    await page.getByRole('heading', { name: 'K60', exact: true }).waitFor()
    expect.soft(await violations(page, '.work'), 'an entry').toEqual([])
    if (width === 390) await page.getByRole('button', { name: 'Library', exact: true }).click()
    // Not a document: nothing can look into the frame it is shown in, which is its purpose.
    await page.locator('.file-row a.title', { hasText: 'Scan0007' }).click()
    if (width === 390) await page.getByRole('button', { name: 'Page', exact: true }).click()
    await page.getByRole('heading', { name: 'Direct link' }).waitFor()
    expect.soft(await violations(page, '.work'), 'details').toEqual([])
    expect(await page.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(width)
  })

test('dialogs pass axe', async ({ page }) => {
  await openDesk(page, server.url)
  await page.keyboard.press('?')
  await expect(page.getByRole('heading', { name: 'Keys' })).toBeVisible()
  expect.soft(await violations(page, DIALOG), 'keys').toEqual([])
  await page.keyboard.press('Escape')
  await page.locator('.folder-strip', { hasText: 'Kilns' }).getByRole('button').last().click()
  await page.getByRole('dialog').getByLabel('Name').waitFor()
  expect.soft(await violations(page, DIALOG), 'folder').toEqual([])
  await page.keyboard.press('Escape')
  await showInLibrary(page, 'Stock list')
  await row(page, 'Stock list').getByRole('link').focus()
  await page.keyboard.press('Delete')
  await expect(page.getByText('1 place leads to')).toBeVisible()
  expect.soft(await violations(page, DIALOG), 'delete').toEqual([])
})

test('people, guests and their gate pass axe', async ({ page }) => {
  await openDesk(page, server.url, '/desk/people')
  await page.getByRole('button', { name: 'Yard', exact: true }).click()
  await choose(page.getByRole('region', { name: 'Yard' }), 'What they may do', /^Of your own choice/)
  expect.soft(await violations(page, '.work'), 'rights').toEqual([])
  await page.getByRole('button', { name: 'Invite somebody' }).click()
  expect.soft(await violations(page, '.work'), 'inviting').toEqual([])
  await page.goto(`${server.url}/desk/guests`)
  await page.getByRole('button', { name: 'School office' }).click()
  await page.getByRole('button', { name: 'Put people in' }).click()
  expect.soft(await violations(page, '.work'), 'guests').toEqual([])
  await page.goto(`${server.url}/desk/gates`)
  await page.getByRole('button', { name: /^Hollow Lane School/ }).click()
  await page.getByText('2 people may pass').waitFor()
  expect.soft(await violations(page, '.work'), 'gate').toEqual([])
  await page.goto(`${server.url}/desk/letterbox`)
  await page.getByRole('button', { name: 'Hollow Lane School', exact: true }).click()
  await page.getByRole('region', { name: 'Number 2' }).waitFor()
  expect.soft(await violations(page, '.work'), 'letterbox').toEqual([])
  expect.soft(await violations(page, '.trough'), 'the trough').toEqual([])
})

test('signposts, turning one, what is said of an edition, and old addresses pass axe', async ({ page }) => {
  const api = await ownerApi(server.url)
  await api('/old-addresses', { method: 'POST', json: { text: '/downloads/price_list_2024.pdf\n/about-us\n' } })
  await openDesk(page, server.url, '/desk/signposts')
  await page.getByRole('heading', { name: 'Used in 1 place' }).waitFor()
  expect.soft(await violations(page, '.work'), 'signposts').toEqual([])
  await page.getByRole('button', { name: 'Turn it…' }).click()
  await page.getByRole('option', { name: /Trade price list/ }).click()
  await page.getByRole('button', { name: 'At a set time…' }).click()
  expect.soft(await violations(page, DIALOG), 'turning').toEqual([])
  await page.keyboard.press('Escape')
  await page.keyboard.press('Escape')
  await page.goto(`${server.url}/desk/old-addresses`)
  await page.locator('.old tbody tr').first().waitFor()
  expect.soft(await violations(page, '.work'), 'old addresses').toEqual([])
  const { items } = await api<{ items: { id: string; edition: number }[] }>('/files?q=Price list')
  await page.goto(`${server.url}/desk/files/${items.find(item => item.edition === 3)!.id}`)
  await page.getByRole('button', { name: 'Edition 2', exact: true }).click()
  await page.getByRole('checkbox', { name: 'Anyone can have this edition, by its number' }).click()
  await page.getByText('This edition, for ever').waitFor()
  expect.soft(await violations(page, '.work'), 'edition').toEqual([])
})

test('the library in each of its views passes axe', async ({ page }) => {
  await openDesk(page, server.url)
  await openFolder(page, 'Kilns')
  await row(page, 'K60 kiln manual').locator('.cell').first().click()
  await page.getByRole('button', { name: 'Narrow down' }).click()
  expect.soft(await violations(page), 'rows').toEqual([])
  await page.getByRole('radio', { name: 'Tiles' }).click()
  await page.locator('.tile').first().waitFor()
  expect.soft(await violations(page, '.library'), 'tiles').toEqual([])
  await page.getByRole('radio', { name: 'Tree' }).click()
  await page.getByRole('button', { name: 'Unfold Spare parts' }).click()
  expect.soft(await violations(page, '.library'), 'tree').toEqual([])
  await page.getByRole('button', { name: 'Move to…' }).click()
  expect.soft(await violations(page, DIALOG), 'move').toEqual([])
  await page.keyboard.press('Escape')
  await page.getByRole('button', { name: 'Describe…' }).click()
  expect.soft(await violations(page, DIALOG), 'describe').toEqual([])
  await page.keyboard.press('Escape')
  await showInLibrary(page, 'thermocouple')
  await page.locator('.file-row .passage').first().waitFor()
  expect.soft(await violations(page, '.library'), 'found').toEqual([])
})

test('what is in a file passes axe, in each way it is shown', async ({ page }) => {
  await openDesk(page, server.url)
  for (const [words, title] of [
    ['Spare parts k60', 'Spare parts k60'],
    ['test tile pictures', 'Test tile pictures'],
    ['Stock list', 'Stock list'],
  ] as const) {
    await showInLibrary(page, words)
    await row(page, title).first().getByRole('link').click()
    await page.getByRole('heading', { name: title, exact: true }).waitFor()
    await page.locator('.file-view :is(table, pre, iframe, img, canvas)').first().waitFor()
    expect.soft(await violations(page), title).toEqual([])
  }
})

test('each page start, filled and worn in each look that comes with Trough, passes axe', async ({ page }) => {
  const api = await ownerApi(server.url)
  const {
    items: [file],
  } = await api<{ items: { id: string }[] }>('/files?q=K60 kiln manual')
  const {
    items: [tile],
  } = await api<{ items: { id: string }[] }>('/files?q=test tile chun')
  const {
    items: [folder],
  } = await api<{ items: { id: string }[] }>('/folders')
  const target = { kind: 'file' as const, id: file!.id }
  for (const start of START_NAMES) {
    const made = await api<PageDetails>('/pages', { method: 'POST', json: { title: `${start} in every look`, start } })
    const content = mapBlocks(mapTargets(made.draft, () => target).content, (block): Block[] => {
      if (block.type === 'picture') return [{ ...block, attrs: { ...block.attrs, file: tile!.id, alt: 'A test tile' } }]
      if (block.type === 'shelf')
        return [{ ...block, attrs: { ...block.attrs, source: { kind: 'folder', id: folder!.id, order: 'title', below: 'no' } } }]
      return [block]
    })
    // All of it once in each look, one below the other: what axe asks of a page it asks of each part.
    const worn = BUILT_IN_LOOKS.flatMap(({ id: look }) => mapLooks(withFreshPlacements({ type: 'doc', content }), () => look).content)
    await api(`/pages/${made.id}/draft`, {
      method: 'PUT',
      json: { title: made.title, draft: { type: 'doc', content: worn }, revision: made.revision },
    })
    await api(`/pages/${made.id}/publish`, { method: 'POST', json: {} })
    await page.goto(`${server.url}/${made.slug}`)
    expect.soft(await violations(page), made.title).toEqual([])
  }
})
