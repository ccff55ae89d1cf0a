import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Connection } from '../../db/connection'
import { blobs, editions, files } from '../../db/schema'
import { localStore } from '../../store/local'
import { databaseOfTest } from '../../testing/harness'
import { createEvents, passOn } from '../events'
import { createReadingService } from './reading'
import { createTraffic } from '../traffic'
import { createSearchIndex } from './searchIndex'

let folder: string
let connection: Connection
const events = createEvents()
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-derive-service-'))
  connection = await (await databaseOfTest(folder))(join(folder, 'db'), touched => passOn(events, touched))
})
afterAll(async () => {
  await connection.close()
  await rm(folder, { recursive: true })
})

// Stands in for the reader: does to each file what its type says.
const STAND_IN = `
import { parentPort } from 'node:worker_threads'
parentPort.on('message', ({ mediaType }) => {
  if (mediaType === 'test/crash') process.exit(7)
  if (mediaType === 'test/throw') throw new Error('out of its depth')
  if (mediaType === 'test/hang') return
  if (mediaType === 'test/refuse') return parentPort.postMessage({ facts: {}, picture: false, trouble: 'Not a document.' })
  parentPort.postMessage({ facts: { pages: 3 }, picture: true })
})`

async function put(id: string, hash: string, type: string, created?: Date): Promise<void> {
  const sha256 = hash.repeat(64)
  await connection.db.insert(blobs).values({ sha256, size: 1, crc32: 0, created })
  await connection.db.insert(files).values({ id, title: type, handle: type, edition: 1 })
  await connection.db.insert(editions).values({ fileId: id, number: 1, sha256, fileName: type, mediaType: `test/${type}` })
}

const open = (traffic = createTraffic()) =>
  createReadingService({
    db: connection.db,
    store: localStore(join(folder, 'store')),
    folder: join(folder, 'derived'),
    texts: createSearchIndex(connection.db),
    events,
    traffic,
    script: join(folder, 'reader.mjs'),
    patience: 6000,
  })

it('a file that crashes, hangs or breaks its reader is marked, and the queue goes on with a new one', async () => {
  const { db } = connection
  const script = join(folder, 'reader.mjs')
  await writeFile(script, STAND_IN)
  const types = ['crash', 'fine', 'hang', 'throw', 'refuse', 'well']
  for (const [index, type] of types.entries()) await put(`file${index}`, String(index), type)
  let told = 0
  events.on('read', hashes => (told += hashes.length))
  const service = open()
  await service.idle()
  await service.close()

  const outcome = async () =>
    Object.fromEntries(
      (await db.select().from(blobs)).map(row => [types[Number(row.sha256[0])]!, [row.preview, row.readingError ?? row.facts.pages]]),
    )
  expect(await outcome()).toEqual({
    crash: ['failed', 'Reading it stopped the reader.'],
    fine: ['ready', 3],
    hang: ['failed', 'Reading it took too long.'],
    throw: ['failed', 'Reading it stopped: out of its depth'],
    refuse: ['failed', 'Not a document.'],
    well: ['ready', 3],
  })
  expect(told).toBe(types.length)

  // With the folder of what was made of them gone, as after a restore, those that could be read are read once more, and once.
  await writeFile(script, STAND_IN.replace('pages: 3', 'pages: 4'))
  const toldAfter: number[] = []
  for (let start = 0; start < 2; start++) {
    const next = open()
    await next.start()
    await next.idle()
    await next.close()
    expect(await outcome()).toMatchObject({ fine: ['ready', 4], well: ['ready', 4], refuse: ['failed', 'Not a document.'] })
    toldAfter.push(told)
  }
  expect(toldAfter[0]).toBeGreaterThan(types.length)
  expect(toldAfter[1]).toBe(toldAfter[0])
})

it('the newest file is read first, and none is said to be read while there is a rest after it', async () => {
  await writeFile(join(folder, 'reader.mjs'), STAND_IN)
  const hashes = ['a', 'b', 'c']
  for (const [day, hash] of hashes.entries()) await put(`of-${hash}`, hash, `kind-${hash}`, new Date(Date.UTC(2026, 0, 1 + day)))
  // PostgreSQL may tell of a change more than once, and later.
  const order = new Set<string>()
  const said: (string | null)[] = []
  events.on('read', async read => {
    read.forEach(hash => order.add(hash[0]!))
    said.push((await service.progress()).now)
  })
  const traffic = createTraffic()
  traffic.note()
  const service = open(traffic)
  await service.idle()
  await service.close()
  await expect.poll(() => [...order]).toEqual(['c', 'b', 'a'])
  await expect.poll(() => said.length).toBeGreaterThanOrEqual(hashes.length)
  expect(said).not.toContain('of-c')
})
