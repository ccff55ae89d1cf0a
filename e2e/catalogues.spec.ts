import { setTimeout as wait } from 'node:timers/promises'
import { expect, test, type Page } from '@playwright/test'
import type { CatalogueItem } from '../core/catalogue/catalogue'
import type { ImportLook } from '../core/catalogue/import'
import type { PageItem } from '../core/page/pageItem'
import { makePdf } from '../demo/pdf'
import { safetySheet } from '../demo/texts'
import { dropFiles, dropFolders, sha256, type RealFile } from './support/files'
import { catalogueNamed, entriesIn } from './support/catalogues'
import { add, carry, choose, newPage, openDesk, ownerApi, setUp } from './support/owner'
import { makeData, startServer, type RunningServer } from './support/server'
import { signIn } from './support/upload'

let server: RunningServer
let api: Awaited<ReturnType<typeof ownerApi>>
test.beforeAll(async () => {
  server = await startServer(await makeData('demo'))
  api = await ownerApi(server.url)
})
test.afterAll(() => server.remove())

const TOOLS = ['Turning tool', 'Boxwood rib', 'Steel kidney', 'Needle tool', 'Cutting wire', 'Sponge', 'Banding wheel', 'Slip trailer']
const TABLE: RealFile = {
  name: 'tools.csv',
  mimeType: 'text/csv',
  buffer: Buffer.from(['Name,Price,Weight', ...TOOLS.map((name, at) => `${name},£${4 + at}.50,${at + 1} kg`)].join('\r\n')),
}
const sheetOf = async (name: string): Promise<RealFile> => ({
  name: `${name.toLowerCase().replace(' ', '-')}-data-sheet.pdf`,
  mimeType: 'application/pdf',
  buffer: await makePdf(safetySheet(name, 'Not classified.', 'None.'), new Date('2026-11-20')),
})

const grid = (page: Page, one: string) => page.getByRole('grid', { name: `All of the catalogue, a row for each ${one}` })
const cell = (page: Page, name: string) => page.getByRole('gridcell', { name, exact: true })
const catalogueOf = (name: string) => catalogueNamed(api, name)
const entriesOf = (id: string) => entriesIn(api, id)
const valuesOf = async (name: string, field: string) => (await entriesOf((await catalogueOf(name)).id)).map(({ values }) => values[field])

test('eight products with a sheet each, a list and pages, live, by who begins with nothing, in nine actions', async ({ page, browser }) => {
  const own = await startServer(await makeData('empty'))
  try {
    await setUp(page, own)
    const done: string[] = []
    const act = (what: string, how: () => Promise<unknown>) => test.step(what, () => (done.push(what), how()))
    await act('the menu', () => page.getByRole('button', { name: 'Account and setup' }).click())
    await act('Catalogues', () => page.getByRole('menuitem', { name: 'Catalogues' }).click())
    await page.getByText('Many things that are alike').waitFor()
    await act('drop the table', () => dropFiles(page, [TABLE], '.margin-board', { x: 900, y: 400 }))
    await expect(page.getByText('8 new')).toBeVisible()
    await act('bring it in', () => page.getByRole('button', { name: 'Bring it in' }).click())
    await expect(grid(page, 'tool')).toBeVisible()
    const sheets = await Promise.all(TOOLS.map(sheetOf))
    await act('drop the folder of sheets', () => dropFolders(page, { Sheets: sheets }, '.catalogue', { x: 900, y: 500 }))
    await act('put them in', () => page.getByRole('dialog').getByRole('button', { name: 'Put 8 files in' }).click())
    await act('make its pages', () => page.getByRole('button', { name: 'Make its pages' }).click())
    await act('publish', () => page.getByRole('button', { name: 'Publish 8 and 2 pages' }).click())
    const [live] = await Promise.all([
      page.context().waitForEvent('page'),
      act('try it', () => page.getByRole('button', { name: 'View live' }).click()),
    ])
    await live.waitForLoadState()
    await expect(live.getByRole('heading', { name: 'Tools' })).toBeVisible()
    expect(done).toHaveLength(9)

    // As a visitor without script: each has its own sheet, on the list and on its page.
    const visitor = await (await browser.newContext({ javaScriptEnabled: false })).newPage()
    await visitor.goto(`${own.url}/tools`)
    const item = visitor.getByRole('listitem').filter({ has: visitor.getByRole('heading', { name: 'Steel kidney' }) })
    const href = (await item.getByRole('link', { name: /^Data sheet/ }).getAttribute('href'))!
    expect(sha256(Buffer.from(await (await fetch(own.url + href)).arrayBuffer()))).toBe(sha256(sheets[2]!.buffer))
    await visitor.getByRole('link', { name: 'Banding wheel' }).click()
    await expect(visitor).toHaveURL(/\/tools\/banding-wheel$/)
    await expect(visitor.getByText('£10.50')).toBeVisible()
    await visitor.getByRole('link', { name: 'Next: Slip trailer' }).click()
    await expect(visitor.getByRole('heading', { level: 1 })).toHaveText('Slip trailer')
    await visitor.getByRole('link', { name: 'Tools', exact: true }).first().click()
    await expect(visitor).toHaveURL(/\/tools$/)
  } finally {
    await own.remove()
  }
})

test('cells are written where they stand, by key: typed, undone, emptied, pasted from a spreadsheet', async ({ page, context }) => {
  await context.grantPermissions(['clipboard-read', 'clipboard-write'])
  const kilns = await catalogueOf('Kilns')
  await openDesk(page, server.url, `/desk/catalogues/${kilns.id}`)
  await cell(page, 'Model: K80').click()
  for (const key of ['ArrowRight', 'ArrowRight']) await page.keyboard.press(key)
  await expect(cell(page, 'Room inside: 80').first()).toBeFocused()
  await page.keyboard.type('85')
  await page.keyboard.press('Enter')
  await expect(cell(page, 'Room inside: 100').first()).toBeFocused()
  await expect.poll(() => valuesOf('Kilns', 'litres')).toEqual([40, 60, 85, 100, 150, 200, 300, 50])
  await page.keyboard.press('Control+z')
  await expect.poll(() => valuesOf('Kilns', 'litres')).toEqual([40, 60, 80, 100, 150, 200, 300, 50])
  await page.keyboard.press('Control+Shift+z')
  await expect.poll(() => valuesOf('Kilns', 'litres')).toEqual([40, 60, 85, 100, 150, 200, 300, 50])

  // What a cell cannot hold is said, and nothing is lost of it.
  await page.keyboard.press('F2')
  await page.keyboard.press('Control+a')
  await page.keyboard.type('plenty')
  await page.keyboard.press('Enter')
  await expect(page.getByText('“plenty” is no number.')).toBeVisible()
  await expect(page.getByRole('textbox', { name: 'Room inside' }).first()).toHaveValue('plenty')
  await page.keyboard.press('Escape')

  // Two rows of three columns, the second beyond the last entry.
  await page.keyboard.press('Control+End')
  await page.keyboard.press('Home')
  await expect(cell(page, 'Model: R50 raku kiln')).toBeFocused()
  await page.evaluate(() => navigator.clipboard.writeText('R55 raku kiln\tLifts off\t55\nK500\tThe front\t500\n'))
  await page.keyboard.press('Control+v')
  await expect
    .poll(() => valuesOf('Kilns', 'title'))
    .toEqual(['K40', 'K60', 'K80', 'K100', 'K150', 'K200', 'K300', 'R55 raku kiln', 'K500'])
  await expect.poll(() => valuesOf('Kilns', 'litres')).toEqual([40, 60, 85, 100, 150, 200, 300, 55, 500])

  // Visitors have seen nothing of it yet.
  expect(await (await fetch(`${server.url}/kilns`)).text()).not.toContain('K500')
  await page.getByRole('button', { name: /^Publish/ }).click()
  await expect(page.getByText(/entries are live/)).toBeVisible()
  expect(await (await fetch(`${server.url}/kilns`)).text()).toContain('K500')
})

test('what cannot be written stays where it was typed, and nothing that was typed goes unsaid', async ({ page }) => {
  const glazes = await catalogueOf('Glazes')
  const [one, other] = (await entriesOf(glazes.id)).map(({ values }) => values as { number: string; title: string })
  await openDesk(page, server.url, `/desk/catalogues/${glazes.id}`)
  // No two have the same number: only the server knows.
  await cell(page, `Number: ${other!.number}`).click()
  await page.keyboard.press('F2')
  await page.keyboard.press('Control+a')
  await page.keyboard.type(one!.number)
  await page.keyboard.press('Enter')
  await expect(page.getByText(`Two entries would have “${one!.number}” as Number.`)).toBeVisible()
  await expect(grid(page, 'glaze').getByRole('textbox', { name: 'Number' })).toHaveValue(one!.number)
  await page.keyboard.press('Escape')
  await expect(cell(page, `Number: ${other!.number}`)).toBeFocused()

  await cell(page, `Name: ${one!.title}`).click()
  const price = page.getByRole('textbox', { name: 'Price of a kilo' })
  await price.fill('plenty')
  await cell(page, `Name: ${other!.title}`).click()
  await expect(page.getByText('“plenty” was not written. Price')).toBeVisible()

  // Whoever closes the page while writing is asked.
  await page.getByRole('textbox', { name: 'Name', exact: true }).fill('Not yet')
  const asked = page.waitForEvent('dialog')
  await page.close({ runBeforeUnload: true })
  expect((await asked).type()).toBe('beforeunload')
})

test('two people in one cell: the second is told, and sees what the first wrote', async ({ page, browser }) => {
  const clays = await catalogueOf('Clays')
  await openDesk(page, server.url, `/desk/catalogues/${clays.id}`)
  await cell(page, 'Name: Raku body').click()
  await page.keyboard.press('F2')
  const other = await browser.newPage()
  await carry(other, server.url, await signIn(server.url))
  const entry = (await entriesOf(clays.id)).find(({ values }) => values.title === 'Raku body')!
  await api(`/catalogues/${clays.id}/entries`, {
    method: 'PATCH',
    json: { changes: [{ id: entry.id, revision: entry.revision, values: { title: 'Raku body, fine' } }] },
  })
  await page.keyboard.press('Control+a')
  await page.keyboard.type('Raku body, coarse')
  await page.keyboard.press('Enter')
  await expect(page.getByText('“Raku body, fine” was changed somewhere else. “Raku body, coarse” was not written')).toBeVisible()
  await expect(cell(page, 'Name: Raku body, fine')).toBeVisible()
  expect(await valuesOf('Clays', 'title')).toContain('Raku body, fine')
  await other.close()
})

test('visitors narrow a list, sort it and search it, without script, and the address says what they asked', async ({ browser }) => {
  const visitor = await (await browser.newContext({ javaScriptEnabled: false })).newPage()
  await visitor.goto(`${server.url}/clay-and-glaze`)
  const list = visitor.locator('.tr-entries').first()
  await list.getByLabel('Body', { exact: true }).selectOption('Porcelain (2)')
  await list.getByRole('button', { name: 'Show these' }).click()
  await expect(visitor).toHaveURL(/[?&]body=porcelain(?:&|#)/)
  await expect(list.getByRole('row')).toHaveCount(3)
  await list.getByLabel('Search in this list').fill('zebra')
  await list.getByRole('button', { name: 'Show these' }).click()
  await expect(list.getByText('Nothing here is like that.')).toBeVisible()
  await list.getByRole('link', { name: 'Take all of that back' }).click()
  await expect(list.getByRole('row')).toHaveCount(11)
  // The other lists of the page were not asked.
  await visitor.goto(visitor.url().replace(/\?.*$/, ''))
  await expect(visitor.locator('.tr-entries').nth(1).getByRole('listitem')).toHaveCount(8)

  await visitor.goto(`${server.url}/classes`)
  const courses = visitor.locator('.tr-entries')
  await courses.getByLabel('From').fill('2027-04-01')
  await courses.getByRole('button', { name: 'Show these' }).click()
  await expect(courses.getByRole('heading', { level: 3 })).toHaveText([
    'Slipware for a week',
    'Slabs and templates',
    'Lids and spouts',
    'Teapots',
    'Porcelain, slowly',
    'A day of raku',
  ])
})

test('an entry’s page is found by search engines, says what it is, and leads on when it moves', async ({ page }) => {
  const sitemap = await (await fetch(`${server.url}/sitemap.xml`)).text()
  expect(sitemap).toContain('<loc>https://www.marlpit.example/clays/porcelain-p40</loc>')
  await page.goto(`${server.url}/clays/porcelain-p40`)
  expect(await page.locator('link[rel=canonical]').getAttribute('href')).toBe('https://www.marlpit.example/clays/porcelain-p40')
  const graph = (
    JSON.parse((await page.locator('script[type="application/ld+json"]').textContent())!) as { '@graph': Record<string, unknown>[] }
  )['@graph']
  expect(graph.find(each => each['@type'] === 'Product')).toMatchObject({
    name: 'Porcelain P40',
    offers: { '@type': 'Offer', 'price': 24.5, 'priceCurrency': 'GBP' },
  })
  expect(graph.find(each => each['@type'] === 'BreadcrumbList')).toMatchObject({
    itemListElement: [{ name: 'Marlpit Pottery Supply' }, { name: 'Clay & glaze' }, { name: 'Porcelain P40' }],
  })
  const clays = await catalogueOf('Clays')
  const entry = (await entriesOf(clays.id)).find(({ slug }) => slug === 'porcelain-p40')!
  await api(`/entries/${entry.id}/slug`, { method: 'PUT', json: { slug: 'p40' } })
  const moved = await fetch(`${server.url}/clays/porcelain-p40`, { redirect: 'manual' })
  expect([moved.status, moved.headers.get('location')]).toEqual([308, '/clays/p40'])
  expect((await fetch(`${server.url}/Clays/P40/`, { redirect: 'manual' })).status).toBe(308)
  expect((await fetch(`${server.url}/clays/no-such-clay`)).status).toBe(404)
})

test('a list and a field are put on a page by typing /, and the button on each card leads to its own file', async ({ page }) => {
  await openDesk(page, server.url)
  const id = await newPage(page, 'Sheets of clays')
  await page.keyboard.type('What we have just now')
  await page.keyboard.press('Enter')
  await add(page, 'List of entries')
  await choose(page, 'Lists', 'Clays')
  // A press on what says what it is selects the whole list, wherever the caret is.
  await page.locator('.ProseMirror > p').first().click()
  await expect(page.getByRole('combobox', { name: 'Lists' })).toHaveCount(0)
  await page.locator('.list-view .bar').click()
  await expect(page.getByRole('combobox', { name: 'Lists' })).toBeVisible()
  await page.locator('.list-view .card p').last().click()
  await add(page, 'Number')
  await page.keyboard.press('End')
  await page.keyboard.press('Enter')
  await add(page, 'Firing chart')
  await expect(page.locator('.list-view .field-view').last()).toHaveText('C101')
  await expect(page.locator('.list-view .tr-button')).toContainText('Firing chart')
  await page.keyboard.press('Control+Enter')
  await expect(page.getByText('“Sheets of clays” is live.')).toBeVisible()
  const { slug } = await api<PageItem>(`/pages/${id}`)
  await page.goto(`${server.url}/${slug}`)
  const cards = page.locator('.tr-entry-cards > li')
  await expect(cards).toHaveCount(10)
  await expect(cards.filter({ hasText: 'C109' }).getByRole('link')).toHaveAttribute('href', /^\/files\/firing-chart-porcelain\.pdf\?/)
  // What is taken is counted for the one button that was laid out.
  const hrefs = await cards
    .getByRole('link')
    .evaluateAll(links => links.map(link => new URL((link as HTMLAnchorElement).href).searchParams.get('at')))
  expect(new Set(hrefs).size).toBe(1)
})

test('kill -9 while a table comes in: after the restart nothing of it is there', async () => {
  const own = await startServer(await makeData('demo'))
  try {
    const ask = await ownerApi(own.url)
    const rows = Array.from({ length: 3000 }, (_, at) => `N${at},Thing ${at},${at}`)
    const look = await ask<ImportLook>('/entry-imports?name=things.csv', {
      method: 'POST',
      body: ['Number,Name,Weight', ...rows].join('\n'),
    })
    const { catalogue } = await ask<{ catalogue: string }>(`/entry-imports/${look.id}/bring`, { method: 'POST', json: look.plan })
    const count = async (from: typeof ask, of: string) =>
      (await from<{ items: CatalogueItem[] }>('/catalogues')).items.find(({ id }) => id === of)?.entries
    while (((await count(ask, catalogue)) ?? 0) < 500) await wait(20)
    await own.stop('SIGKILL')
    const again = await startServer(own.data)
    try {
      const anew = await ownerApi(again.url)
      // Nor is the catalogue that was made for it.
      await expect.poll(() => count(anew, catalogue)).toBeUndefined()
      // Brought in once more, all of it is there.
      const second = await anew<ImportLook>('/entry-imports?name=things.csv', {
        method: 'POST',
        body: ['Number,Name,Weight', ...rows.slice(0, 600)].join('\n'),
      })
      const made = await anew<{ catalogue: string }>(`/entry-imports/${second.id}/bring`, { method: 'POST', json: second.plan })
      await expect.poll(() => count(anew, made.catalogue)).toBe(600)
    } finally {
      await again.stop()
    }
  } finally {
    await own.remove()
  }
})

test('where a file is used names the entries, and deleting it is held back', async ({ page }) => {
  const { items } = await api<{ items: { id: string; title: string }[] }>('/files?q=firing-chart-porcelain')
  await openDesk(page, server.url, `/desk/files/${items[0]!.id}`)
  await page.getByRole('listitem').filter({ hasText: '“Firing chart” of “Paper clay”' }).getByRole('link', { name: 'Clays' }).click()
  await expect(page.getByRole('heading', { name: 'Paper clay' })).toBeVisible()
  await expect(page.getByRole('link', { name: items[0]!.title })).toBeVisible()
})

test('what is in a table is only ever text: formulas go out marked, and HTML stays what was written', async () => {
  const clays = await catalogueOf('Clays')
  const [entry] = await entriesOf(clays.id)
  await api(`/catalogues/${clays.id}/entries`, {
    method: 'PATCH',
    json: { changes: [{ id: entry!.id, revision: entry!.revision, values: { about: '=1+1 <img src=x onerror=alert(1)>' } }] },
  })
  await api(`/catalogues/${clays.id}/entries/publish`, { method: 'POST', json: { ids: [entry!.id] } })
  const html = await (await fetch(`${server.url}/clays/${entry!.slug}`)).text()
  expect(html).toContain('=1+1 &lt;img src=x onerror=alert(1)&gt;')
  const csv = await api(`/catalogues/${clays.id}/export?format=json`)
  expect(JSON.stringify(csv)).toContain('=1+1 <img')
})
