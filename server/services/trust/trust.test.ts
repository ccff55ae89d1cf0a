import { randomBytes } from 'node:crypto'
import { cp, mkdir, mkdtemp, readFile, readdir, rm, stat, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { sql } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest'
import { fileQuerySchema } from '../../../core/files/query'
import type { FileItem } from '../../../core/files/fileItem'
import { listen, openTestTrough, sha256, type TestTrough } from '../../testing/harness'
import { openTrough } from '../../trough'
import { restoreBackup } from './backup'
import { createClock } from './clock'
import { createHashing } from './hashing'

let test: TestTrough
let outside: string
beforeAll(async () => {
  test = await openTestTrough()
  outside = await mkdtemp(join(tmpdir(), 'trough-backup-'))
})
afterAll(async () => {
  await test.close()
  await rm(outside, { recursive: true, force: true })
})

const blobPath = (folder: string, hash: string) => join(folder, 'store/sha256', hash.slice(0, 2), hash.slice(2, 4), hash)
async function verify(from?: string) {
  await test.trough.verifying.start(from)
  await test.trough.verifying.ended()
  return test.trough.verifying.state()
}
const damage = async (file: FileItem) => {
  const path = blobPath(test.folder, file.sha256)
  const bytes = await readFile(path)
  bytes[bytes.length >> 1]! ^= 1
  await writeFile(path, bytes)
}

describe('verify', () => {
  it('finds nothing wrong where nothing is', async () => {
    await test.put('fine.bin', randomBytes(100_000))
    const state = await verify()
    expect(state).toMatchObject({ state: 'done', findings: [], error: null })
    expect([state.done, state.bytes >= 100_000]).toEqual([state.total, true])
  })

  it('finds damaged, missing and stray bytes, names the files, and mends from a backup', async () => {
    const [damaged, missing, both] = [
      await test.put('damaged.bin', randomBytes(5000)),
      await test.put('missing.bin', randomBytes(5000)),
      await test.put('hopeless.bin', randomBytes(5000)),
    ]
    const backup = join(outside, 'for-mending')
    await test.trough.backups.make(backup)
    await damage(damaged)
    await rm(blobPath(test.folder, missing.sha256))
    await damage(both)
    await rm(blobPath(backup, both.sha256))
    const stray = sha256('a stray')
    await mkdir(join(blobPath(test.folder, stray), '..'), { recursive: true })
    await writeFile(blobPath(test.folder, stray), 'a stray')

    const { findings } = await verify(backup)
    const told = (file: FileItem) => [{ id: file.id, title: file.title, edition: 1 }]
    expect(findings.toSorted((a, b) => (a.sha256 < b.sha256 ? -1 : 1))).toEqual(
      [
        { kind: 'damaged', sha256: damaged.sha256, size: 5000, files: told(damaged), mended: 'fetched from the backup' },
        { kind: 'missing', sha256: missing.sha256, size: 5000, files: told(missing), mended: 'fetched from the backup' },
        { kind: 'damaged', sha256: both.sha256, size: 5000, files: told(both), mended: null },
        { kind: 'stray', sha256: stray, size: 7, files: [], mended: 'set aside' },
      ].toSorted((a, b) => (a.sha256 < b.sha256 ? -1 : 1)),
    )
    expect(sha256(await readFile(blobPath(test.folder, damaged.sha256)))).toBe(damaged.sha256)
    // Damaged bytes are out of the way, but not gone.
    expect((await readdir(join(test.folder, 'store/set-aside'))).sort()).toEqual([both.sha256, damaged.sha256, stray].sort())

    expect((await verify()).findings).toMatchObject([{ kind: 'missing', sha256: both.sha256, mended: null }])
    await test.trough.library.remove({ files: [both.id], folders: [] })
    await test.trough.library.emptyOldBin(new Date(Date.now() + 1000))
    await test.trough.library.collectBytes()
    expect((await verify()).findings).toEqual([])
  })

  it('the same bytes uploaded again mend what was damaged', async () => {
    const bytes = randomBytes(3000)
    const file = await test.put('again.bin', bytes)
    await damage(file)
    await verify()
    await test.put('again too.bin', bytes)
    expect((await verify()).findings).toEqual([])
  })

  it('tells when it is under way, and that a folder is no backup', async () => {
    await test.trough.verifying.start()
    await expect(test.trough.verifying.start()).rejects.toMatchObject({ status: 409 })
    await test.trough.verifying.ended()
    await expect(test.trough.verifying.start('/nowhere')).rejects.toMatchObject({ status: 422 })
  })
})

describe('backup and restore', () => {
  async function restored(
    backup: string,
    then: (trough: Awaited<ReturnType<typeof openTrough>>, data: string) => Promise<void>,
  ): Promise<string[]> {
    const data = join(outside, `restored-${Math.random()}`)
    const hashing = createHashing()
    const { lost } = await restoreBackup(backup, data, hashing).finally(() => hashing.close())
    const trough = await openTrough({ data })
    await then(trough, data).finally(() => trough.close())
    return lost
  }

  it('an empty machine has everything again, byte for byte', async () => {
    const { trough } = test
    const backup = join(outside, 'whole')
    const folder = await trough.library.folders.create({ name: 'Kept', parent: null })
    const bytes = randomBytes(200_000)
    const file = await test.putInto('kept.bin', bytes, { folder: folder.id })
    await test.putInto('kept.bin', 'second edition', { editionOf: file.id })
    const bundle = await trough.bundles.create({ title: 'Kept pack', folder: null, files: [file.id], folders: [folder.id] })
    const { made, blobs, unfit } = await trough.backups.make(backup)
    expect([Date.parse(made) > 0, blobs > 2, unfit]).toEqual([true, true, []])
    await test.put('after the backup.txt', 'too late')
    expect(
      await restored(backup, async (other, data) => {
        expect(await other.library.get(file.id)).toMatchObject({ title: 'Kept', handle: 'kept.bin', folder: folder.id, edition: 2 })
        expect(await readFile(blobPath(data, sha256(bytes)))).toEqual(bytes)
        expect((await other.bundles.laidOut(bundle.id)).fingerprint).toBe((await trough.bundles.laidOut(bundle.id)).fingerprint)
        await other.verifying.start()
        await other.verifying.ended()
        expect((await other.verifying.state()).findings).toEqual([])
        const { items } = await other.library.list(fileQuerySchema.parse({ q: 'too late', limit: 5 }))
        expect(items).toEqual([])
      }),
    ).toEqual([])
  })

  it('a second one copies only what is new, links what is not, and clears what is gone', async () => {
    const backup = join(outside, 'twice')
    const gone = await test.put('gone soon.bin', randomBytes(4000))
    await test.trough.backups.make(backup)
    const fresh = await test.put('fresh.bin', randomBytes(4000))
    await test.trough.library.remove({ files: [gone.id], folders: [] })
    await test.trough.library.emptyOldBin(new Date(Date.now() + 1000))
    await test.trough.library.collectBytes()
    expect(await test.trough.backups.make(backup)).toMatchObject({ copied: 1, bytes: 4000 })
    expect((await readdir(backup)).sort()).toEqual(['db-2', 'secrets.json', 'store', 'trough-backup.json'])
    const has = (hash: string) =>
      stat(blobPath(backup, hash)).then(
        () => true,
        () => false,
      )
    expect([await has(fresh.sha256), await has(gone.sha256)]).toEqual([true, false])
  })

  it('one that was cut short changes nothing of the one before', async () => {
    const backup = join(outside, 'cut')
    const file = await test.put('before the cut.txt', 'before')
    await test.trough.backups.make(backup)
    // What a process leaves that is killed while it copies.
    await cp(join(backup, 'db-1'), join(backup, 'db-2'), { recursive: true })
    await rm(join(backup, 'db-2/PG_VERSION'))
    await writeFile(`${blobPath(backup, file.sha256)}.coming`, 'half')
    await restored(backup, async other => void expect((await other.library.get(file.id)).title).toBe('Before the cut'))
    await test.trough.backups.make(backup)
    await expect(stat(`${blobPath(backup, file.sha256)}.coming`)).rejects.toThrow()
    await restored(backup, async other => void expect((await other.library.get(file.id)).title).toBe('Before the cut'))
  })

  it('never copies damaged bytes, and names what a damaged backup has lost', async () => {
    const backup = join(outside, 'damaged')
    const [here, there] = [await test.put('damaged here.bin', randomBytes(2000)), await test.put('damaged there.bin', randomBytes(2000))]
    await damage(here)
    expect((await test.trough.backups.make(backup)).unfit).toEqual([here.sha256])
    await writeFile(blobPath(backup, there.sha256), 'other bytes')
    expect((await restored(backup, async () => undefined)).sort()).toEqual([here.sha256, there.sha256].sort())
  })

  it('keeps away from folders that hold other things', async () => {
    await writeFile(join(outside, 'a letter.txt'), 'Dear customer')
    await expect(test.trough.backups.make(outside)).rejects.toMatchObject({ status: 422 })
    await expect(test.trough.backups.make(join(test.folder, 'backup'))).rejects.toMatchObject({ status: 422 })
    const hashing = createHashing()
    await expect(restoreBackup(join(outside, 'nothing'), join(outside, 'x'), hashing)).rejects.toMatchObject({ status: 422 })
    await expect(restoreBackup(join(outside, 'whole'), outside, hashing)).rejects.toMatchObject({ status: 409 })
    await hashing.close()
  })
})

describe('cleaning', () => {
  it('shows what it would free, then frees it: earlier editions and the old bin', async () => {
    const { cleaner, library } = test.trough
    const file = await test.put('editions.bin', randomBytes(1000))
    for (let edition = 2; edition <= 4; edition++) await test.putInto('editions.bin', randomBytes(1000 * edition), { editionOf: file.id })
    const shared = await test.putInto('copy of the first.bin', await readFile(blobPath(test.folder, file.sha256)), {})
    const before = await cleaner.rules()
    const rules = { ...before, keepEditions: 1, editionDays: 0 }
    // The first edition's bytes are another file's, too: nothing is freed by dropping it.
    expect(await cleaner.preview(rules)).toMatchObject({
      editions: 2 + (await test.trough.library.editions(file.id)).length - 4,
      bytes: expect.any(Number),
    })
    await cleaner.setRules(rules)
    const stored = (await test.trough.storageUse()).stored
    const { bytes } = await cleaner.preview(rules)
    await cleaner.clean()
    expect((await test.trough.storageUse()).stored).toBe(stored - bytes)
    expect((await library.editions(file.id)).map(edition => edition.number)).toEqual([3, 4])
    expect((await readFile(blobPath(test.folder, shared.sha256))).length).toBe(1000)
    await cleaner.setRules(before)
  })

  it('says where the space goes, each folder with what is below it', async () => {
    const { library, storageUse } = test.trough
    const top = await library.folders.create({ name: 'Storage', parent: null })
    const below = await library.folders.create({ name: 'Below', parent: top.id })
    const before = await storageUse()
    const bytes = randomBytes(7000)
    await test.putInto('a.zip', bytes, { folder: top.id })
    await test.putInto('b.zip', bytes, { folder: below.id })
    const after = await storageUse()
    // The same bytes twice are stored once.
    expect([after.stored - before.stored, after.unshared - before.unshared]).toEqual([7000, 14_000])
    const of = (folder: string) => after.folders.find(row => row.folder === folder)
    expect([of(top.id), of(below.id)]).toEqual([
      { folder: top.id, files: 2, bytes: 14_000 },
      { folder: below.id, files: 1, bytes: 7000 },
    ])
  })
})

/** What a visitor gets of a file: its status and bytes. */
async function get(file: FileItem): Promise<[number, Buffer]> {
  const server = await listen((request, response) =>
    test.trough.delivery.deliver(request, response, file.handle, { save: true, edition: null, at: null }, false),
  )
  try {
    const response = await fetch(server.url)
    return [response.status, Buffer.from(await response.arrayBuffer())]
  } finally {
    await server.close()
  }
}

describe('the database', () => {
  it('is read through and found whole, and a damaged page of it is found', async () => {
    expect((await verify()).database).toEqual([])
    const own = await openTestTrough()
    const {
      rows: [place],
    } = await own.trough.database.execute<{ path: string }>(sql`select pg_relation_filepath('files') as path`)
    await own.put('row.txt', 'a row')
    await own.trough.close()
    // In the middle of the first page, where its rows lie (PostgreSQL, database page layout).
    const path = join(own.folder, 'db', place!.path)
    const bytes = await readFile(path)
    bytes.fill(0xab, 8192 - 200, 8192 - 120)
    await writeFile(path, bytes)
    const damaged = await openTrough({ data: own.folder })
    await damaged.verifying.start()
    await damaged.verifying.ended()
    const { database, error } = await damaged.verifying.state()
    expect([database, error]).toEqual([[`Page 0 of db/${place!.path} is damaged.`], null])
    await damaged.close()
    await rm(own.folder, { recursive: true, force: true })
  })

  it('lets documents be found by the words that stand in them again', async () => {
    const own = await openTestTrough()
    await own.put('words.txt', 'Firing chart for stoneware')
    await own.trough.reading.idle()
    const said = async () => {
      await own.trough.verifying.start()
      await own.trough.verifying.ended()
      return (await own.trough.verifying.state()).database
    }
    expect(await said()).toEqual([])
    await own.trough.database.execute(sql`update texts set words = array_to_tsvector('{firing,chart}')`)
    expect(await said()).toEqual(['One part of a document was not found by the words in it; now it is.'])
    expect(await said()).toEqual([])
    await own.close()
  })

  it('says whether the clock can be believed before anything is thrown away by it', async () => {
    const hour = 60 * 60 * 1000
    let [now, uptime] = [Date.now(), 0]
    const start = () =>
      createClock(
        test.trough.database,
        () => now,
        () => uptime,
      )
    const runFor = async (hours: number, clock: ReturnType<typeof start>) => {
      now += hours * hour
      uptime += hours * hour
      return clock.isPlausible()
    }
    expect(await start().isPlausible()).toBe(true)
    expect(await runFor(30 * 24, start())).toBe(true)
    now += 3 * 365 * 24 * hour
    const ahead = start()
    expect([await ahead.isPlausible(), await runFor(13, ahead), await runFor(1, ahead)]).toEqual([false, false, false])
    // What was done by that clock meanwhile says nothing for it.
    await test.put('by-the-wrong-clock.txt', 'wrong')
    const again = start()
    expect([await again.isPlausible(), await runFor(9, again), await runFor(1, again)]).toEqual([false, false, true])
    now -= 3 * 365 * 24 * hour
    expect(await start().isPlausible()).toBe(true)
  })

  it('stays as it was when it was found years ahead, though what is done since is dated by it', async () => {
    const own = await openTestTrough()
    const file = await own.put('binned.txt', 'binned')
    await own.trough.library.remove({ files: [file.id], folders: [] })
    await own.trough.close()
    vi.useFakeTimers({ toFake: ['Date'], now: Date.now() + 3 * 365 * 24 * 60 * 60 * 1000 })
    try {
      for (const title of ['Changed then', 'Changed at the next start']) {
        const ahead = await openTrough({ data: own.folder })
        await ahead.resume()
        await ahead.library.change(file.id, { title })
        await ahead.pages.create({ title })
        await ahead.resume()
        expect((await ahead.library.get(file.id)).deleted).not.toBeNull()
        await ahead.close()
      }
    } finally {
      vi.useRealTimers()
      await rm(own.folder, { recursive: true, force: true })
    }
  })
})

describe('bytes that are not what they were', () => {
  const remarks = async (file: FileItem) => (await test.trough.library.get(file.id)).remarks

  it.each([
    ['a small file', 5000],
    ['one that is read as it is sent', 500_000],
  ])('of %s are said at the file, and given again as soon as they are mended from a backup', async (_, size) => {
    const file = await test.put(`mended-${size}.bin`, randomBytes(size))
    const [, before] = await get(file)
    const backup = join(outside, `mending-${size}`)
    await test.trough.backups.make(backup)
    await rm(blobPath(test.folder, file.sha256))
    await verify()
    // What was in memory is not given on.
    expect((await get(file))[0]).not.toBe(200)
    expect(await remarks(file)).toEqual([expect.stringContaining('are missing')])
    await verify(backup)
    expect(await get(file)).toEqual([200, before])
    expect(await remarks(file)).toEqual([])
  })

  it('are said when a visitor could not have them, and the same file put in again takes their place', async () => {
    const bytes = randomBytes(5000)
    const file = await test.put('again.bin', bytes)
    await damage(file)
    expect((await get(file))[0]).not.toBe(200)
    expect(await remarks(file)).toEqual([expect.stringContaining('are damaged')])
    const twin = await test.put('again-2.bin', bytes)
    expect([await get(file), await get(twin)]).toEqual([
      [200, bytes],
      [200, bytes],
    ])
    expect(await remarks(file)).toEqual([])
  })
})
