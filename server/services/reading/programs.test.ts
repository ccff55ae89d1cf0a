import { chmod, mkdir, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { findPrograms, readAnewWith } from './programs'

let test: TestTrough
beforeAll(async () => void (test = await openTestTrough()))
afterAll(() => test.close())

it('finds programs in the folders it is told of, the first of each, and only what can be run', async () => {
  const [one, other] = [join(test.folder, 'one'), join(test.folder, 'other')]
  await mkdir(one)
  await mkdir(other)
  for (const [path, mode] of [
    [join(one, 'soffice'), 0o644],
    [join(other, 'soffice'), 0o755],
    [join(one, 'ffmpeg'), 0o755],
    [join(other, 'ffmpeg'), 0o755],
  ] as const) {
    await writeFile(path, '#!/bin/sh\n')
    await chmod(path, mode)
  }
  expect(await findPrograms([one, other, '/nowhere'])).toEqual({ office: join(other, 'soffice'), film: join(one, 'ffmpeg') })
  // A cage that cannot be made here is none.
  await writeFile(join(one, 'bwrap'), '#!/bin/sh\nexit 1\n')
  await chmod(join(one, 'bwrap'), 0o755)
  expect((await findPrograms([one])).cage).toBeUndefined()
  await writeFile(join(one, 'bwrap'), '#!/bin/sh\nexit 0\n')
  expect((await findPrograms([one])).cage).toBe(join(one, 'bwrap'))
  expect(await findPrograms([])).toEqual({})
})

it('has documents read once more when a program is new, and only then', async () => {
  const [document, film, text] = [
    await test.put('a.rtf', '{\\rtf1 clay}'),
    await test.put('b.mp4', '\0\0\0\x18ftypisom\0\0\0\0isommp42'),
    await test.put('c.txt', 'c'),
  ]
  await test.trough.reading.idle()
  const { db } = test.trough.dataFolder.connection
  const waiting = async () => {
    const items = await test.trough.library.byId([document.id, film.id, text.id])
    return items
      .filter(({ reading }) => reading === 'waiting')
      .map(({ fileName }) => fileName)
      .sort()
  }
  await readAnewWith(db, {})
  expect(await waiting()).toEqual([])
  await readAnewWith(db, { office: '/usr/bin/soffice' })
  expect(await waiting()).toEqual(['a.rtf'])
  await test.trough.reading.idle()
  await readAnewWith(db, { office: '/opt/soffice' })
  expect(await waiting()).toEqual([])
  await readAnewWith(db, { office: '/opt/soffice', film: '/usr/bin/ffmpeg' })
  expect(await waiting()).toEqual(['b.mp4'])
  await test.trough.reading.idle()
  // One that went and came again may be another.
  await readAnewWith(db, {})
  await readAnewWith(db, { office: '/usr/bin/soffice', film: '/usr/bin/ffmpeg' })
  expect(await waiting()).toEqual(['a.rtf', 'b.mp4'])
})
