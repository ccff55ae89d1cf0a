import { mkdir, mkdtemp, readFile, readdir, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { text } from 'node:stream/consumers'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sha256 } from '../testing/harness'
import { localStore, type LocalStore } from './local'

let folder: string
let store: LocalStore
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-store-'))
  await mkdir(join(folder, 'store'))
  store = localStore(join(folder, 'store'))
})
afterAll(() => rm(folder, { recursive: true }))

async function adopt(content: string): Promise<string> {
  const path = join(folder, `arriving-${Math.random()}`)
  await writeFile(path, content)
  await store.adopt(sha256(content), path)
  return sha256(content)
}

describe('the local store', () => {
  it('keeps bytes under sha256/ab/cd/<hex> and leaves nothing at the old place', async () => {
    const hash = await adopt('clay')
    expect(await readFile(join(folder, 'store/sha256', hash.slice(0, 2), hash.slice(2, 4), hash), 'utf8')).toBe('clay')
    expect((await readdir(folder)).filter(name => name.startsWith('arriving'))).toEqual([])
    expect([await store.has(hash), await store.has('0'.repeat(64))]).toEqual([true, false])
  })

  it('stores the same bytes once, and taking them over again is harmless', async () => {
    const hash = await adopt('glaze')
    await adopt('glaze')
    await store.adopt(hash, join(folder, 'was never there'))
    const listed: string[] = []
    for await (const entry of store.list()) listed.push(entry)
    expect(listed.filter(entry => entry === hash)).toHaveLength(1)
  })

  it('reads stretches, and removes', async () => {
    const hash = await adopt('kiln and clay')
    expect(await text(store.read(hash, { start: 5, end: 8 }))).toBe('and')
    await store.remove(hash)
    await store.remove(hash)
    expect(await store.has(hash)).toBe(false)
  })

  it.each(['../../etc/passwd', 'abc', 'A'.repeat(64), ''])('never makes a path of %j', hash => {
    expect(() => store.pathOf(hash)).toThrow(RangeError)
  })

  it('lends as many at once as a bundle has files (APPNOTE.TXT 4.4.22: 65,535 and, with zip64, more)', async () => {
    const hashes = Array.from({ length: 70_000 }, (_, index) => index.toString(16).padStart(64, '0'))
    expect(await store.withFiles(hashes, async files => files.map(file => file.sha256))).toEqual(hashes)
  })

  it('knows how much can still be written', async () => expect(await store.free()).toBeGreaterThan(0))

  it('lists nothing where nothing was ever stored', async () => {
    const empty: string[] = []
    for await (const entry of localStore(join(folder, 'nowhere')).list()) empty.push(entry)
    expect(empty).toEqual([])
  })
})
