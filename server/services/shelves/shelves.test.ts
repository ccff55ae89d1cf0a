import { unzipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import { readSearchQuery } from '../../../core/search/searchQuery'
import type { ShelfAttrs } from '../../../core/page/schema'
import { FIRST_OF_MANY } from '../../../core/shelf/shelfSource'
import { pageOf, shelf, words } from '../../../core/testing/pages'
import { listen, openTestTrough, type TestTrough } from '../../testing/harness'
import { answerShelf } from '../../visitors/shelf'

let test: TestTrough
let server: Awaited<ReturnType<typeof listen>>
beforeAll(async () => {
  test = await openTestTrough()
  server = await listen((request, response) => {
    const { pathname, search } = new URL(request.url!, 'http://localhost')
    return answerShelf(test.trough, request, response, pathname.slice('/shelves/'.length), search.slice(1))
  })
})
afterAll(async () => {
  await server.close()
  await test.close()
})

const html = async (slug: string) => (await test.trough.published.find(slug, undefined))?.bytes.toString() ?? ''
const ask = (placement: string, query: string, headers: Record<string, string> = {}) =>
  fetch(`${server.url}/shelves/${placement}?${query}`, { headers: { 'User-Agent': 'Mozilla/5.0 Firefox/140.0', ...headers } })
const contentsOf = async (response: Response) =>
  Object.fromEntries(
    Object.entries(unzipSync(new Uint8Array(await response.arrayBuffer()))).map(([name, bytes]) => [name, Buffer.from(bytes).toString()]),
  )

let made = 0
/** A live page with one shelf. */
async function livePage(attrs: Partial<ShelfAttrs>) {
  const placement = `shelf${String(++made).padStart(5, '0')}`
  const page = await test.trough.pages.create({ title: `Shelf ${made}` })
  await test.trough.pages.saveDraft(page.id, {
    title: page.title,
    draft: pageOf(words('Files'), shelf({ ...attrs, placement })),
    revision: page.revision,
  })
  await test.trough.pages.publish(page.id)
  return { page, placement, slug: page.slug }
}
/** Titles of those files that visitors may find. */
async function found(...files: FileItem[]) {
  const passes = await test.trough.findable.test()
  const items = await test.trough.library.byId(files.map(({ id }) => id))
  return items
    .filter(passes)
    .map(({ title }) => title)
    .sort()
}
const chosen = (...files: FileItem[]) => ({ source: { kind: 'files' as const, ids: files.map(file => file.id) } })

describe('a shelf', () => {
  it('shows what lies in its folder now: what comes, goes, is renamed or put in order', async () => {
    const { library } = test.trough
    const folder = await library.folders.create({ name: 'Sheets', parent: null })
    const b = await test.putInto('b.txt', 'b', { folder: folder.id })
    const { slug } = await livePage({ source: { kind: 'folder', id: folder.id, order: 'title', below: 'no' } })
    const shown = async () => [...(await html(slug)).matchAll(/tr-label">([^<]+)</g)].map(([, title]) => title)
    expect(await shown()).toEqual(['B'])
    const a = await test.putInto('a.txt', 'a', { folder: folder.id })
    expect(await shown()).toEqual(['A', 'B'])
    await library.change(a.id, { title: 'Zinc' })
    expect(await shown()).toEqual(['B', 'Zinc'])
    await library.remove({ files: [b.id], folders: [] })
    expect(await shown()).toEqual(['Zinc'])
  })

  it('shows folders below its own where it is to, and follows them when they are named, moved or emptied', async () => {
    const { library } = test.trough
    const top = await library.folders.create({ name: 'Manuals', parent: null })
    const below = await library.folders.create({ name: 'Old', parent: top.id })
    const file = await test.putInto('k60.txt', 'k60', { folder: below.id })
    const { slug, placement } = await livePage({ source: { kind: 'folder', id: top.id, order: 'title', below: 'folded' } })
    expect(await html(slug)).toMatch(/<summary><span>Old<\/span> <span class="tr-note">1 file</)
    await library.folders.change(below.id, { name: 'Older' })
    expect(await html(slug)).toContain('<summary><span>Older<')
    await test.putInto('k80.txt', 'k80', { folder: top.id })
    expect(await contentsOf(await ask(placement, 'all='))).toEqual({ 'k80.txt': 'k80', 'Older/k60.txt': 'k60' })
    expect(await contentsOf(await ask(placement, `pick=${file.id}`))).toEqual({ 'Older/k60.txt': 'k60' })
    await library.move({ files: [], folders: [below.id], to: null })
    expect(await html(slug)).not.toContain('<summary>')
    expect((await ask(placement, `pick=${file.id}`)).status).toBe(410)
  })

  it('holds back the folder it lists from the bin, and comes off where that is chosen', async () => {
    const { library, pages } = test.trough
    const folder = await library.folders.create({ name: 'Charts', parent: null })
    await test.putInto('chart.txt', 'chart', { folder: folder.id })
    const { slug, page } = await livePage({ source: { kind: 'folder', id: folder.id, order: 'newest', below: 'no' } })
    const going = { files: [], folders: [folder.id] }
    await expect(library.remove(going)).rejects.toMatchObject({
      status: 409,
      extra: { uses: [{ kind: 'shelf', folderId: folder.id, live: true, draft: true }] },
    })
    await library.remove(going, { despite: true })
    expect(await html(slug)).not.toContain('class="tr-shelf"')
    expect((await pages.get(page.id)).broken).toBe(1)
    await library.restore(going)
    expect(await html(slug)).toContain('class="tr-shelf"')
    await library.remove(going, { takeOff: true })
    expect((await pages.get(page.id)).broken).toBe(0)
  })

  it('leads to all of a folder that holds more than a page is to show, and gives all of it as a zip', async () => {
    const { library, searching } = test.trough
    const folder = await library.folders.create({ name: 'Many', parent: null })
    const few = await Promise.all(
      Array.from({ length: 20 }, (_, index) => test.putInto(`many-${index}.txt`, String(index), { folder: folder.id })),
    )
    // Copies are one statement each.
    for (let copied = 20; copied < 320; copied += 20) await library.copy({ files: few.map(file => file.id), folders: [] }, folder.id)
    const { slug, placement } = await livePage({ source: { kind: 'folder', id: folder.id, order: 'title', below: 'no' } })
    const page = await html(slug)
    expect(page.match(/class="tr-item"/g)).toHaveLength(FIRST_OF_MANY)
    expect(page).toContain(`href="/shelves/find?in=${placement}&amp;at=${placement}">See all 320 files</a>`)
    const found = await searching.find(readSearchQuery(new URLSearchParams({ in: placement })))
    expect((await found.made(undefined)).bytes.toString()).toContain('320 files')
    expect(Object.keys(await contentsOf(await ask(placement, 'all=')))).toHaveLength(320)
  })

  it('shows what is alike wherever it lies, and follows tags, moves and folders', async () => {
    const { library } = test.trough
    const [one, other] = [
      await library.folders.create({ name: 'Alike one', parent: null }),
      await library.folders.create({ name: 'Alike other', parent: null }),
    ]
    const file = await test.putInto('alike-a.txt', 'alike a', { folder: one.id })
    const later = await test.putInto('alike-b.txt', 'alike b', { folder: other.id })
    await library.change(file.id, { tags: ['alike'] })
    const source = { kind: 'found' as const, folders: [], q: '', types: [], tags: ['alike'], order: 'title' as const, below: 'no' as const }
    const { slug, placement, page } = await livePage({ source })
    const shown = async () => [...(await html(slug)).matchAll(/tr-label">([^<]+)</g)].map(([, title]) => title)
    expect(await shown()).toEqual(['Alike a'])
    await library.change(later.id, { tags: ['alike', 'more'] })
    expect(await shown()).toEqual(['Alike a', 'Alike b'])
    expect(await contentsOf(await ask(placement, 'all='))).toEqual({ 'alike-a.txt': 'alike a', 'alike-b.txt': 'alike b' })
    // It is no placement that leads nowhere, and visitors may find what it shows, and nothing else.
    expect((await test.trough.pages.get(page.id)).broken).toBe(0)
    const secret = await test.putInto('alike-secret.txt', 'alike secret', { folder: one.id })
    expect(await found(file, later, secret)).toEqual(['Alike a', 'Alike b'])
    const results = await test.trough.searching.find(readSearchQuery(new URLSearchParams({ in: placement, q: 'alike' })))
    expect((await results.made(undefined)).bytes.toString()).toContain('2 files')
  })

  it('lists by words inside what was only read after somebody had seen it', async () => {
    const source = {
      kind: 'found' as const,
      folders: [],
      q: 'majolica',
      types: [],
      tags: [],
      order: 'title' as const,
      below: 'no' as const,
    }
    const { slug } = await livePage({ source })
    expect(await html(slug)).not.toContain('tr-shelf"')
    await test.put('quiet.txt', 'about majolica')
    expect(await html(slug)).not.toContain('>Quiet<')
    await test.trough.reading.idle()
    // Where others were read just before, it follows together with them.
    await expect.poll(() => html(slug)).toContain('>Quiet<')
  })

  it('of the newest few, or of what came of late, makes no secret of the rest public', async () => {
    const { library } = test.trough
    const folder = await library.folders.create({ name: 'Newest', parent: null })
    const old = await test.putInto('newest-old.txt', 'old', { folder: folder.id })
    const pinned = await test.putInto('newest-pinned.txt', 'pinned', { folder: folder.id })
    const last = await test.putInto('newest-last.txt', 'last', { folder: folder.id })
    const source = { kind: 'folder' as const, id: folder.id, order: 'newest' as const, below: 'no' as const, most: 2, pinned: [pinned.id] }
    const { slug, placement } = await livePage({ source })
    expect([...(await html(slug)).matchAll(/tr-label">([^<]+)</g)].map(([, title]) => title)).toEqual(['Newest pinned', 'Newest last'])
    expect(await found(old, pinned, last)).toEqual(['Newest last', 'Newest pinned'])
    expect(Object.keys(await contentsOf(await ask(placement, 'all=')))).toHaveLength(2)
    expect((await ask(placement, `pick=${old.id}`)).status).toBe(410)
    // What it shows first is in use: it does not go unasked.
    await expect(library.remove({ files: [pinned.id], folders: [] })).rejects.toMatchObject({ status: 409 })
  })

  it('of several folders goes on without one that is deleted, and is taken off with the last', async () => {
    const { library } = test.trough
    const [one, other] = [
      await library.folders.create({ name: 'Several one', parent: null }),
      await library.folders.create({ name: 'Several other', parent: null }),
    ]
    await test.putInto('several-a.txt', 'sa', { folder: one.id })
    await test.putInto('several-b.txt', 'sb', { folder: other.id })
    const source = {
      kind: 'found' as const,
      folders: [one.id, other.id],
      q: '',
      types: [],
      tags: [],
      order: 'title' as const,
      below: 'no' as const,
    }
    const { slug } = await livePage({ source })
    expect(await html(slug)).toMatch(/Several a[^]*Several b/)
    await library.remove({ files: [], folders: [one.id] }, { takeOff: true })
    expect(await html(slug)).toContain('Several b')
    expect(await html(slug)).not.toContain('Several a')
    await library.remove({ files: [], folders: [other.id] }, { takeOff: true })
    expect(await html(slug)).not.toContain('class="tr-shelf"')
  })

  it('wears a look and follows it, and stays as it is without', async () => {
    const { shelfLooks } = test.trough
    const file = await test.put('worn.txt', 'worn')
    const look = await shelfLooks.create({ name: 'Sheets', shown: { layout: 'table' } })
    const { slug } = await livePage({ ...chosen(file), look: look.id })
    expect(await html(slug)).toContain('class="tr-table tr-files"')
    await shelfLooks.change(look.id, { shown: { layout: 'cards' } })
    expect(await html(slug)).toContain('class="tr-cards"')
    await expect(shelfLooks.create({ name: 'Sheets', shown: {} })).rejects.toMatchObject({ status: 409 })
    await shelfLooks.remove(look.id)
    expect(await shelfLooks.list()).toEqual([])
    expect(await html(slug)).toContain('class="tr-cards"')
    await expect(shelfLooks.remove(look.id)).rejects.toMatchObject({ status: 404 })
  })

  it('loses no look of two that are saved at once', async () => {
    const { shelfLooks } = test.trough
    await Promise.all(['Left', 'Right'].map(name => shelfLooks.create({ name, shown: {} })))
    expect((await shelfLooks.list()).map(({ name }) => name).sort()).toEqual(['Left', 'Right'])
  })

  it('has the icons of the site, as they are given, changed and taken away', async () => {
    const { siteIcons } = test.trough
    const file = await test.put('signed.txt', 'signed')
    const { slug } = await livePage({ ...chosen(file), shown: { parts: ['icon', 'title'] } })
    expect(await html(slug)).toContain('<span class="tr-sign tr-sign-type" aria-hidden="true">TXT</span>')
    const of = { kind: 'type' as const, value: 'TXT' }
    await siteIcons.set({ of, icon: { kind: 'drawn', name: 'first', path: 'M1,1' } })
    await siteIcons.set({ of, icon: { kind: 'drawn', name: 'second', path: 'M2,2' } })
    expect(await html(slug)).toContain('<path d="M2,2"/>')
    await siteIcons.remove(of)
    expect(await html(slug)).toContain('tr-sign-type')
  })

  it("follows a file that takes another's place", async () => {
    const [old, next] = [await test.put('old.txt', 'old'), await test.put('next.txt', 'next')]
    const { slug } = await livePage(chosen(old))
    await expect(test.trough.library.remove({ files: [old.id], folders: [] })).rejects.toMatchObject({
      status: 409,
      extra: { uses: [{ kind: 'shelf', fileId: old.id }] },
    })
    await test.trough.library.remove({ files: [old.id], folders: [] }, { replaceBy: next.id })
    expect(await html(slug)).toContain(next.handle)
  })
})

describe('files picked from a shelf', () => {
  it('come as one zip, only those of the shelf and under names of their own', async () => {
    const [one, two, other] = [
      await test.put('sheet.txt', 'one'),
      await test.put('sheet.txt', 'two'),
      await test.put('secret.txt', 'not on it'),
    ]
    const { placement } = await livePage({ ...chosen(one, two), zipName: 'Our sheets' })
    const picked = await ask(placement, `pick=${two.id}&pick=${other.id}`)
    expect(picked.headers.get('content-disposition')).toContain('filename="Our sheets.zip"')
    expect(await contentsOf(picked)).toEqual({ 'sheet.txt': 'two' })
    expect(await contentsOf(await ask(placement, 'all='))).toEqual({ 'sheet.txt': 'one', 'sheet 2.txt': 'two' })
  })

  it('can be resumed, and not once one of them has changed', async () => {
    const [one, two] = [await test.put('first.txt', 'first words'), await test.put('second.txt', 'second words')]
    const { placement } = await livePage(chosen(one, two))
    const whole = await ask(placement, 'all=')
    const etag = whole.headers.get('etag')!
    const bytes = Buffer.from(await whole.arrayBuffer())
    const rest = await ask(placement, 'all=', { 'Range': 'bytes=20-', 'If-Range': etag })
    expect(rest.status).toBe(206)
    expect(Buffer.from(await rest.arrayBuffer())).toEqual(bytes.subarray(20))
    await test.putInto('first.txt', 'first words, mended', { editionOf: one.id })
    const afresh = await ask(placement, 'all=', { 'Range': 'bytes=20-', 'If-Range': etag })
    expect(afresh.status).toBe(200)
    expect((await contentsOf(afresh))['first.txt']).toBe('first words, mended')
  })

  it('count each as downloaded from there, once the zip is there whole', async () => {
    const { library, pages, tally } = test.trough
    const [one, two, left] = [await test.put('c1.txt', 'c1'), await test.put('c2.txt', 'c2'), await test.put('c3.txt', 'c3')]
    const { placement, page } = await livePage(chosen(one, two, left))
    await (await ask(placement, `pick=${one.id}&pick=${two.id}`, { Range: 'bytes=0-9' })).arrayBuffer()
    await tally.flush()
    expect((await library.get(one.id)).downloads).toBe(0)
    await (await ask(placement, `pick=${one.id}&pick=${two.id}`)).arrayBuffer()
    await tally.flush()
    expect((await library.byId([one.id, two.id, left.id])).map(file => file.downloads).sort()).toEqual([0, 1, 1])
    expect(await pages.downloads(page.id)).toEqual({ [placement]: 2 })
  })

  it('come as one zip by a form that is sent, too, however many were ticked; too much of it is refused', async () => {
    const files = await Promise.all(Array.from({ length: 3 }, (_, index) => test.put(`sent-${index}.txt`, `sent ${index}`)))
    const { placement } = await livePage(chosen(...files))
    const send = (body: string) =>
      fetch(`${server.url}/shelves/${placement}`, {
        method: 'POST',
        body: new URLSearchParams(body),
        headers: { 'User-Agent': 'Mozilla/5.0' },
      })
    const picked = await send(`pick=${files[0]!.id}&pick=${files[2]!.id}`)
    expect(picked.headers.get('content-disposition')).toContain('attachment')
    expect(await contentsOf(picked)).toEqual({ 'sent-0.txt': 'sent 0', 'sent-2.txt': 'sent 2' })
    expect((await send('')).status).toBe(422)
    expect((await send(`pick=${'x'.repeat(70_000)}`)).status).toBe(413)
  })

  it('are refused with the reason', async () => {
    const file = await test.put('plain.txt', 'plain')
    const { placement } = await livePage(chosen(file))
    const notForPicking = await livePage({ ...chosen(file), pick: false })
    const refusal = async (at: string, query: string) => {
      const response = await ask(at, query)
      return [response.status, await response.text()]
    }
    expect(await refusal(placement, '')).toEqual([422, expect.stringContaining('No file was ticked')])
    expect(await refusal(placement, 'pick=nothing')).toEqual([410, expect.stringContaining('no longer here')])
    for (const at of ['unknownplace', '../x', notForPicking.placement]) expect((await refusal(at, 'all='))[0]).toBe(404)
    await test.trough.library.remove({ files: [file.id], folders: [] }, { despite: true })
    expect((await refusal(placement, 'all='))[0]).toBe(410)
  })
})
