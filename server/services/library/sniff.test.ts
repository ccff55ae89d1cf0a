import { execFileSync } from 'node:child_process'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { strToU8, zipSync } from 'fflate'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { remarksOn } from '../../../core/files/remarks'
import { typeTag } from '../../../core/files/mediaType'
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

const chunk = (id: string, ...parts: (Buffer | string)[]) => {
  const body = Buffer.concat(parts.map(part => Buffer.from(part)))
  const size = Buffer.alloc(4)
  size.writeUInt32BE(body.length)
  return Buffer.concat([Buffer.from(id), size, body])
}
const zeros = (count: number) => Buffer.alloc(count)
/** Beginnings of files as their formats have them, from memory; each is held against what `file` of Debian calls it. */
const RIGHT: [name: string, bytes: Buffer | string, tag: string, called: RegExp][] = [
  [
    'walk.avi',
    Buffer.concat([Buffer.from('RIFF\x00\x10\x00\x00AVI LIST\xc0\x00\x00\x00hdrlavih8\x00\x00\x00', 'latin1'), zeros(200)]),
    'AVI',
    /msvideo|avi/,
  ],
  ['bell.aiff', chunk('FORM', 'AIFF', chunk('COMM', zeros(18)), chunk('SSND', zeros(64))), 'AIFF', /aiff/],
  ['bell.flac', Buffer.concat([Buffer.from('fLaC\x00\x00\x00\x22\x10\x00\x10\x00', 'latin1'), zeros(60)]), 'FLAC', /flac/],
  [
    'bell.opus',
    Buffer.concat([Buffer.from('OggS\x00\x02', 'latin1'), zeros(20), Buffer.from('\x01\x13OpusHead\x01\x02', 'latin1'), zeros(60)]),
    'OGG',
    /ogg/,
  ],
  [
    'mark.ico',
    Buffer.concat([
      Buffer.from([
        0, 0, 1, 0, 1, 0, 16, 16, 0, 0, 1, 0, 32, 0, 0x68, 4, 0, 0, 22, 0, 0, 0, 40, 0, 0, 0, 16, 0, 0, 0, 32, 0, 0, 0, 1, 0, 32, 0,
      ]),
      zeros(1200),
    ]),
    'ICO',
    /icon/,
  ],
  [
    'bell.wma',
    Buffer.concat([
      Buffer.from('3026b2758e66cf11a6d900aa0062ce6c', 'hex'),
      zeros(14),
      // Stream Properties Object, 78 bytes, of a sound.
      Buffer.from('9107dcb7b7a9cf118ee600c00c205365' + '4e00000000000000' + '409e69f84d5bcf11a8fd00805f5c442b', 'hex'),
      zeros(400),
    ]),
    'WMA',
    /asf/,
  ],
  ['plan.eps', '%!PS-Adobe-3.0 EPSF-3.0\n%%BoundingBox: 0 0 10 10\nshowpage\n', 'PS', /postscript/],
  ['mark.ai', '%PDF-1.5\n%\xe2\xe3\n1 0 obj\n<<>>\nendobj\n', 'PDF', /pdf/],
  [
    'order.eml',
    'From: a@kilns.example\nTo: b@kilns.example\nSubject: Clay\nMIME-Version: 1.0\n\nTen bags, please.\n',
    'EML',
    /rfc822|plain/,
  ],
  ['plan.dxf', '  0\nSECTION\n  2\nHEADER\n  9\n$ACADVER\n  1\nAC1015\n  0\nENDSEC\n  0\nEOF\n', 'DXF', /dxf|plain/],
  ['yard.vcf', 'BEGIN:VCARD\nVERSION:3.0\nFN:The yard\nEND:VCARD\n', 'VCF', /vcard/],
  [
    'tour.mov',
    Buffer.concat([Buffer.from('\x00\x00\x00\x14ftypqt  \x00\x00\x02\x00qt  \x00\x00\x00\x08wide', 'latin1'), zeros(64)]),
    'MOV',
    /quicktime/,
  ],
  ['notes.txt', encoded('Größe in Zoll: 5½', 'ISO-8859-1'), 'TXT', /plain/],
]
it.each(RIGHT)('%s is what it says, and no alarm is given', async (name, bytes, tag, called) => {
  const { mediaType } = await sniff(name, typeof bytes === 'string' ? Buffer.from(bytes, 'latin1') : bytes)
  expect(execFileSync('file', ['--brief', '--mime-type', join(folder, name)]).toString()).toMatch(called)
  expect(remarksOn({ fileName: name, mediaType, size: 100 })).toEqual([])
  expect(typeTag(mediaType)).toBe(tag)
})

it('still says so where name and bytes cannot both be right', async () => {
  for (const [name, bytes] of [
    ['list.pdf', 'Prices, written in an editor'],
    ['photo.png', '%PDF-1.5\n'],
    ['sheet.xlsx', 'a,b\n1,2\n'],
    ['tour.mov', 'no film at all'],
  ] as const) {
    const { mediaType } = await sniff(name, bytes)
    expect(remarksOn({ fileName: name, mediaType, size: 100 }), name).toHaveLength(1)
  }
})

it('takes documents of an office for that, of whatever kind they are', async () => {
  const entry = (type: string) =>
    zipSync({ 'mimetype': [strToU8(type), { level: 0 }], 'content.xml': strToU8('<office:document-content/>') })
  const web = entry('application/vnd.oasis.opendocument.text-web')
  expect((await sniff('words.odt', Buffer.from(web))).mediaType).toBe('application/vnd.oasis.opendocument.text')
  // Under another name it is what every program takes it for.
  expect((await sniff('words.docx', Buffer.from(web))).mediaType).toBe('application/zip')
  expect((await sniff('words.odt', Buffer.from(zipSync({ 'a.txt': strToU8('no document') })))).mediaType).toBe('application/zip')
})
