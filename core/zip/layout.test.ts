import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { crc32 } from 'node:zlib'
import { unzipSync } from 'fflate'
import { afterAll, describe, expect, it } from 'vitest'
import { dosTime, layOutZip, type ZipMember } from './layout'
import { distinctPaths } from './names'

const folder = mkdtempSync(join(tmpdir(), 'trough-zip-'))
afterAll(() => rmSync(folder, { recursive: true }))
const MODIFIED = new Date('2026-11-02T09:30:44Z')

function zipOf(contents: Record<string, Buffer>): Buffer {
  const members = Object.entries(contents).map(([name, bytes]): ZipMember => ({ name, size: bytes.length, crc32: crc32(bytes), modified: MODIFIED, source: name }))
  const layout = layOutZip(members)
  const whole = Buffer.concat(layout.stretches.map(stretch => 'bytes' in stretch ? stretch.bytes : contents[stretch.source]!))
  expect(whole.length).toBe(layout.size)
  return whole
}

describe('a zip laid out beforehand', () => {
  const contents = { 'a.txt': Buffer.from('123456789'), 'empty': Buffer.alloc(0), 'Ünïcode/🏺 pot.bin': Buffer.from([0, 255, 1]) }

  it('is read by unzip, Python and another library, byte for byte', () => {
    const path = join(folder, 'a.zip')
    const bytes = zipOf(contents)
    writeFileSync(path, bytes)
    expect(execFileSync('unzip', ['-t', path], { encoding: 'utf8' })).toContain('No errors detected')
    const python = execFileSync('python3', ['-c', 'import sys, zipfile\nz = zipfile.ZipFile(sys.argv[1])\nassert z.testzip() is None\nfor i in z.infolist(): print(i.filename, i.file_size, i.CRC, i.date_time, i.compress_type)', path], { encoding: 'utf8' })
    // The CRC-32 check value of "123456789" is CBF43926.
    expect(python.split('\n')[0]).toBe(`a.txt 9 ${0xcbf43926} (2026, 11, 2, 9, 30, 44) 0`)
    expect(Object.fromEntries(Object.entries(unzipSync(bytes)).map(([name, data]) => [name, Buffer.from(data)]))).toEqual(contents)
  })

  it('has room for 65,536 files and more (zip64, APPNOTE.TXT 4.3.14)', () => {
    const path = join(folder, 'many.zip')
    writeFileSync(path, zipOf(Object.fromEntries(Array.from({ length: 65_537 }, (_, index) => [`f${index}`, Buffer.alloc(0)]))))
    expect(execFileSync('python3', ['-c', 'import sys, zipfile\nprint(len(zipfile.ZipFile(sys.argv[1]).namelist()))', path], { encoding: 'utf8' }).trim()).toBe('65537')
  })

  it('knows its size beyond 4 GiB, where sizes and offsets need 8 bytes', () => {
    const large: ZipMember = { name: 'l', size: 5 * 2 ** 30, crc32: 0, modified: MODIFIED, source: 'l' }
    // Local 30+1+20, central 46+1+20 and, for the second, 46+1+28 with its offset; zip64 end 56, locator 20, end 22 (sections 4.3.7 to 4.3.16).
    expect(layOutZip([large, { ...large, name: 'm' }]).size).toBe(2 * (5 * 2 ** 30 + 51) + 67 + 75 + 56 + 20 + 22)
  })
})

it('times are MS-DOS times in UTC, from 1980 on', () => {
  expect(dosTime(new Date('1970-01-01T00:00:00Z'))).toEqual({ time: 0, date: 0x21 })
  expect(dosTime(new Date('2026-11-02T23:59:58Z'))).toEqual({ time: (23 << 11) | (59 << 5) | 29, date: (46 << 9) | (11 << 5) | 2 })
})

it('paths in a zip differ, whatever their case', () => {
  expect(distinctPaths(['a.pdf', 'A.pdf', 'b/a.pdf', 'a.pdf', 'a 2.pdf'])).toEqual(['a.pdf', 'A 2.pdf', 'b/a.pdf', 'a 3.pdf', 'a 2 2.pdf'])
})
