import { execFileSync } from 'node:child_process'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import type { Sink } from './reader'
import { readText } from './text'

let folder: string
beforeAll(async () => void (folder = await mkdtemp(join(tmpdir(), 'trough-text-'))))
afterAll(() => rm(folder, { recursive: true, force: true }))

/** What is read of a text that iconv wrote in an encoding. */
async function read(text: string, encoding: string) {
  const path = join(folder, encoding)
  await writeFile(path, execFileSync('iconv', ['-f', 'UTF-8', '-t', encoding], { input: text }))
  const taken: string[] = []
  const sink: Sink = {
    facts: {},
    take: (_part, body) => Promise.resolve(taken.push(body) > 0),
    picture: '',
    pictured: false,
    pages: '',
    programs: {},
  }
  await readText(path, sink)
  return { text: taken.join(''), charset: sink.facts.charset }
}

it.each([
  ['Töpferscheiben, Glasuren, Öfen und Größen', 'WINDOWS-1252', 'windows-1252'],
  ['Töpferscheiben, Glasuren, Öfen und Größen', 'UTF-16', 'utf-16le'],
  ['釉薬のレシピ：透明釉は、長石と石灰を混ぜて作ります。', 'SHIFT_JIS', 'shift_jis'],
  ['釉料配方：透明釉由长石和石灰石混合而成。', 'GB18030', 'gb18030'],
  ['Töpferscheiben', 'UTF-8', undefined],
])('words are read in the encoding of their text: %s in %s', async (text, encoding, charset) => {
  // Longer than what is decoded at once: no character is torn where pieces meet.
  const long = `${text}\n`.repeat(4000)
  expect(await read(long, encoding)).toEqual({ text: long, charset })
})
