import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { beginningOf, linesOf } from './packedLines'

let folder: string
beforeAll(async () => (folder = await mkdtemp(join(tmpdir(), 'lines-'))))
afterAll(() => rm(folder, { recursive: true }))

async function file(bytes: Buffer | string): Promise<string> {
  const path = join(folder, 'log')
  await writeFile(path, bytes)
  return path
}
async function all(bytes: Buffer | string): Promise<string[]> {
  const lines = []
  for await (const line of linesOf(await file(bytes))) lines.push(line)
  return lines
}

describe('lines of a log', () => {
  const text = '\uFEFFone\r\ntwo\n\nthrée'

  it('are the same packed (by zlib) or not, whatever ends them', async () => {
    expect(await all(text)).toEqual(['one', 'two', '', 'thrée'])
    expect(await all(gzipSync(text))).toEqual(['one', 'two', '', 'thrée'])
  })

  it('that are longer than any of a log are empty, and those around them whole', async () => {
    const long = 'x'.repeat(3_000_000)
    expect(await all(`before\n${long}\nafter\n`)).toEqual(['before', '', 'after'])
    expect(await all(long)).toEqual([''])
  })

  it('that a packed file breaks off in are no reason to take the rest for whole', async () => {
    const packed = gzipSync(Buffer.from('line\n'.repeat(10_000)))
    await expect(all(packed.subarray(0, packed.length - 20))).rejects.toThrow()
    await expect(beginningOf(await file('short'))).resolves.toBe('short')
  })
})
