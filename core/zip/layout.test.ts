import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import fc from 'fast-check'
import { unzipSync } from 'fflate'
import { afterAll, describe, expect, it } from 'vitest'
import type { ByteRange } from '../http/range'
import { ZipLayout, type ZipMember } from './layout'
import { distinctPaths } from './safePaths'
import { dosTime } from './records'

const folder = mkdtempSync(join(tmpdir(), 'trough-zip-'))
afterAll(() => rmSync(folder, { recursive: true }))
const MODIFIED = new Date('2026-11-02T09:30:45Z')

type Contents = Record<string, Buffer>
/** Every other member's bytes are given with the layout, the rest are said to be elsewhere. */
const layOut = (contents: Contents, always64 = false) =>
  new ZipLayout(
    Object.entries(contents).map(([name, bytes], index): ZipMember => ({
      name,
      size: bytes.length,
      crc32: crc32(bytes),
      modified: MODIFIED,
      source: index % 2 ? bytes : name,
    })),
    always64,
  )
const bytesOf = (layout: ZipLayout, contents: Contents, range?: ByteRange) =>
  Buffer.concat(
    [...layout.stretches(range)].map(stretch =>
      stretch instanceof Uint8Array ? stretch : contents[stretch.source]!.subarray(stretch.start, stretch.end),
    ),
  )

function zipOf(contents: Contents, always64 = false): Buffer {
  const layout = layOut(contents, always64)
  const whole = bytesOf(layout, contents)
  expect(whole.length).toBe(layout.size)
  return whole
}

/** What another library and unzip find in a zip. */
function readBack(bytes: Buffer): Contents {
  return Object.fromEntries(Object.entries(unzipSync(bytes)).map(([name, data]) => [name, Buffer.from(data)]))
}

const python = (script: string, path: string) =>
  execFileSync('python3', ['-c', `import sys, zipfile\nz = zipfile.ZipFile(sys.argv[1])\n${script}`, path], {
    encoding: 'utf8',
    maxBuffer: 1e8,
  }).trim()

/** Names of one to three parts with letters of all kinds, no part empty, `.` or `..`, none the folder of another. */
const namePart = fc.stringMatching(/^[\p{L}\p{N} _-]{1,12}$/u).filter(part => part.trim() === part && part !== '__proto__')
const tree = fc
  .uniqueArray(fc.tuple(fc.array(namePart, { maxLength: 2 }), namePart, fc.uint8Array({ maxLength: 300 })), {
    maxLength: 12,
    selector: ([folders, name]) => [...folders, name].join('/').toLowerCase(),
  })
  .map(files =>
    Object.fromEntries(
      files.map(([folders, name, bytes]) => [[...folders.map(part => `${part}.d`), `${name}.f`].join('/'), Buffer.from(bytes)]),
    ),
  )

describe('a zip laid out beforehand', () => {
  const contents = { 'a.txt': Buffer.from('123456789'), 'empty': Buffer.alloc(0), 'Ünïcode/🏺 pot.bin': Buffer.from([0, 255, 1]) }

  it.each([false, true])('is read by unzip, Python and another library, byte for byte (zip64 always: %s)', always64 => {
    const path = join(folder, `a-${always64}.zip`)
    const bytes = zipOf(contents, always64)
    writeFileSync(path, bytes)
    expect(execFileSync('unzip', ['-t', path], { encoding: 'utf8' })).toContain('No errors detected')
    // The CRC-32 check value of "123456789" is CBF43926; MS-DOS times go by two seconds.
    expect(
      python(
        'assert z.testzip() is None\nfor i in z.infolist(): print(i.filename, i.file_size, i.CRC, i.date_time, i.compress_type)',
        path,
      ).split('\n')[0],
    ).toBe(`a.txt 9 ${0xcbf43926} (2026, 11, 2, 9, 30, 44) 0`)
    expect(readBack(bytes)).toEqual(contents)
  })

  it('tells the time to the second and without a time zone (unzip, in two of them)', () => {
    const path = join(folder, 'time.zip')
    writeFileSync(path, zipOf({ 'a.txt': Buffer.from('a') }))
    const listed = (zone: string) => execFileSync('unzip', ['-Zl', '-T', path], { encoding: 'utf8', env: { ...process.env, TZ: zone } })
    expect(listed('UTC')).toContain('20261102.093045')
    expect(listed('Asia/Tokyo')).toContain('20261102.183045')
  })

  it('holds any tree of files, as unzip and another library find (property)', () => {
    const path = join(folder, 'any.zip')
    fc.assert(
      fc.property(tree, fc.boolean(), (files, always64) => {
        const bytes = zipOf(files, always64)
        expect(readBack(bytes)).toEqual(files)
        if (!Object.keys(files).length) return
        writeFileSync(path, bytes)
        execFileSync('unzip', ['-tq', path])
        expect(JSON.parse(python('import json\nassert z.testzip() is None\nprint(json.dumps(z.namelist()))', path))).toEqual(
          Object.keys(files),
        )
      }),
      { numRuns: 40 },
    )
  })

  it('gives in any range just what stands there in the whole (property)', () => {
    fc.assert(
      fc.property(tree, fc.boolean(), fc.nat(), fc.nat(), (files, always64, one, other) => {
        const layout = layOut(files, always64)
        const whole = bytesOf(layout, files)
        const [start, end] = [one % (layout.size + 1), other % (layout.size + 1)].sort((a, b) => a - b) as [number, number]
        expect(bytesOf(layout, files, { start, end }).equals(whole.subarray(start, end))).toBe(true)
      }),
      { numRuns: 500 },
    )
  })

  it('is the same to the byte each time it is made', () => expect(zipOf(contents).equals(zipOf(contents))).toBe(true))

  it('has room for 65,536 files and more (zip64, APPNOTE.TXT 4.3.14)', () => {
    const path = join(folder, 'many.zip')
    writeFileSync(path, zipOf(Object.fromEntries(Array.from({ length: 65_537 }, (_, index) => [`f${index}`, Buffer.alloc(0)]))))
    expect(python('print(len(z.namelist()))', path)).toBe('65537')
  })

  it('knows its size beyond 4 GiB, where sizes and offsets need 8 bytes', () => {
    const large: ZipMember = { name: 'l', size: 5 * 2 ** 30, crc32: 0, modified: MODIFIED, source: 'l' }
    const layout = new ZipLayout([large, { ...large, name: 'm' }])
    // Local 30+1+20, central 46+1+20 and, for the second, 46+1+28 with its offset, each with 9 for the time;
    // zip64 end 56, locator 20, end 22 (sections 4.3.7 to 4.3.16).
    expect(layout.size).toBe(2 * (5 * 2 ** 30 + 60) + 76 + 84 + 56 + 20 + 22)
    const middle = 7 * 2 ** 30
    expect([...layout.stretches({ start: middle, end: middle + 10 })]).toEqual([
      { source: 'l', start: middle - 5 * 2 ** 30 - 120, end: middle - 5 * 2 ** 30 - 110 },
    ])
  })
})

it('times are MS-DOS times in UTC, from 1980 on', () => {
  expect(dosTime(new Date('1970-01-01T00:00:00Z'))).toEqual({ time: 0, date: 0x21 })
  expect(dosTime(new Date('2026-11-02T23:59:58Z'))).toEqual({ time: (23 << 11) | (59 << 5) | 29, date: (46 << 9) | (11 << 5) | 2 })
})

it('paths in a zip differ, whatever their case', () => {
  expect(distinctPaths(['a.pdf', 'A.pdf', 'b/a.pdf', 'a.pdf', 'a 2.pdf'])).toEqual(['a.pdf', 'A 2.pdf', 'b/a.pdf', 'a 3.pdf', 'a 2 2.pdf'])
})
