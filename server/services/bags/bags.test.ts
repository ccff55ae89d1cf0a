import { execFileSync } from 'node:child_process'
import { readFile, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import sharp from 'sharp'
import { strToU8, unzipSync, zipSync } from 'fflate'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { fileQuerySchema } from '../../../core/files/query'
import { CLOSED_GATE, OPEN_GATE, gateRuleSchema } from '../../../core/gate/gate'
import { ZipLayout } from '../../../core/zip/layout'
import { openTestTrough, sha256, type TestTrough } from '../../testing/harness'

let from: TestTrough
let to: TestTrough
beforeAll(async () => {
  ;[from, to] = [await openTestTrough(), await openTestTrough()]
})
afterAll(async () => {
  await from.close()
  await to.close()
})

async function bytesOf(test: TestTrough, layout: ZipLayout): Promise<Buffer> {
  const parts = await Promise.all(
    [...layout.stretches()].map(async stretch =>
      stretch instanceof Uint8Array
        ? stretch
        : (
            await readFile(join(test.folder, 'store/sha256', stretch.source.slice(0, 2), stretch.source.slice(2, 4), stretch.source))
          ).subarray(stretch.start, stretch.end),
    ),
  )
  return Buffer.concat(parts)
}

async function bringIn(test: TestTrough, zip: Buffer, folder: string | null = null) {
  const file = await test.put(`bag ${Math.random()}.zip`, zip)
  const job = await test.trough.bagImport.bringIn(file.id, folder)
  await test.trough.jobs.ended(job.id)
  await test.trough.library.remove({ files: [file.id], folders: [] })
  return job
}

/** All that an owner knows of a library, without identities. */
async function everything({ trough }: TestTrough) {
  const { items } = await trough.library.list(fileQuerySchema.parse({ sort: 'title', limit: 500 }))
  // Two files may have one title, and identities are given out anew.
  items.sort((a, b) => (a.handle < b.handle ? -1 : 1))
  const folders = await trough.library.folders.list()
  const pathOf = (id: string | null): string => {
    const folder = folders.find(other => other.id === id)
    return folder ? `${pathOf(folder.parent)}/${folder.name}` : ''
  }
  const handleOf = (id: string | null) => items.find(item => item.id === id)?.handle
  const gates = await trough.gates.list()
  const gateOf = (id: string | null) => gates.find(gate => gate.id === id)?.name.toLowerCase() ?? id
  return {
    folders: folders
      .map(({ id, parent: _, gate, ...folder }) => ({ ...folder, gate: gateOf(gate), path: pathOf(id) }))
      .sort((a, b) => (a.path < b.path ? -1 : 1)),
    files: await Promise.all(
      items.map(
        async ({ id, folder, picture, preview: _p, reading: _r, readingError: _e, facts: _f, uses: _u, downloads: _d, size, ...file }) => ({
          ...file,
          gate: gateOf(file.gate),
          gates: file.gates.map(gateOf),
          folder: pathOf(folder),
          picture: handleOf(picture),
          editions: await trough.library.editions(id),
          ...(!file.bundle && { size }),
          ...(file.bundle && { members: (await trough.bundles.details(id)).members, gated: (await trough.bundles.details(id)).gated }),
        }),
      ),
    ),
  }
}

const makeGate = ({ trough }: TestTrough, name: string) =>
  trough.gates.create({ name, rule: gateRuleSchema.parse({ kind: 'terms', terms: { text: 'Be kind.', file: null } }) })

async function fill(test: TestTrough) {
  const { trough, put, putInto } = test
  const { library, bundles } = trough
  const lists = await library.folders.create({ name: 'Price lists', parent: null })
  const old = await library.folders.create({ name: '100% old', parent: lists.id })
  await library.folders.change(lists.id, { mark: 'clay', description: 'Changed, "often"', ownOrder: true })
  const png = (red: number) =>
    sharp({ create: { width: 40, height: 40, channels: 3, background: { r: red, g: 90, b: 80 } } })
      .png()
      .toBuffer()
  const picture = await put('tile.png', await png(10))
  const list = await putInto('price list.pdf', '%PDF-1.7 first', { folder: lists.id })
  await putInto('price list 2.pdf', '%PDF-1.7 second', { editionOf: list.id })
  await putInto('price list 3.pdf', '%PDF-1.7 third', { editionOf: list.id })
  await library.showEdition(list.id, 2)
  await library.change(list.id, {
    title: 'Prices, all of them',
    handle: 'prices.pdf',
    description: 'One\nTwo; "three", =4',
    tags: ['trade', 'A3|A4', '"paper"'],
    picture: picture.id,
  })
  await putInto('Ünïcode 🏺.txt', 'clay', { folder: old.id })
  await put('empty.txt', '')
  await put('tile.png', await png(200))
  const made = await bundles.create({ title: 'Everything', folder: lists.id, files: [list.id], folders: [lists.id] })
  // Who may have what, and look at it, or find it.
  const trade = await library.folders.create({ name: 'Trade', parent: null })
  await library.folders.change(trade.id, { gate: (await makeGate(test, 'Trade')).id, see: false, found: true })
  const terms = await putInto('terms.txt', 'terms', { folder: trade.id })
  await library.change(terms.id, { gate: OPEN_GATE, see: true })
  const costs = await putInto('costs.txt', 'costs of last year', { folder: trade.id, by: 'helper@marlpit.example' })
  await putInto('costs 2.txt', 'costs', { editionOf: costs.id })
  await trough.editions.change(costs.id, 1, { withdrawn: true })
  await bundles.change(made.id, { entries: (await bundles.details(made.id)).entries, revision: 1, gated: 'without' })
  const hidden = await put('hidden.txt', 'hidden')
  await library.change(hidden.id, { gate: CLOSED_GATE })
}

describe('a bag', () => {
  it('is whole by sha256sum -c, and its zip by unzip (RFC 8493)', async () => {
    await fill(from)
    await makeGate(to, 'TRADE')
    const { layout, fileName } = await from.trough.bagExport.layOut(null, new Date('2026-11-25T12:00:00Z'))
    expect(fileName).toMatch(/-2026-11-25\.zip$/)
    const path = join(from.folder, 'bag.zip')
    await writeFile(path, await bytesOf(from, layout))
    execFileSync('unzip', ['-q', path, '-d', from.folder])
    const bag = join(from.folder, fileName.slice(0, -4))
    // The per cent sign of a name is written in hexadecimal, which sha256sum does not read: sed undoes it.
    const checked = execFileSync(
      'sh',
      ['-c', 'sed "s/%25/%/g" manifest-sha256.txt | sha256sum -c && sha256sum -c tagmanifest-sha256.txt'],
      { cwd: bag, encoding: 'utf8' },
    )
    expect(
      checked
        .trim()
        .split('\n')
        .filter(line => line.endsWith(': OK')),
    ).toHaveLength(11 + 6)
    expect(await readFile(join(bag, 'bagit.txt'), 'utf8')).toBe('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n')
    const payload = execFileSync('sh', ['-c', 'find data -type f -exec cat {} + | wc -c; find data -type f | wc -l'], {
      cwd: bag,
      encoding: 'utf8',
    })
      .split('\n')
      .map(Number)
    expect(await readFile(join(bag, 'bag-info.txt'), 'utf8')).toContain(`Payload-Oxum: ${payload[0]}.${payload[1]}\n`)
  })

  it('comes in again exactly: folders, titles, addresses, editions, dates, bundles, redirects', async () => {
    const { layout } = await from.trough.bagExport.layOut(null)
    const job = await bringIn(to, await bytesOf(from, layout))
    expect(job).toMatchObject({ state: 'done', error: null })
    const [before, after] = [await everything(from), await everything(to)]
    expect(after).toEqual(before)
    await to.trough.verifying.start()
    await to.trough.verifying.ended()
    expect((await to.trough.verifying.state()).findings).toEqual([])
    // The former address of the price list still leads to it.
    expect(
      await to.trough.delivery.deliver(
        { method: 'HEAD', headers: {}, socket: {} } as never,
        {} as never,
        'price-list.pdf',
        { save: false, edition: null, at: null },
        false,
      ),
    ).toBe('/files/prices.pdf')
  })

  it('of a folder has what is in it and below; where an address is taken another is given, and said', async () => {
    const [lists] = (await from.trough.library.folders.list()).filter(folder => folder.name === 'Price lists')
    const { layout, fileName } = await from.trough.bagExport.layOut(lists!.id)
    expect(fileName).toMatch(/^price-lists-/)
    const target = await to.trough.library.folders.create({ name: 'Twice', parent: null })
    const job = await bringIn(to, await bytesOf(from, layout), target.id)
    expect(job.state).toBe('done')
    expect(job.report.find(line => line.name === 'Prices, all of them')!.why).toBe('prices.pdf is taken here: its address is prices-2.pdf.')
    const { items } = await to.trough.library.list(
      fileQuerySchema.parse({
        folder: target.id,
        below: 'true',
        sort: 'title',
        limit: 50,
      }),
    )
    expect(items.map(item => item.title)).toEqual(['Everything', 'Prices, all of them', 'Ünïcode 🏺'])
  })

  it('opens nothing: what stood behind a gate that is not here is seen at the desk alone, and that is said', async () => {
    const other = await openTestTrough()
    try {
      // The folder in what stands behind the gate: in the bag it lies at the top.
      const [trade] = (await from.trough.library.folders.list()).filter(folder => folder.name === 'Trade')
      const deep = await from.trough.library.folders.create({ name: 'Deep', parent: trade!.id })
      const deeper = await from.trough.library.folders.create({ name: 'Deeper', parent: deep.id })
      await from.putInto('margins.txt', 'margins', { folder: deep.id })
      await from.putInto('margins 2.txt', 'more margins', { folder: deeper.id })
      const { layout } = await from.trough.bagExport.layOut(deep.id)
      const job = await bringIn(other, await bytesOf(from, layout))
      expect((await other.trough.library.byId(job.files)).map(({ title, gate }) => [title, gate])).toEqual([
        ['Margins', CLOSED_GATE],
        ['Margins 2', null],
      ])
      expect(await other.trough.library.folders.list()).toMatchObject([{ name: 'Deeper', gate: CLOSED_GATE }])
      const why = 'It stood behind “Trade”, and there is no such gate here: nobody has it until you say who may.'
      expect(job.report).toEqual([
        { name: 'Deeper', outcome: 'made', why },
        { name: 'Margins', outcome: 'made', why },
        { name: 'Margins 2', outcome: 'made' },
      ])
    } finally {
      await other.close()
    }
  })

  it('of another program comes in by its paths', async () => {
    const manifest = `${sha256('one')}  data/papers/one.txt\n${sha256('two')}  data/two.txt\n`
    const zip = zipSync({
      'theirs/bagit.txt': strToU8('BagIt-Version: 0.97\nTag-File-Character-Encoding: UTF-8\n'),
      'theirs/manifest-sha256.txt': strToU8(manifest),
      'theirs/data/papers/one.txt': strToU8('one'),
      'theirs/data/two.txt': strToU8('two'),
    })
    const job = await bringIn(to, Buffer.from(zip))
    expect((await to.trough.library.byId(job.files)).map(file => file.title).sort()).toEqual(['One', 'Two'])
    expect((await to.trough.library.folders.list()).some(folder => folder.name === 'papers')).toBe(true)
  })

  it.each<[string, (files: Record<string, Uint8Array>) => void, RegExp]>([
    ['a changed byte', files => (files['b/data/two.txt'] = strToU8('twO')), /data\/two\.txt is not what its checksum says/],
    ['a missing file', files => delete files['b/data/two.txt'], /data\/two\.txt is missing/],
    ['a file too many', files => (files['b/data/three.txt'] = strToU8('3')), /data\/three\.txt stands in no manifest/],
    ['no declaration', files => delete files['b/bagit.txt'], /no bagit\.txt/],
    ['a path that leads out', files => (files['b/data/../../up.txt'] = strToU8('x')), /leads out/],
    [
      'a row that makes no sense',
      files => (files['b/metadata/files.csv'] = strToU8('path,handle\r\ndata/two.txt,"No such handle!"\r\n')),
      /files\.csv, row 2/,
    ],
    [
      'a folder whose name leads out',
      files =>
        (files['b/metadata/folders.csv'] = strToU8('path,mark,description,own_order,created\r\n../evil,,,no,2026-01-01T00:00:00Z\r\n')),
      /leads out/,
    ],
    [
      'a folder that leads out in the way of another system',
      files =>
        (files['b/metadata/folders.csv'] = strToU8('path,mark,description,own_order,created\r\nx\\..\\y,,,no,2026-01-01T00:00:00Z\r\n')),
      /leads out/,
    ],
    [
      'a folder that is a drive',
      files => (files['b/metadata/folders.csv'] = strToU8('path,mark,description,own_order,created\r\nC:,,,no,2026-01-01T00:00:00Z\r\n')),
      /a place on a computer/,
    ],
    ['a tag file that would fill the memory', files => (files['b/tag.txt'] = new Uint8Array(210_000_000)), /would open to/],
    ['a list of bundles that is none', files => (files['b/metadata/bundles.json'] = strToU8('{')), /bundles\.json cannot be read/],
  ])('with %s is refused whole', async (_, spoil, message) => {
    const files: Record<string, Uint8Array> = {
      'b/bagit.txt': strToU8('BagIt-Version: 1.0\n'),
      'b/manifest-sha256.txt': strToU8(`${sha256('two')}  data/two.txt\n`),
      'b/data/two.txt': strToU8('two'),
    }
    spoil(files)
    const before = (await everything(to)).files.length
    const job = await bringIn(to, Buffer.from(zipSync(files, { level: 1 })))
    expect(job.state).toBe('failed')
    expect(job.error).toMatch(message)
    expect((await everything(to)).files).toHaveLength(before)
  })

  it('is recognised as one', async () => {
    const { layout } = await from.trough.bagExport.layOut(null)
    expect(Object.keys(unzipSync(await bytesOf(from, layout))).filter(name => /^[^/]+\/bagit\.txt$/.test(name))).toHaveLength(1)
  })
})
