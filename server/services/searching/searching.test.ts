import { beforeAll, afterAll, describe, expect, it } from 'vitest'
import { problemsOf } from '../../../core/testing/html'
import { button, pageOf, shelf, words } from '../../../core/testing/pages'
import { newPicture } from '../../../core/page/insert'
import { readSearchQuery } from '../../../core/search/searchQuery'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const html = async (query = '') =>
  (await (await test.trough.searching.find(readSearchQuery(new URLSearchParams(query)))).made(undefined)).bytes.toString()
const titles = async (query = '') => [...(await html(query)).matchAll(/<li class="tr-hit"><h2><a[^>]*>([^<]*)/g)].map(([, title]) => title!)

async function livePage(title: string, ...blocks: Parameters<typeof pageOf>) {
  const page = await test.trough.pages.create({ title }, { draft: pageOf(...blocks) })
  await test.trough.pages.publish(page.id)
  return page
}
let places = 0
const to = (file: { id: string }) =>
  button({ placement: `place${String(++places).padStart(5, '0')}`, target: { kind: 'file', id: file.id } })

describe('visitors', () => {
  it('find what live pages give them, and nothing else', async () => {
    const { library, pages, signposts } = test.trough
    const [placed, draft, pointed] = [
      await test.put('placed.txt', 'stoneware a'),
      await test.put('draft.txt', 'stoneware b'),
      await test.put('pointed.txt', 'stoneware c'),
    ]
    await test.put('secret.txt', 'stoneware d')
    const post = await signposts.create({ title: 'Current', file: pointed.id })
    const live = await livePage('One', to(placed), button({ placement: 'signpost00', target: { kind: 'signpost', id: post.id } }))
    await pages.create({ title: 'Two' }, { draft: pageOf(to(draft)) })
    await test.trough.reading.idle()
    expect(await titles()).toEqual(['Placed', 'Pointed'])
    expect(await titles('q=stoneware')).toEqual(['Placed', 'Pointed'])
    expect(await titles('q=secret')).toEqual([])

    await library.remove({ files: [placed.id], folders: [] }, { despite: true })
    expect(await titles('q=stoneware')).toEqual(['Pointed'])
    await library.restore({ files: [placed.id], folders: [] })
    await library.editions(pointed.id)
    await test.trough.editions.change(pointed.id, 1, { withdrawn: true })
    expect(await titles('q=stoneware')).toEqual(['Placed'])
    await test.trough.editions.change(pointed.id, 1, { withdrawn: false })
    await pages.unpublish(live.id)
    expect(await titles('q=stoneware')).toEqual([])
    await pages.publish(live.id)
  })

  it('read no names of folders that are not for them', async () => {
    const { library } = test.trough
    const clients = await library.folders.create({ name: 'Clients', parent: null })
    const open = await library.folders.create({ name: 'Leaflets', parent: clients.id })
    const file = await test.putInto('contract.txt', 'majolica', { folder: clients.id })
    await test.putInto('leaflet.txt', 'majolica', { folder: open.id })
    await library.folders.change(open.id, { found: true })
    await livePage('Contract', to(file))
    await test.trough.reading.idle()
    expect(await titles('q=majolica')).toEqual(['Contract', 'Leaflet'])
    for (const query of ['q=majolica', `q=majolica&folder=${clients.id}`, `q=majolica&folder=${open.id}`])
      expect(await html(query)).not.toContain('Clients')
    expect(await html('q=majolica')).toContain('Leaflets')
    expect(await titles(`q=majolica&folder=${open.id}`)).toEqual(['Leaflet'])
  })

  it('do not find pictures that only adorn a page', async () => {
    const mark = await test.put('mark.svg', '<svg xmlns="http://www.w3.org/2000/svg" width="4" height="4"></svg>')
    const attrs = { ...newPicture(mark.id), placement: 'picture000' }
    await livePage('Adorned', { type: 'picture', attrs })
    expect(await titles('q=mark')).toEqual([])
  })

  it('find no words of an edition that waits', async () => {
    const file = await test.put('list.txt', 'earthenware prices')
    await livePage('List', to(file))
    await test.putInto('list.txt', 'porcelain prices', { editionOf: file.id, waits: true })
    await test.trough.reading.idle()
    expect(await titles('q=earthenware')).toEqual(['List'])
    expect(await titles('q=porcelain')).toEqual([])
  })

  it('find what lies in folders that shelves list or that are marked for it', async () => {
    const { library } = test.trough
    const guides = await library.folders.create({ name: 'Guides', parent: null })
    const below = await library.folders.create({ name: 'Old', parent: guides.id })
    await test.putInto('wedging.txt', 'raku', { folder: guides.id })
    await test.putInto('kneading.txt', 'raku', { folder: below.id })
    await test.trough.reading.idle()
    expect(await titles('q=raku')).toEqual([])
    const source = { kind: 'folder' as const, id: guides.id, order: 'title' as const, below: 'no' as const }
    await livePage('Guides', words('Guides'), shelf({ placement: 'shelf00001', source, search: true }))
    expect(await titles('q=raku')).toEqual(['Wedging'])
    await library.folders.change(guides.id, { found: true })
    expect(await titles('q=raku')).toEqual(['Kneading', 'Wedging'])
    await library.folders.change(below.id, { found: false })
    expect(await titles('q=raku')).toEqual(['Wedging'])
    // Each within what its field looks through.
    expect(await titles('in=shelf00001')).toEqual(['Wedging'])
    expect(await titles(`within=${below.id}`)).toEqual([])
    await expect(html('in=nowhere000')).rejects.toMatchObject({ status: 404 })
  })
})

it('shows the passage, forgives slips, says how many there are, and is HTML by the validator', async () => {
  const body = await html('q=earthenware')
  expect(body).toContain('<mark>earthenware</mark> prices')
  expect(body).toContain('1 file')
  expect(await html('q=wedgin')).toContain('Wedging')
  expect(await html('q=wedgimg')).toContain('Nothing is written just like “wedgimg”')
  expect(await html('q=%3Cscript%3E%27%22')).toContain("Nothing was found with “&lt;script&gt;'&quot;”")
  for (const query of ['', 'q=earthenware&kind=document&from=2020-01-01', 'q=zzz']) expect(await problemsOf(await html(query))).toEqual([])
})

it('gives the same in another order', async () => {
  const file = await test.put('zinc.txt', 'a long text about bowls and bowls and bowls')
  await livePage('Zinc', to(file))
  expect((await titles('sort=-size'))[0]).toBe('Zinc')
  expect((await titles('sort=title')).at(-1)).toBe('Zinc')
})
