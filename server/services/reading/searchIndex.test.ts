import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { questionFor } from '../../../core/find/question'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { wordsOf } from '../../../core/find/fold'
import { blobs, editions, files } from '../../db/schema'
import type { Connection } from '../../db/connection'
import { localStore } from '../../store/local'
import { databaseOfTest } from '../../testing/harness'
import { createEvents } from '../events'
import { createWorkerHost } from '../workerHost'
import { createReadingService } from './reading'
import { createTraffic } from '../traffic'
import { createSearchIndex, type SearchIndex } from './searchIndex'

let folder: string
let connection: Connection
let texts: SearchIndex
const hash = (letter: string) => letter.repeat(64)

async function addFile(letter: string, mediaType = 'text/plain'): Promise<void> {
  await connection.db.insert(blobs).values({ sha256: hash(letter), size: 1, crc32: 0 })
  await connection.db.insert(files).values({ id: `file-${letter}`, title: letter, handle: letter, edition: 1 })
  await connection.db.insert(editions).values({ fileId: `file-${letter}`, number: 1, sha256: hash(letter), fileName: letter, mediaType })
}
const write = (letter: string, parts: [part: string, body: string][]) =>
  texts.add(
    hash(letter),
    0,
    parts.map(([part, body]) => ({ part, body, words: [...new Set(wordsOf(body))] })),
  )

beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-texts-'))
  connection = await (await databaseOfTest(folder))(join(folder, 'db'), () => undefined)
  texts = createSearchIndex(connection.db)
  for (const letter of ['a', 'b', 'c']) await addFile(letter)
  await write('a', [
    ['Page 1', 'Before you begin, read this.'],
    ['Page 2', 'The thermocouple drifts. Fire the kiln slowly.'],
    ['Page 3', 'Kiln, thermocouple and all.'],
  ])
  await write('b', [['', 'Crème brûlée glaze; fires at 1260 °C.']])
  await write('c', [
    ['Sheet', 'kiln\tshelf'],
    ['Other', 'thermocouple'],
  ])
})
afterAll(async () => {
  await connection.close()
  await rm(folder, { recursive: true })
})

describe('words inside', () => {
  // Worked by hand: every word, or its beginning, in one and the same part.
  it.each<[string, string[]]>([
    ['thermo', ['a', 'c']],
    ['KILN', ['a', 'c']],
    ['kiln thermocouple', ['a']],
    ['kiln shelf', ['c']],
    ['creme', ['b']],
    ['Brûlée GLAZE', ['b']],
    ['1260', ['b']],
    ['126', ['b']],
    ['ermocouple', []],
    ['k', []],
    ['', []],
    ["'", []],
    ['kiln & | ! :* <->', ['a', 'c']],
    ['kiln\\', ['a', 'c']],
  ])('“%s” is in %j', async (q, letters) =>
    expect([...(await texts.containing(questionFor(q)))].map(sha256 => sha256[0]).sort()).toEqual(letters),
  )

  it('are looked for only among some, where some are named', async () => {
    expect([...(await texts.containing(questionFor('kiln'), [hash('c'), hash('b')]))]).toEqual([hash('c')])
    expect((await texts.containing(questionFor('kiln'), [])).size).toBe(0)
  })

  it('are shown where they stand first', async () => {
    const passages = await texts.passages(questionFor('kiln thermo'), [hash('a'), hash('b'), hash('c')])
    expect([...passages.keys()]).toEqual([hash('a')])
    expect(passages.get(hash('a'))).toMatchObject({
      part: 'Page 2',
      passage: ['The ', 'thermo', 'couple drifts. Fire the ', 'kiln', ' slowly.'],
    })
  })

  it('are gone when a file is read anew', async () => {
    await addFile('d')
    await write('d', [['', 'ephemeral']])
    await texts.clear(hash('d'))
    expect((await texts.containing(questionFor('ephemeral'))).size).toBe(0)
    expect([await texts.beginning(hash('d')), await texts.beginning(hash('b'))]).toEqual(['', 'Crème brûlée glaze; fires at 1260 °C.'])
  })
})

// Stands in for the reader: hands over so many batches as its type says, each after the last was answered.
const STAND_IN = `
import { parentPort } from 'node:worker_threads'
let goOn = () => {}
parentPort.on('message', async (task) => {
  if (task === 'on') return goOn()
  const [, kind, count] = task.mediaType.split(/[/+]/)
  for (let batch = 0; batch < Number(count); batch++) {
    parentPort.postMessage({ parts: [{ part: 'Page ' + (batch + 1), body: 'word' + batch, words: ['word' + batch, kind] }] })
    await new Promise(resolve => goOn = resolve)
    if (kind === 'breaks' && batch === 1) process.exit(3)
  }
  parentPort.postMessage({ facts: { pages: Number(count) }, picture: false, trouble: kind === 'troubled' ? 'Half of it is missing.' : undefined })
})`

describe('reading', () => {
  const start = async () => {
    const script = join(folder, 'reader.mjs')
    await writeFile(script, STAND_IN)
    const events = createEvents()
    return createReadingService({
      db: connection.db,
      store: localStore(join(folder, 'store')),
      folder: join(folder, 'derived'),
      texts,
      events,
      traffic: createTraffic(),
      script,
      patience: 20_000,
    })
  }
  const stateOf = async (letter: string) => (await connection.db.select().from(blobs)).find(blob => blob.sha256 === hash(letter))

  it('writes what comes batch by batch, keeps what a broken one had, and goes on after a restart', async () => {
    await connection.db.update(blobs).set({ reading: 'done' })
    for (const [letter, type] of [
      ['e', 'test/whole+5'],
      ['f', 'test/breaks+4'],
      ['9', 'test/troubled+2'],
    ] as const)
      await addFile(letter, type)
    const first = await start()
    expect(await first.progress()).toEqual({ waiting: 3, failed: 0, now: null })
    // Closed at once: what waits is still waiting for the next.
    await first.close()
    const second = await start()
    await second.idle()
    expect([...(await texts.containing(questionFor('word4')))]).toEqual([hash('e')])
    expect(await stateOf('e')).toMatchObject({ reading: 'done', preview: 'none', facts: { pages: 5 }, readingError: null })
    expect(await stateOf('f')).toMatchObject({ reading: 'failed', readingError: 'Reading it stopped the reader.' })
    expect(await stateOf('9')).toMatchObject({ reading: 'failed', facts: { pages: 2 }, readingError: 'Half of it is missing.' })
    expect((await texts.containing(questionFor('breaks'))).has(hash('f'))).toBe(true)
    expect(await second.progress()).toEqual({ waiting: 0, failed: 2, now: null })

    await second.again()
    await second.idle()
    expect(await second.progress()).toMatchObject({ failed: 2 })
    // Read twice, its words stand there once.
    expect((await texts.passages(questionFor('troubled'), [hash('9')])).size).toBe(0)
    expect([...(await texts.containing(questionFor('word1 troubled')))]).toEqual([hash('9')])
    await second.again([hash('e')])
    await second.idle()
    expect(await stateOf('e')).toMatchObject({ reading: 'done' })
    await second.close()
  })

  it('a worker that is gone is replaced by the next task', async () => {
    const script = join(folder, 'host.mjs')
    await writeFile(
      script,
      'import { parentPort } from "node:worker_threads"\nparentPort.on("message", task => task === "die" ? process.exit(1) : task === "hang" ? 0 : parentPort.postMessage(task * 2))',
    )
    const host = createWorkerHost<string | number, number>(script, 6000)
    const ask = async (task: string | number) => {
      let answer = 0
      await host.run(task, message => {
        answer = message
        return true
      })
      return answer
    }
    expect(await ask(21)).toBe(42)
    await expect(ask('die')).rejects.toThrow('Reading it stopped the reader.')
    expect(await ask(4)).toBe(8)
    await expect(ask('hang')).rejects.toThrow('Reading it took too long.')
    expect(await ask(5)).toBe(10)
    await host.close()
  })
})
