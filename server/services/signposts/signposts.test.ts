import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import type { PageDetails } from '../../../core/page/pageItem'
import { buttonsIn } from '../../../core/page/buttonLooks'
import type { PageDocument, Target } from '../../../core/page/schema'
import { button, pageOf, words } from '../../../core/testing/pages'
import { listen, openTestTrough, type TestTrough } from '../../testing/harness'
import { answerFile } from '../../visitors/file'

let test: TestTrough
let server: Awaited<ReturnType<typeof listen>>
let [winter, summer]: FileItem[] = []
beforeAll(async () => {
  test = await openTestTrough()
  server = await listen((request, response) => {
    const [path, search = ''] = request.url!.split('?') as [string, string?]
    return answerFile(test.trough, request, response, path, search)
  })
  winter = await test.put('winter.txt', 'Mondays in winter')
  summer = await test.put('summer.txt', 'Tuesdays in summer')
})
afterAll(async () => {
  await server.close()
  await test.close()
})

let count = 0
const post = (file: string | null = winter!.id, title = `Timetable ${++count}`) => test.trough.signposts.create({ title, file })
const to = (id: string): Target => ({ kind: 'signpost', id })
const link = (id: string) =>
  words('the days', { type: 'downloadLink', attrs: { placement: 'bbbbbbbbbb', target: to(id), action: 'tab', saveAs: '' } })
async function pageWith(document: PageDocument): Promise<PageDetails> {
  const { pages } = test.trough
  const page = await pages.create({ title: `Page ${++count}` })
  await pages.saveDraft(page.id, { title: page.title, draft: document, revision: page.revision })
  await pages.publish(page.id)
  return pages.get(page.id)
}
const live = async ({ slug }: PageDetails) => String((await test.trough.published.find(slug, undefined))!.bytes)
const get = (path: string) => fetch(server.url + path, { redirect: 'manual' })

describe('a signpost', () => {
  it('gives what it points at, under that file’s own name, and follows when it is turned', async () => {
    const { id, name } = await post()
    const page = await pageWith(pageOf(button({ target: to(id), note: '{size}' }), link(id)))
    expect(await live(page)).toContain(`/to/${name}?`)
    expect(await live(page)).toContain('17 B')
    const answer = await get(`/to/${name}`)
    expect([answer.status, answer.headers.get('content-disposition'), await answer.text()]).toEqual([
      200,
      expect.stringMatching(/^inline; filename="?winter\.txt"?$/),
      'Mondays in winter',
    ])

    expect((await test.trough.signposts.places(id)).map(({ placement, draft, live: on, by }) => [placement, draft, on, by]).sort()).toEqual(
      [
        ['aaaaaaaaaa', true, true, 'Timetable 1'],
        ['bbbbbbbbbb', true, true, 'Timetable 1'],
      ],
    )
    await test.trough.signposts.turn(id, summer!.id)
    expect(await (await get(`/to/${name}?save`)).text()).toBe('Tuesdays in summer')
    expect(await live(page)).toContain('18 B')
    // The placements themselves are as they were: nothing on the page was changed.
    expect((await test.trough.pages.get(page.id)).revision).toBe(page.revision)
    await test.trough.signposts.turn(id, winter!.id)
  })

  it('that points at nothing is not seen by visitors, holds back publishing, and says so at its address', async () => {
    const { id, name } = await post(null)
    await expect(pageWith(pageOf(button({ target: to(id) })))).rejects.toThrow('1 button, link or shelf leads nowhere.')
    expect((await get(`/to/${name}`)).status).toBe(404)
    expect((await test.trough.pages.list()).at(-1)!.broken).toBe(1)
    await test.trough.signposts.turn(id, winter!.id)
    expect((await test.trough.pages.list()).at(-1)!.broken).toBe(0)
    expect((await get(`/to/${name}`)).status).toBe(200)
  })

  it('keeps a former address as a redirect, and its name is given to no other', async () => {
    const { id } = await post(winter!.id, 'Price list, now')
    await test.trough.signposts.change(id, { name: 'prices' })
    const moved = await get('/to/price-list-now?save')
    expect([moved.status, moved.headers.get('location')]).toEqual([308, '/to/prices?save'])
    expect((await post(winter!.id, 'Price list, now')).name).toBe('price-list-now-2')
    await expect(test.trough.signposts.change(id, { name: 'price-list-now-2' })).rejects.toThrow('belongs to another signpost')
    expect((await test.trough.signposts.change(id, { name: 'price-list-now' })).name).toBe('price-list-now')
    expect((await get('/to/prices')).headers.get('location')).toBe('/to/price-list-now')
    expect(await test.trough.recognising.recognise('http://shop.example/to/prices', 'shop.example')).toEqual({
      target: to(id),
      title: 'Price list, now',
    })
  })

  it('counts as a use of its file, and so does all that leads to it', async () => {
    const file = await test.put('autumn.txt', 'Fridays')
    const { id, title } = await post(file.id)
    expect((await test.trough.library.get(file.id)).uses).toBe(1)
    await pageWith(pageOf(button({ target: to(id) })))
    expect((await test.trough.library.get(file.id)).uses).toBe(2)
    expect((await test.trough.library.uses(file.id)).map(({ kind, by }) => [kind, by])).toEqual([
      ['button', title],
      ['signpost', null],
    ])
    await expect(test.trough.library.remove({ files: [file.id], folders: [] })).rejects.toThrow('2 places use this.')
  })

  it('points at the file that takes the place of one that is deleted; or at nothing, with what led to it taken off', async () => {
    const [one, two] = [await test.put('one.txt', 'one'), await test.put('two.txt', 'two')]
    const { id, name } = await post(one.id)
    const page = await pageWith(pageOf(button({ target: to(id) })))
    await test.trough.library.remove({ files: [one.id], folders: [] }, { replaceBy: two.id })
    expect(await (await get(`/to/${name}`)).text()).toBe('two')
    await test.trough.library.remove({ files: [two.id], folders: [] }, { takeOff: true })
    expect((await test.trough.signposts.get(id)).file).toBeNull()
    expect(buttonsIn((await test.trough.pages.get(page.id)).draft)).toEqual([])
  })

  it('is found by the walk where it gives nothing, as soon as it is turned', async () => {
    const { id } = await post()
    const page = await pageWith(pageOf(button({ target: to(id) })))
    const found = async () =>
      (await test.trough.walk.state()).findings.filter(finding => finding.page.id === page.id).map(finding => finding.check)
    expect(await found()).toEqual([])
    await test.trough.signposts.turn(id, null)
    expect(await found()).toEqual(['nowhere'])
    await test.trough.signposts.turn(id, summer!.id)
    expect(await found()).toEqual([])
  })

  it('is not taken down while something leads to it, unless a way on is chosen; its address says that it is gone', async () => {
    const { id, name } = await post()
    const page = await pageWith(pageOf(button({ target: to(id) })))
    await expect(test.trough.signposts.remove(id, {})).rejects.toThrow('1 place leads to this signpost.')
    await test.trough.signposts.remove(id, { way: 'straight' })
    expect(buttonsIn((await test.trough.pages.get(page.id)).draft)[0]!.target).toEqual({ kind: 'file', id: winter!.id })
    expect(await live(page)).toContain('/files/winter.txt?')
    expect((await get(`/to/${name}`)).status).toBe(410)
  })

  it('takes no file from the bin', async () => {
    const file = await test.put('old.txt', 'old')
    await test.trough.library.remove({ files: [file.id], folders: [] })
    await expect(post(file.id)).rejects.toThrow('is in the bin')
  })
})
