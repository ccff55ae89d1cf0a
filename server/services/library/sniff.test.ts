import { execFileSync } from 'node:child_process'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { sniffType } from './sniff'

let folder: string
beforeAll(async () => void (folder = await mkdtemp(join(tmpdir(), 'trough-sniff-'))))
afterAll(() => rm(folder, { recursive: true, force: true }))

async function sniff(name: string, bytes: Buffer | string) {
  const path = join(folder, name)
  await writeFile(path, bytes)
  return sniffType(path, name)
}
/** As iconv writes it. */
const encoded = (text: string, encoding: string) => execFileSync('iconv', ['-f', 'UTF-8', '-t', encoding], { input: text })
const PRICES = 'Artikel;Größe;Preis\nTon, weiß;10 kg;12,50\n'

it('knows tables and texts in other encodings for what they are', async () => {
  expect(await sniff('prices.csv', PRICES)).toEqual({ mediaType: 'text/csv' })
  // Its mark is the beginning of MPEG sound, too.
  expect(await sniff('prices.csv', encoded(PRICES, 'UTF-16'))).toEqual({ mediaType: 'text/csv', charset: 'utf-16le' })
  expect(await sniff('prices.csv', encoded(PRICES, 'UTF-16BE'))).toEqual({ mediaType: 'text/csv', charset: 'utf-16be' })
  expect(await sniff('prices.csv', encoded(PRICES, 'WINDOWS-1252'))).toEqual({ mediaType: 'text/csv', charset: 'windows-1252' })
  expect(await sniff('brief.txt', encoded('Sehr geehrte Frau Müller', 'ISO-8859-1'))).toMatchObject({ mediaType: 'text/plain' })
})

it('finds HTML and SVG in any encoding, so that none of it runs', async () => {
  const page = '<!DOCTYPE html><script>alert(1)</script>'
  for (const encoding of ['UTF-16', 'UTF-16LE', 'UTF-16BE'])
    expect((await sniff('harmless.txt', encoded(page, encoding))).mediaType, encoding).toBe('text/html')
  expect((await sniff('mark.txt', encoded('<svg xmlns="http://www.w3.org/2000/svg"></svg>', 'UTF-16'))).mediaType).toBe('image/svg+xml')
})

it('takes bytes that are no text for what they are', async () => {
  expect((await sniff('noise.csv', Buffer.from([1, 2, 3, 200, 201, 0, 255]))).mediaType).toBe('application/octet-stream')
  expect((await sniff('tone.csv', Buffer.from([0xff, 0xfb, 0x90, 0x64, ...new Array<number>(500).fill(0)]))).mediaType).toBe('audio/mpeg')
})
