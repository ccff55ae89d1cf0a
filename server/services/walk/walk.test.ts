import { writeFile } from 'node:fs/promises'
import { createServer, type Server } from 'node:http'
import type { AddressInfo } from 'node:net'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import type { PageDetails } from '../../../core/page/pageItem'
import type { PageDocument } from '../../../core/page/schema'
import { button, pageOf, words } from '../../../core/testing/pages'
import { buttonsIn } from '../../../core/page/buttonLooks'
import { answerFile } from '../../visitors/file'
import { sql } from 'drizzle-orm'
import { dailyCounts, downloads, pageVersions } from '../../db/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { Damaged } from '../delivery/filler'

/** A site that visitors can ask, as far as the walk does. */
let test: TestTrough
let server: Server
let asked: string[] = []
let file: FileItem
beforeAll(async () => {
  server = createServer((request, response) => {
    const [path, search = ''] = request.url!.split('?') as [string, string?]
    asked.push(`${request.method} ${path}`)
    answerFile(test.trough, request, response, path, search).catch((error: { status?: number }) =>
      response.writeHead(error instanceof Damaged ? 503 : (error.status ?? 500)).end(),
    )
  })
  await new Promise<void>(resolve => server.listen(0, '127.0.0.1', resolve))
  test = await openTestTrough({ ownAddress: `http://127.0.0.1:${(server.address() as AddressInfo).port}` })
  file = await test.put('list-2026-11.pdf', '%PDF-1.7 list')
})
afterAll(async () => {
  await test.close()
  server.close()
})

const target = () => ({ kind: 'file' as const, id: file.id })
let pageCount = 0
async function put(document: PageDocument, { live = true } = {}): Promise<PageDetails> {
  const {
    trough: { pages },
  } = test
  const page = await pages.create({ title: `Page ${++pageCount}` })
  await pages.saveDraft(page.id, { title: page.title, draft: document, revision: page.revision })
  if (live) await pages.publish(page.id, { despite: true })
  return pages.get(page.id)
}
const found = async (page: PageDetails) => (await test.trough.walk.state()).findings.filter(finding => finding.page.id === page.id)
const labels = async ({ id }: PageDetails) => {
  const { draft, live } = await test.trough.pages.get(id)
  return [buttonsIn(draft), buttonsIn(live!.document)].map(buttons => buttons.map(({ label }) => label))
}

describe('the walk', () => {
  it('finds faults on live pages, and on no others', async () => {
    const faulty = pageOf(button({ target: target(), label: 'Price list, October 2026' }))
    const page = await put(faulty)
    await put(faulty, { live: false })
    const state = await test.trough.walk.state()
    expect(state.findings.map(({ check, page: { id }, draftOnly, act }) => [check, id, draftOnly, act])).toEqual([
      ['date-named', page.id, false, 'Say “Price list, November 2026”'],
    ])
    expect(state).toMatchObject({ pages: 1, placements: 1, counts: { blocked: 0, misled: 1, hard: 0, tidy: 0 } })
    expect(state.earlier).toHaveLength(1)
  })

  it('asks for each file as a visitor would, once while nothing changes, and is counted as none', async () => {
    const page = await put(pageOf(button({ target: target(), label: 'The list' })))
    asked = []
    expect(await found(page)).toEqual([])
    // It was asked for when the page before was walked.
    expect(asked).toEqual([])
    await test.trough.library.change(file.id, { title: 'Price list' })
    await test.trough.walk.state()
    // Its bytes arrived whole before, so only what is said of them is asked for.
    expect(asked).toEqual([`HEAD /files/${file.handle}`])
    await test.trough.tally.flush()
    expect((await test.trough.library.get(file.id)).downloads).toBe(0)
  })

  it('finds bytes that are not those that were put in', async () => {
    const long = ' clay'.repeat(20_000)
    // A small file is checked before it is given; of a long one the walk sees it.
    for (const [text, said] of [
      ['%PDF-1.7 kiln', /are missing or damaged/],
      [`%PDF-1.7 kiln${long}`, /not those that were put in/],
    ] as const) {
      const damaged = await test.put('kiln-2026-11.pdf', text)
      const { sha256 } = damaged
      await writeFile(join(test.folder, 'store/sha256', sha256.slice(0, 2), sha256.slice(2, 4), sha256), text.replace('kiln', 'kilm'))
      const page = await put(pageOf(button({ target: { kind: 'file', id: damaged.id }, label: 'Kiln' })))
      expect((await found(page)).map(({ check, cost, words: told }) => [check, cost, told])).toEqual([
        ['answers', 'blocked', expect.stringMatching(said)],
      ])
    }
  })

  it('notices by itself what a change of the library, of another page or of the address means', async () => {
    const other = await test.put('plan-2026-11.pdf', '%PDF-1.7 plan')
    const led = await put(pageOf(words('Here')))
    const page = await put(
      pageOf(
        button({ target: { kind: 'file', id: other.id }, label: 'Plan' }),
        button({ placement: 'cccccccccc', target: { kind: 'page', id: led.id }, label: 'Another page' }),
        button({
          placement: 'dddddddddd',
          target: { kind: 'address', href: `http://www.old.example/files/${other.handle}` },
          label: 'By address',
        }),
      ),
    )
    const checks = async () => (await found(page)).map(({ check }) => check)
    expect(await checks()).toEqual(['insecure'])
    await test.trough.library.remove({ files: [other.id], folders: [] }, { despite: true })
    expect(await checks()).toEqual(['nowhere', 'insecure'])
    await test.trough.library.restore({ files: [other.id], folders: [] })
    await test.trough.pages.unpublish(led.id, { despite: true })
    expect(await checks()).toEqual(['nowhere', 'insecure'])
    await test.trough.pages.publish(led.id)
    // The address of today is that of an earlier domain tomorrow.
    await test.trough.site.set({ name: 'Site', address: 'http://www.old.example' })
    await test.trough.site.set({ name: 'Site', address: 'https://www.marlpit.example' })
    expect(await checks()).toEqual(['own-address'])
  })

  it('tells what stands in a draft only, and holds back what would stop visitors', async () => {
    const { pages, walk } = test.trough
    const page = await put(pageOf(words('Nothing yet')))
    await pages.saveDraft(page.id, {
      title: page.title,
      revision: page.revision,
      draft: pageOf(button({ target: null, label: 'Some day' })),
    })
    expect((await found(page)).map(({ check, draftOnly }) => [check, draftOnly])).toEqual([['nowhere', true]])
    expect((await walk.blocking(page.id)).map(({ words: said, act }) => [said, act])).toEqual([
      ['This button leads nowhere.', 'Take it off'],
    ])
    expect(await walk.blocking((await put(pageOf(button({ target: target(), label: 'here' })))).id)).toEqual([])
  })

  it('leaves a finding for a reason, until it is taken up again or is another one', async () => {
    const { walk, pages } = test.trough
    const page = await put(pageOf(button({ target: target(), label: 'List of May 2026' })))
    const [finding] = await found(page)
    const before = (await walk.state()).counts.misled
    await walk.leave(finding!.key, 'It is the one of May on purpose.')
    expect((await found(page))[0]!.left).toBe('It is the one of May on purpose.')
    expect((await walk.state()).counts.misled).toBe(before - 1)
    const { revision } = await pages.get(page.id)
    await pages.saveDraft(page.id, {
      title: page.title,
      revision,
      draft: pageOf(words('New above'), button({ target: target(), label: 'List of May 2026' })),
    })
    await pages.publish(page.id)
    expect((await found(page))[0]!.left).toBe('It is the one of May on purpose.')
    await walk.takeUp(finding!.key)
    expect((await found(page))[0]!.left).toBeNull()
  })
})

describe('mending', () => {
  it('changes draft and live page alike, keeps what waits in the draft waiting, and is taken back', async () => {
    const { pages, mending } = test.trough
    const page = await put(pageOf(button({ target: target(), label: 'List of May 2026' })))
    await pages.saveDraft(page.id, {
      title: page.title,
      revision: page.revision,
      draft: pageOf(
        button({ target: target(), label: 'List of May 2026' }),
        button({ placement: 'cccccccccc', target: target(), label: 'And once more' }),
      ),
    })
    const [finding] = await found(page)
    const { mended, undo } = await mending.mend([finding!.key])
    expect(mended).toBe(1)
    expect(await labels(page)).toEqual([['List of November 2026', 'And once more'], ['List of November 2026']])
    expect(await found(page)).toEqual([])
    expect((await pages.get(page.id)).waiting).toBe(true)
    await mending.takeBack(undo)
    expect(await labels(page)).toEqual([['List of May 2026', 'And once more'], ['List of May 2026']])
    await expect(mending.takeBack(undo)).rejects.toMatchObject({ status: 404 })
  })

  it('gives places other words, live and drafted, leaves out what is gone, and takes that back', async () => {
    const { mending } = test.trough
    const page = await put(pageOf(button({ target: target(), label: 'List of May 2026' })))
    const { undo } = await mending.reword([
      { page: page.id, placement: 'aaaaaaaaaa', words: 'List of June 2026' },
      { page: page.id, placement: 'zzzzzzzzzz', words: 'Nowhere' },
    ])
    expect(await labels(page)).toEqual([['List of June 2026'], ['List of June 2026']])
    await mending.takeBack(undo)
    expect(await labels(page)).toEqual([['List of May 2026'], ['List of May 2026']])
  })

  it('mends many on several pages at once, and renames, brings back and publishes', async () => {
    const { pages, library, walk, mending } = test.trough
    const latest = await test.put('list latest.csv', 'a,b')
    const binned = await test.put('binned-2026-11.pdf', '%PDF-1.7 binned')
    const plan = await put(pageOf(words('A plan')), { live: false })
    const all = [
      await put(pageOf(button({ target: target(), label: 'here' }))),
      await put(
        pageOf(
          button({ target: { kind: 'file', id: binned.id }, label: 'Binned' }),
          button({ placement: 'cccccccccc', target: { kind: 'page', id: plan.id }, label: 'Plan' }),
          button({ placement: 'dddddddddd', target: { kind: 'file', id: latest.id }, label: 'Latest' }),
        ),
      ),
    ]
    await library.remove({ files: [binned.id], folders: [] }, { despite: true })
    const keys = (await walk.state()).findings.filter(({ page }) => all.some(({ id }) => id === page.id)).map(({ key }) => key)
    expect(keys).toHaveLength(4)
    const { undo } = await mending.mend(keys)
    expect((await walk.state()).findings.filter(({ key }) => keys.includes(key))).toEqual([])
    expect((await library.get(latest.id)).fileName).toMatch(/^list-\d{4}-\d\d(?:-\d\d)?\.csv$/)
    await mending.takeBack(undo)
    expect((await walk.state()).findings.filter(({ key }) => keys.includes(key))).toHaveLength(4)
    expect([
      (await library.get(latest.id)).fileName,
      (await library.get(binned.id)).deleted !== null,
      (await pages.get(plan.id)).published,
    ]).toEqual(['list latest.csv', true, null])
  })

  it('refuses to take back over what was changed since, and to mend what is gone', async () => {
    const { pages, mending } = test.trough
    const page = await put(pageOf(button({ target: target(), label: 'List of May 2026' })))
    const [finding] = await found(page)
    const { undo } = await mending.mend([finding!.key])
    const { revision } = await pages.get(page.id)
    await pages.saveDraft(page.id, { title: page.title, revision, draft: pageOf(words('All new')) })
    await expect(mending.takeBack(undo)).rejects.toMatchObject({ status: 409 })
    await expect(mending.mend([finding!.key])).rejects.toMatchObject({ status: 409 })
    expect(await labels(page)).toEqual([[], ['List of November 2026']])
  })
})

it('knows by what is counted where a button is not used any more, and what breaks off', async () => {
  const { database, pages, walk } = test.trough
  const large = await test.put('film.bin', Buffer.alloc(2_000_000, 7).toString())
  const page = await put(pageOf(button({ placement: 'silentbutt', target: { kind: 'file', id: large.id }, label: 'Film' })))
  const draft = pageOf(words('Anew'), button({ placement: 'silentbutt', target: { kind: 'file', id: large.id }, label: 'Film' }))
  await pages.saveDraft(page.id, { title: page.title, draft, revision: page.revision })
  await pages.publish(page.id, { despite: true })
  const daysAgo = (days: number) => new Date(Date.now() - days * 86_400_000)
  await database
    .update(pageVersions)
    .set({ published: daysAgo(10) })
    .where(sql`${pageVersions.pageId} = ${page.id}`)
  const taken = (days: number, count: number) =>
    database.insert(downloads).values({ fileId: large.id, edition: 1, placement: 'silentbutt', at: daysAgo(days), count, bytes: 9 })
  await taken(12, 19)
  await taken(37, 1)
  const checks = async () => {
    await walk.run()
    return (await found(page)).map(({ check }) => check).filter(check => check === 'fallen-silent' || check === 'breaks-off')
  }
  expect(await checks()).toEqual(['fallen-silent'])
  await taken(9, 1)
  expect(await checks()).toEqual([])
  await database
    .insert(dailyCounts)
    .values({ day: daysAgo(3).toISOString().slice(0, 10), what: 'broken', of: large.id, detail: '4', count: 30 })
  expect(await checks()).toEqual(['breaks-off'])
  await pages.remove(page.id, { despite: true })
})
