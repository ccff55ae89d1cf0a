import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Readable } from 'node:stream'
import { gzipSync } from 'node:zlib'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import Papa from 'papaparse'
import { boardQuerySchema, foundViewSchema } from '../../../core/tally/board'
import { downloads, imports } from '../../db/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'

const BROWSERS = [
  'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
  'Mozilla/5.0 (Linux; Android 14; Pixel 8) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/140.0.0.0 Mobile Safari/537.36',
]
/** As logs write moments: `01/Mar/2025:00:00:00 +0000`. */
const stamp = (at: number) => {
  const [, day, month, year, time] = new Date(at).toUTCString().split(' ')
  return `${day}/${month}/${year}:${time} +0000`
}
const line = (at: number, address: number, path: string, status = 200, bytes: number | '-' = 5000, agent = BROWSERS[address % 2]!) =>
  `192.0.2.${address} - - [${stamp(at)}] "GET ${path} HTTP/1.1" ${status} ${bytes} "https://kilnclub.example/list" "${agent}"`

let test: TestTrough
let list: { id: string; handle: string }
let sheet: { id: string; handle: string }
const MARCH = Date.UTC(2025, 2, 1)
const stream = (text: string | Buffer) => Readable.from([Buffer.from(text)])
const look = (text: string | Buffer, before = '') => test.trough.bringing.look(stream(text), { name: 'access.log', before })
const bring = (text: string | Buffer, name = 'access.log', before = '') => test.trough.bringing.bring(stream(text), { name, before })
const board = (query: Record<string, string>) =>
  test.trough.downloads.board(boardQuerySchema.parse({ span: 'all', ...query }), { people: true })

beforeAll(async () => {
  test = await openTestTrough()
  list = await test.put('price-list.pdf', '%PDF-1.7 list')
  sheet = await test.put('sheet.pdf', '%PDF-1.7 sheet')
  await test.trough.oldAddresses.bring('/downloads/prices.pdf')
  await test.trough.oldAddresses.lead('/downloads/prices.pdf', { kind: 'file', id: list.id })
})
afterAll(() => test.close())

/** A month of visits an hour or more apart, so that none repeats another. */
function aMonth(): string {
  const lines: string[] = []
  for (let hour = 0; hour < 700; hour++) {
    const at = MARCH + hour * 3_600_000
    lines.push(line(at, (hour % 200) + 1, hour % 3 ? `/files/${list.handle}` : '/downloads/prices.pdf'))
    if (hour % 5 === 0) lines.push(line(at + 60_000, (hour % 200) + 1, `/files/${sheet.handle}`, 200, 900))
    if (hour % 7 === 0) lines.push(line(at + 90_000, 201, '/favicon.ico'), line(at + 91_000, 202, `/files/${list.handle}`, 304, '-'))
  }
  return lines.join('\n') + '\n'
}

describe('numbers of before', () => {
  it('are counted as awk counts the same log, and as GoAccess does (Debian `gawk` or `mawk`, `goaccess`)', async () => {
    const folder = await mkdtemp(join(tmpdir(), 'trough-log-'))
    const log = join(folder, 'access.log')
    await writeFile(log, aMonth())
    const byAwk = (path: string) =>
      Number(execFileSync('awk', [`$7 == "${path}" && $9 == 200 { n++ } END { print n + 0 }`, log], { encoding: 'utf8' }))
    const inAwk = {
      [list.id]: byAwk(`/files/${list.handle}`) + byAwk('/downloads/prices.pdf'),
      [sheet.id]: byAwk(`/files/${sheet.handle}`),
    }
    const found = await look(await readFile(log))
    expect(Object.fromEntries(found.files.map(({ handle, count }) => [handle === list.handle ? list.id : sheet.id, count]))).toEqual(inAwk)
    expect(found).toMatchObject({ format: 'combined', firstDay: '2025-03-01', lastDay: '2025-03-30' })

    const report = join(folder, 'report.json')
    execFileSync('goaccess', [log, '--log-format=COMBINED', '--no-global-config', '--all-static-files', `--output=${report}`], {
      stdio: 'ignore',
    })
    const { static_requests: theirs } = JSON.parse(await readFile(report, 'utf8')) as {
      static_requests: { data: { data: string; hits: { count: number } }[] }
    }
    const hits = (path: string) => theirs.data.find(({ data }) => data === path)?.hits.count ?? 0
    // It counts what is asked for again and unchanged (304) as well.
    const unchanged = Number(execFileSync('awk', ['$9 == 304 { n++ } END { print n + 0 }', log], { encoding: 'utf8' }))
    expect(hits(`/files/${list.handle}`) + hits('/downloads/prices.pdf') - unchanged).toBe(inAwk[list.id])
    expect(hits(`/files/${sheet.handle}`)).toBe(inAwk[sheet.id])
    await rm(folder, { recursive: true })
  })

  it('come in as one, stand apart, and go out as one', async () => {
    const before = (await board({})).total.count
    const { item, found } = await bring(gzipSync(aMonth()))
    expect(item).toMatchObject({ name: 'access.log', format: 'combined', downloads: 840 })
    expect(found.others).toEqual([{ address: '/favicon.ico', count: 100 }])
    expect((await board({})).total.count).toBe(before + 840)
    const apart = await board({ source: item.id, list: 'referrer' })
    expect([apart.total.count, apart.list.rows[0]!.key, apart.names.source![item.id]!.title]).toEqual([
      840,
      'kilnclub.example',
      'access.log',
    ])
    expect((await board({ source: item.id, list: 'edition' })).list.rows.map(({ key }) => key)).toEqual(['0'])
    expect((await test.trough.library.get(list.id)).downloads).toBe(700)
    await test.trough.bringing.undo(item.id)
    expect((await board({})).total.count).toBe(before)
    expect((await test.trough.library.get(list.id)).downloads).toBe(0)
    expect(await test.trough.bringing.list()).toEqual([])
  })

  it('stand in the table of all in the order of time, whenever they came in', async () => {
    const [later, earlier] = [
      await bring(line(MARCH + 36_000_000, 1, `/files/${list.handle}`) + '\n', 'later.log'),
      await bring(line(MARCH, 2, `/files/${sheet.handle}`) + '\n', 'earlier.log'),
    ]
    let table = ''
    const view = foundViewSchema.parse({ span: 'all' })
    for await (const piece of test.trough.downloads.csv(view, { people: true })) table += piece
    for (const { item } of [later, earlier]) await test.trough.bringing.undo(item.id)
    const { data } = Papa.parse<{ When: string; file: string }>(table.replace('\uFEFF', ''), { header: true, skipEmptyLines: true })
    expect(data.map(({ When, file }) => [When, file])).toEqual([
      ['2025-03-01T00:00:00Z', sheet.id],
      ['2025-03-01T10:00:00Z', list.id],
    ])
  })

  it('come in by day as a table, at the noon of days of 23 hours too', async () => {
    await test.trough.site.set({ timeZone: 'Europe/London' })
    const { item } = await bring(
      'Day;File;Downloads\n2025-03-30;Price list;7\n30.03.2025;sheet.pdf;2\n2025-03-31;No such file;4\n',
      'old.csv',
    )
    expect(item).toMatchObject({ format: 'counts', downloads: 9, firstDay: '2025-03-30', lastDay: '2025-03-30' })
    const rows = await test.trough.database.select().from(downloads).where(eq(downloads.source, item.id))
    expect(rows.map(({ at, count }) => [at.toISOString(), count])).toEqual([
      ['2025-03-30T11:00:00.000Z', 7],
      ['2025-03-30T11:00:00.000Z', 2],
    ])
    await test.trough.bringing.undo(item.id)
  })

  it('come in once, leave out what was counted here, and are refused where they are nothing', async () => {
    const { item } = await bring(aMonth())
    await expect(bring(aMonth(), 'again.log')).rejects.toMatchObject({ status: 409 })
    await test.trough.bringing.undo(item.id)
    const cut = await look(aMonth(), '2025-03-11')
    expect([cut.lastDay, cut.downloads, cut.left.later]).toEqual(['2025-03-10', 240 + 48, 460 + 92])
    await expect(look('%PDF-1.7 no log')).rejects.toMatchObject({ status: 422 })
    await expect(look(gzipSync('%PDF-1.7 no log'))).rejects.toMatchObject({ status: 422 })
    // Cut off in the middle, and damaged.
    const packed = gzipSync(aMonth())
    await expect(bring(packed.subarray(0, packed.length / 2))).rejects.toMatchObject({ status: 422 })
    packed.fill(0, 2000, 2600)
    await expect(bring(packed)).rejects.toMatchObject({ status: 422 })
    await expect(bring(line(MARCH, 1, '/nothing/here.pdf') + '\n')).rejects.toMatchObject({ status: 422 })
    expect(await test.trough.bringing.list()).toEqual([])
  })

  it('that a process did not get to the end of are taken out when the next one starts', async () => {
    await test.trough.database
      .insert(imports)
      .values({ id: 'halfway', name: 'x', format: 'counts', sha256: 'x', downloads: 5, firstDay: '2025-01-01', lastDay: '2025-01-02' })
    await test.trough.database
      .insert(downloads)
      .values({ fileId: list.id, edition: 0, at: new Date(MARCH), bytes: 0, count: 5, source: 'halfway' })
    expect(await test.trough.bringing.list()).toEqual([])
    await test.trough.bringing.resume()
    expect(await test.trough.database.select().from(downloads).where(eq(downloads.source, 'halfway'))).toEqual([])
    expect(await test.trough.database.select().from(imports)).toEqual([])
  })

  it('come in though a try before came to no end and was left there', async () => {
    const sha256 = createHash('sha256').update(aMonth()).digest('hex')
    await test.trough.database
      .insert(imports)
      .values({ id: 'left', name: 'x', format: 'counts', sha256, downloads: 5, firstDay: '2025-01-01', lastDay: '2025-01-02' })
    await test.trough.database
      .insert(downloads)
      .values({ fileId: list.id, edition: 0, at: new Date(MARCH), bytes: 0, count: 5, source: 'left' })
    const { item } = await bring(aMonth())
    expect(await test.trough.database.select().from(downloads).where(eq(downloads.source, 'left'))).toEqual([])
    expect((await test.trough.bringing.list()).map(({ id, downloads: count }) => [id, count])).toEqual([[item.id, 840]])
    await test.trough.bringing.undo(item.id)
  })
})
