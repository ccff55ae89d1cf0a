import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { boardQuerySchema, foundViewSchema, logQuerySchema } from '../../../core/tally/board'
import { button, pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
let priceList: { id: string }
let page: { id: string }
const BROWSER = 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0'
const PHONE = 'Mozilla/5.0 (Linux; Android 14; Pixel 8) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Mobile Safari/537.36'

const OWNER = { people: true }
const board = (query: Record<string, string> = {}) => test.trough.downloads.board(boardQuerySchema.parse(query), OWNER)
const log = (query: Record<string, string> = {}) => test.trough.downloads.log(logQuerySchema.parse(query), OWNER)
const taken = (address: string, change: Partial<Parameters<TestTrough['trough']['tally']['observe']>[0]> = {}) =>
  test.trough.tally.observe({
    file: priceList.id,
    edition: 1,
    etag: '"e"',
    at: Date.now(),
    placement: undefined,
    size: 10,
    delivered: [{ start: 0, end: 10 }],
    address,
    userAgent: BROWSER,
    came: { referer: undefined, accepted: 'en-GB,en;q=0.9', host: 'marlpit.example', campaign: null, signpost: null, isPrivate: false },
    ...change,
  })
const came = (change: object) => ({
  came: { referer: undefined, accepted: 'de', host: 'marlpit.example', campaign: null, signpost: null, isPrivate: false, ...change },
})

beforeAll(async () => {
  test = await openTestTrough()
  priceList = await test.put('price-list.pdf', '%PDF-1.7 prices')
  await test.trough.signposts.create({ title: 'Current price list', file: priceList.id })
  page = await test.trough.pages.create({ title: 'Trade', slug: 'trade' })
  const { revision } = await test.trough.pages.get(page.id)
  await test.trough.pages.saveDraft(page.id, {
    title: 'Trade',
    draft: pageOf(button({ placement: 'bbbbbbbbbb', target: { kind: 'file', id: priceList.id } })),
    revision,
  })
  await test.trough.pages.publish(page.id)

  taken('192.0.2.1', { placement: 'bbbbbbbbbb', ...came({ referer: 'https://marlpit.example/trade' }) })
  taken('192.0.2.2', { placement: 'bbbbbbbbbb' })
  taken('192.0.2.3', { userAgent: PHONE, ...came({ referer: 'https://www.kilnclub.example/links' }) })
  taken('192.0.2.4', came({ campaign: 'Newsletter-2026-11', signpost: 'current-price-list' }))
  taken('192.0.2.5', { userAgent: PHONE, ...came({ isPrivate: true }) })
  await test.trough.tally.flush()
})
afterAll(() => test.close())

describe('what was taken', () => {
  it('is added up by where it came from', async () => {
    const rowsOf = async (list: string) => (await board({ list, span: '7' })).list.rows.map(({ key, count }) => [key, count])
    expect((await board()).total.count).toBe(5)
    expect(await rowsOf('file')).toEqual([[priceList.id, 5]])
    expect(await rowsOf('placement')).toEqual([
      ['', 3],
      ['bbbbbbbbbb', 2],
    ])
    // By the page that said so, else by where the button stands.
    expect(await rowsOf('page')).toEqual([
      ['', 3],
      [page.id, 2],
    ])
    expect(await rowsOf('referrer')).toEqual([
      ['', 4],
      ['kilnclub.example', 1],
    ])
    expect(await rowsOf('campaign')).toEqual([
      ['', 4],
      ['newsletter-2026-11', 1],
    ])
    expect((await rowsOf('signpost')).map(([, count]) => count)).toEqual([4, 1])
    // Who asked not to be followed is counted, without what they came with.
    expect(await rowsOf('device')).toEqual([
      ['computer', 3],
      ['', 1],
      ['phone', 1],
    ])
    expect(await rowsOf('language')).toEqual([
      ['de', 4],
      ['en', 1],
    ])
  })

  it('is narrowed, named, and held against the time before', async () => {
    const found = await board({ page: page.id, list: 'placement', stack: 'file' })
    expect(found.total.count).toBe(2)
    expect(found.before).toEqual({ count: 0, bytes: 0 })
    expect(found.names.placement!.bbbbbbbbbb).toMatchObject({ detail: 'Trade', place: `/desk/pages/${page.id}?at=bbbbbbbbbb` })
    expect(found.names.page![page.id]!.title).toBe('Trade')
    expect(found.stacks.map(({ key }) => key)).toEqual([priceList.id])
    expect((await board({ file: 'nothing' })).total.count).toBe(0)
    expect((await board({ span: 'days', from: '2020-01-01', to: '2020-01-02' })).total.count).toBe(0)
  })

  it('is told one by one, the newest first, and follows at once', async () => {
    const before = await log()
    expect(before.items).toHaveLength(5)
    taken('192.0.2.9', came({ referer: 'https://potters-forum.example/t/1' }))
    await test.trough.tally.flush()
    const { items, total } = await log({ limit: '1' })
    expect(total).toBe(6)
    expect(items[0]).toMatchObject({
      referrerPath: '/t/1',
      keys: { referrer: 'potters-forum.example', system: 'Linux', file: priceList.id },
    })
    expect((await log({ limit: '1', offset: '1' })).items[0]!.id).toBe(before.items[0]!.id)
  })

  it('says the country by the network, unless nobody shall know', async () => {
    const file = await test.put('abroad.pdf', '%PDF-1.7 abroad')
    const from = async () => (await board({ file: file.id, list: 'country' })).list.rows.map(({ key, count }) => [key, count])
    const take = async (address: string) => {
      taken(address, { file: file.id })
      await test.trough.tally.flush()
    }
    // RIPE NCC's own network (its registry says so, from memory); addresses for documents are nowhere (RFC 5737).
    await take('193.0.6.139')
    await take('192.0.2.50')
    expect(await from()).toEqual([
      ['', 1],
      ['NL', 1],
    ])
    await test.trough.site.set({ countries: false })
    await take('193.0.6.140')
    await test.trough.site.set({ countries: true })
    expect(await from()).toEqual([
      ['', 2],
      ['NL', 1],
    ])
  })

  it('is a table for other programs, formulas told to be text (OWASP, CSV Injection)', async () => {
    taken('192.0.2.10', came({ referer: 'https://a.example/=cmd' }))
    await test.trough.tally.flush()
    let text = ''
    for await (const piece of test.trough.downloads.csv(foundViewSchema.parse({}), OWNER)) text += piece
    const { data } = Papa.parse<Record<string, string>>(text.replace('\uFEFF', ''), { header: true, skipEmptyLines: true })
    expect(data).toHaveLength((await log()).total)
    expect(data[0]).toMatchObject({ 'file called': 'Price list', 'page called': 'Trade', 'language': 'de' })
    expect(data.every(row => Object.values(row).every(cell => !/^[=+\-@]/.test(cell)))).toBe(true)
  })

  it('gives the same in its table as in its log, whatever words are looked for', async () => {
    for (const q of ['price list', 'forum', 'no such thing', '%']) {
      let text = ''
      for await (const piece of test.trough.downloads.csv(foundViewSchema.parse({ q }), OWNER)) text += piece
      const lines = Papa.parse<unknown>(text.replace('\uFEFF', ''), { header: true, skipEmptyLines: true }).data.length
      expect([q, lines]).toEqual([q, (await log({ q })).total])
    }
    expect((await log({ q: 'price list' })).total).toBeGreaterThan(0)
  })

  it('gives the same in its table as on its board, whatever it is narrowed to', async () => {
    const queries: Record<string, string>[] = [
      { placement: '' },
      { placement: 'bbbbbbbbbb' },
      { edition: '1' },
      { edition: 'none' },
      { page: '', country: '' },
    ]
    for (const query of queries) {
      let text = ''
      for await (const piece of test.trough.downloads.csv(foundViewSchema.parse(query), OWNER)) text += piece
      const { data } = Papa.parse<Record<string, string>>(text.replace('\uFEFF', ''), { header: true, skipEmptyLines: true })
      const inTable = data.reduce((sum, row) => sum + Number(row.Downloads), 0)
      expect([query, inTable]).toEqual([query, (await board(query)).total.count])
    }
  })

  it('is told of a page whose address has letters of another script', async () => {
    const { id } = await test.trough.pages.create({ title: '釉薬', slug: '釉薬' })
    taken('192.0.2.60', came({ referer: `https://marlpit.example/${encodeURIComponent('釉薬')}` }))
    taken('192.0.2.61', came({ referer: 'https://marlpit.example/%E9%87' }))
    await test.trough.tally.flush()
    expect((await board({ page: id })).total.count).toBe(1)
  })

  it('outlives the file, and says that it is gone', async () => {
    await test.trough.library.remove({ files: [priceList.id], folders: [] }, { despite: true })
    await test.trough.library.emptyBin([priceList.id])
    const found = await board({ list: 'file' })
    expect(found.list.rows[0]!.key).toBe(priceList.id)
    expect(found.names.file).not.toHaveProperty(priceList.id)
  })
})
