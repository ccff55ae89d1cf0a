import { execFileSync } from 'node:child_process'
import { chmod, mkdir, mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { crc32, gunzipSync } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { makePdf } from '../../demo/pdf'
import type { Programs } from '../../core/files/programs'
import { contentsOf } from './look'
import { runLimited } from './programs/runLimited'
import { read, type ReadPart } from './read'

const SAMPLES = join(import.meta.dirname, '../testing/samples')
let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-formats-'))
  await mkdir(join(folder, 'sub'))
  await writeFile(join(folder, 'a.txt'), 'hello')
  await writeFile(join(folder, 'sub/größe ä.txt'), 'x'.repeat(2000))
})
afterAll(() => rm(folder, { recursive: true }))

const at = (name: string) => join(folder, name)
const run = (command: string, ...args: string[]) => execFileSync(command, args, { cwd: folder, stdio: 'pipe' })

async function readAt(path: string, mediaType: string, programs: Programs = {}) {
  const parts: ReadPart[] = []
  const result = await read(
    { path, mediaType, picture: at('pictures/first.webp'), pages: at('pictures/pages.pdf'), programs },
    async found => void parts.push(...found),
  )
  return { ...result, parts, text: parts.map(({ body }) => body).join('\n') }
}
async function readBytes(bytes: Buffer | Uint8Array, mediaType: string, programs: Programs = {}) {
  await writeFile(at('blob'), bytes)
  return readAt(at('blob'), mediaType, programs)
}

// The samples were written by another program, LibreOffice 7.4, from the same words.
describe('documents of earlier offices', () => {
  const words = ['Glazes of the yard', 'Größe zwölf, café crème', 'Celadon', '1280', '釉薬は窯で溶ける']

  it.each([
    ['glazes.doc', 'application/msword'],
    ['glazes.rtf', 'application/rtf'],
    ['glazes.rtf', 'text/rtf'],
  ])('%s has its words read, those of tables apart from each other', async (name, mediaType) => {
    const { text, trouble, parts } = await readAt(join(SAMPLES, name), mediaType)
    expect(trouble).toBeUndefined()
    for (const word of words) expect(text).toContain(word)
    expect(parts.flatMap(part => part.words)).toEqual(expect.arrayContaining(['celadon', '1280', 'tenmoku', '1300']))
  })

  // `glazes.txt` is what LibreOffice 7.4 itself makes of the document: `soffice --headless --convert-to txt glazes.doc`.
  it.each([
    ['glazes.doc', 'application/msword'],
    ['glazes.rtf', 'application/rtf'],
    ['glazes.odt', 'application/vnd.oasis.opendocument.text'],
    ['glazes.docx', 'application/vnd.openxmlformats-officedocument.wordprocessingml.document'],
  ])('%s has the words that LibreOffice finds in it, and no others', async (name, mediaType) => {
    const wordsIn = (said: string) => [...new Set(said.match(/[\p{L}\p{N}]+/gu))].sort()
    const { text } = await readAt(join(SAMPLES, name), mediaType)
    expect(wordsIn(text)).toEqual(wordsIn(await readFile(join(SAMPLES, 'glazes.txt'), 'utf8')))
  })

  it('a workbook has its sheets, as they are shown there', async () => {
    const path = join(SAMPLES, 'prices.xls')
    const { facts, text } = await readAt(path, 'application/vnd.ms-excel')
    expect(facts.sheets).toBe(1)
    expect(text).toContain('Größe\t10\t13')
    expect(await contentsOf(path, 'application/vnd.ms-excel')).toMatchObject({
      kind: 'sheets',
      sheets: [
        {
          name: 'prices',
          rows: [
            ['Glaze', 'Cone', 'Price'],
            ['Celadon', '9', '12,50'],
            ['Größe', '10', '13'],
          ],
        },
      ],
    })
  })

  it('slides have their words, each slide its own, and nothing of their master', async () => {
    const { facts, parts } = await readBytes(gunzipSync(await readFile(join(SAMPLES, 'slides.ppt.gz'))), 'application/vnd.ms-powerpoint')
    expect(facts.pages).toBe(2)
    expect(parts.map(({ part, body }) => [part, body.trim()])).toEqual([
      ['Slide 1', 'Wedging clay\nGröße zwölf'],
      ['Slide 2', 'Throwing a bowl'],
    ])
  })

  it.each([
    ['application/msword', 'glazes.doc'],
    ['application/vnd.ms-excel', 'prices.xls'],
    ['application/vnd.ms-powerpoint', 'glazes.doc'],
    ['application/rtf', 'prices.xls'],
  ])('of %s that are cut off or something else end in words for their owner', async (mediaType, name) => {
    const whole = await readFile(join(SAMPLES, name))
    for (const bytes of [whole.subarray(0, 700), Buffer.from('not at all'), whole.subarray(512)]) {
      const { trouble, parts } = await readBytes(bytes, mediaType)
      // Words come out, or it is said why none do.
      expect(trouble ?? parts.length).toBeDefined()
      if (trouble) expect(trouble).toMatch(/^[A-Z].*\.$/s)
    }
  })

  it('skips what nobody reads in rich text, whatever code page it names', async () => {
    const rtf = String.raw`{\rtf1\ansi\ansicpg99999{\fonttbl{\f0 Secretfont;}}{\info{\title Hidden}}{\*\unknown gone}Caf\'e9 \u37321?\par{\pict 00ff}end}`
    const { text } = await readBytes(Buffer.from(rtf), 'application/rtf')
    expect(text).toContain('釉')
    expect(text).toContain('end')
    for (const unseen of ['Secretfont', 'Hidden', 'gone', '00ff']) expect(text).not.toContain(unseen)
  })
})

describe('where the machine has programs for it', () => {
  /** A program as a script of the shell, that is given what the real one would be. */
  async function program(name: string, ...lines: string[]): Promise<string> {
    await writeFile(at(name), ['#!/bin/sh', ...lines].join('\n'))
    await chmod(at(name), 0o755)
    return at(name)
  }
  /** What became of a process whose number was written down; it may still be there as a zombie until its parent has heard of it. */
  const stateOf = async (name: string) =>
    readFile(`/proc/${Number(await readFile(at(name), 'utf8'))}/stat`, 'utf8').then(
      text => text.split(') ')[1]![0],
      () => 'gone',
    )
  const OUT = 'while [ $# -gt 1 ]; do [ "$1" = --outdir ] && out="$2"; shift; done; mkdir -p "$out"'
  const doc = join(SAMPLES, 'glazes.doc')

  it('documents have their pages drawn, with words by page', async () => {
    await writeFile(
      at('ready.pdf'),
      await makePdf({ title: 'Drawn', subtitle: '', sections: [{ heading: 'One', text: ['Clay of the yard'] }] }, new Date()),
    )
    const office = await program('office', OUT, `cp ${at('ready.pdf')} "$out/any.pdf"`)
    const { facts, picture, parts, trouble } = await readAt(doc, 'application/msword', { office })
    expect(trouble).toBeUndefined()
    expect(facts).toMatchObject({ drawn: true, pages: 1 })
    expect(picture).toBe(true)
    expect(parts[0]).toMatchObject({ part: 'Page 1', body: expect.stringContaining('Clay of the yard') })
    expect((await readFile(at('pictures/pages.pdf'))).equals(await readFile(at('ready.pdf')))).toBe(true)
    // A table stays a table, with a picture of its first page.
    const sheet = await readAt(join(SAMPLES, 'prices.xls'), 'application/vnd.ms-excel', { office })
    expect(sheet).toMatchObject({ picture: true, facts: { sheets: 1 } })
    expect(sheet.facts.drawn).toBeUndefined()
    expect(sheet.text).toContain('Celadon')
  })

  it.each([
    ['fails', ['echo broken >&2', 'exit 3']],
    ['crashes', ['kill -SEGV $$']],
    ['makes nothing', ['exit 0']],
    ['makes no PDF', [OUT, 'echo no > "$out/any.pdf"']],
    ['takes all memory', ['exec tail -c 20G /dev/zero']],
    ['fills the disk', [OUT, 'cat /dev/zero > "$out/any.pdf"']],
  ])('a program that %s costs a document nothing but its pages', async (_, lines) => {
    const office = await program('bad', ...lines)
    const { text, facts, trouble } = await readAt(doc, 'application/msword', { office })
    if (!facts.drawn) {
      expect(trouble).toBeUndefined()
      expect(text).toContain('Celadon')
    } else expect(trouble).toMatch(/PDF/)
  })

  it('nothing that a program has started outlives it', async () => {
    const office = await program('leaves', `sleep 300 & echo $! > ${at('left')}`, 'exit 1')
    await readAt(doc, 'application/msword', { office })
    // What is killed ends a moment later where others have the processor (signal(7)).
    await expect.poll(() => stateOf('left')).toMatch(/^(gone|Z)$/)
  })

  it('a program that hangs is ended, with what it started', async () => {
    const limits = { folder, file: doc, seconds: 2, memory: 1e9, largest: 1e6 }
    const hanging = runLimited({}, '/bin/sh', ['-c', `sleep 300 & echo $! > ${at('slept')}; wait`], limits)
    await expect(hanging).rejects.toThrow('it took longer than 2 seconds')
    await expect.poll(() => stateOf('slept')).toMatch(/^(gone|Z)$/)
  })

  it('films have a still', async () => {
    await sharp({ create: { width: 320, height: 180, channels: 3, background: { r: 20, g: 140, b: 60 } } })
      .png()
      .toFile(at('ready.png'))
    const film = await program('film', 'for last; do :; done', `cp ${at('ready.png')} "$last"`)
    // Four seconds of nothing, by a header of one box each (ISO/IEC 14496-12).
    const { picture, facts } = await readBytes(Buffer.from('\0\0\0\x18ftypisom\0\0\0\0isommp42', 'latin1'), 'video/mp4', { film })
    expect(picture).toBe(true)
    expect(facts.cover).toEqual({ width: 320, height: 180 })
  })
})

it('a kind of film that no library knows is no fault of the film', async () => {
  // A list of chunks as AVI begins with one (RIFF).
  const { trouble } = await readBytes(
    Buffer.concat([Buffer.from('RIFF'), Buffer.alloc(4), Buffer.from('AVI LIST'), Buffer.alloc(64)]),
    'video/vnd.avi',
  )
  expect(trouble).toBeUndefined()
})

describe('archives', () => {
  const FILES = [
    { name: 'a.txt', size: 5, locked: false },
    { name: 'sub/größe ä.txt', size: 2000, locked: false },
  ]
  async function listed(name: string, mediaType: string) {
    const contents = await contentsOf(at(name), mediaType)
    return contents.kind === 'entries' ? contents.entries.toSorted((a, b) => (a.name < b.name ? -1 : 1)) : contents
  }

  // Written by GNU tar and 7-Zip, which list them the same way.
  it.each([
    ['x.tar', 'application/x-tar', () => run('tar', 'cf', 'x.tar', 'a.txt', 'sub')],
    ['x.tgz', 'application/gzip', () => run('tar', 'czf', 'x.tgz', 'a.txt', 'sub')],
    ['x.7z', 'application/x-7z-compressed', () => run('7z', 'a', '-bd', 'x.7z', 'a.txt', 'sub')],
  ])('%s: its files with their sizes, found by their names', async (name, mediaType, make) => {
    make()
    expect(await listed(name, mediaType)).toEqual(FILES)
    const { facts, text } = await readAt(at(name), mediaType)
    expect(facts.entries).toBe(2)
    expect(text).toContain('größe')
  })

  it.each([
    ['gzip', 'a.txt.gz', 'application/gzip', () => run('gzip', '-kf', 'a.txt')],
    ['bzip2', 'a.txt.bz2', 'application/x-bzip2', () => run('bzip2', '-kf', 'a.txt')],
    ['xz', 'a.txt.xz', 'application/x-xz', () => run('xz', '-kf', 'a.txt')],
  ])('one file packed by %s is that file', async (_, name, mediaType, make) => {
    make()
    const contents = await contentsOf(at(name), mediaType)
    expect(contents).toMatchObject({ kind: 'entries', entries: [{ locked: false }] })
  })

  it('says of a locked one which files are, and where even their names are', async () => {
    run('7z', 'a', '-bd', '-psecret', 'locked.7z', 'a.txt')
    expect(await listed('locked.7z', 'application/x-7z-compressed')).toEqual([{ name: 'a.txt', size: 5, locked: true }])
    run('7z', 'a', '-bd', '-psecret', '-mhe=on', 'hidden.7z', 'a.txt')
    await expect(contentsOf(at('hidden.7z'), 'application/x-7z-compressed')).rejects.toThrow(/password|damaged/)
  })

  /** A rar of version 4 whose files are stored (technical note of its maker: headers with the lower half of their CRC-32). */
  function rar(name: string, content: Buffer): Buffer {
    const header = (type: number, flags: number, rest: Buffer, more: Uint8Array = Buffer.alloc(0)) => {
      const head = Buffer.alloc(7)
      head.writeUInt8(type, 2)
      head.writeUInt16LE(flags, 3)
      head.writeUInt16LE(7 + rest.length, 5)
      const whole = Buffer.concat([head, rest])
      whole.writeUInt16LE(crc32(whole.subarray(2)) & 0xffff, 0)
      return Buffer.concat([whole, more])
    }
    const rest = Buffer.alloc(25)
    rest.writeUInt32LE(content.length, 0)
    rest.writeUInt32LE(content.length, 4)
    rest.writeUInt8(3, 8)
    rest.writeUInt32LE(crc32(content), 9)
    rest.writeUInt8(20, 17)
    rest.writeUInt8(0x30, 18)
    rest.writeUInt16LE(name.length, 19)
    return Buffer.concat([
      Buffer.from('Rar!\x1a\x07\x00', 'latin1'),
      header(0x73, 0, Buffer.alloc(6)),
      header(0x74, 0x8000, Buffer.concat([rest, Buffer.from(name)]), content),
    ])
  }
  it('rar: its files', async () => {
    await writeFile(at('x.rar'), rar('a.txt', Buffer.from('hello')))
    expect(await listed('x.rar', 'application/vnd.rar')).toEqual([{ name: 'a.txt', size: 5, locked: false }])
  })

  it.each(['application/x-tar', 'application/gzip', 'application/x-7z-compressed', 'application/vnd.rar'])(
    'of %s that are none, or cut off, are refused with the reason',
    async mediaType => {
      run('7z', 'a', '-bd', 'whole.7z', 'a.txt', 'sub')
      for (const bytes of [Buffer.from('no archive'), (await readFile(at('whole.7z'))).subarray(0, 60), Buffer.from([0x1f, 0x8b, 8, 0])]) {
        const { trouble } = await readBytes(bytes, mediaType)
        expect(trouble).toMatch(/archive|read/)
      }
    },
  )
})

describe('pictures that browsers do not show', () => {
  /** 24 bits a pixel, rows from the bottom (Windows bitmap, BITMAPINFOHEADER). */
  function bmp(width: number, height: number, colour: [number, number, number], claims = { width, height }): Buffer {
    const row = Math.ceil((width * 3) / 4) * 4
    const bytes = Buffer.alloc(54 + row * height)
    bytes.write('BM')
    bytes.writeUInt32LE(bytes.length, 2)
    bytes.writeUInt32LE(54, 10)
    bytes.writeUInt32LE(40, 14)
    bytes.writeInt32LE(claims.width, 18)
    bytes.writeInt32LE(claims.height, 22)
    bytes.writeUInt16LE(1, 26)
    bytes.writeUInt16LE(24, 28)
    for (let y = 0; y < height; y++) for (let x = 0; x < width; x++) bytes.set(colour.toReversed(), 54 + y * row + x * 3)
    return bytes
  }
  const meanOf = async () => (await sharp(at('pictures/first.webp')).stats()).channels.slice(0, 3).map(({ mean }) => Math.round(mean))
  const near = (mean: number[], colour: number[]) => mean.every((value, index) => Math.abs(value - colour[index]!) < 6)

  it('BMP is drawn in its colours', async () => {
    const { facts, picture } = await readBytes(bmp(70, 50, [200, 60, 20]), 'image/bmp')
    expect([facts.width, facts.height, picture]).toEqual([70, 50, true])
    expect(near(await meanOf(), [200, 60, 20])).toBe(true)
  })

  it('HEIC as cameras write it is drawn in its colours', async () => {
    await sharp({ create: { width: 128, height: 96, channels: 3, background: { r: 30, g: 120, b: 200 } } })
      .png()
      .toFile(at('sky.png'))
    run('heif-enc', '-q', '95', 'sky.png', '-o', 'sky.heic')
    const { facts, picture, trouble } = await readAt(at('sky.heic'), 'image/heic')
    expect(trouble).toBeUndefined()
    expect([facts.width, facts.height, picture]).toEqual([128, 96, true])
    expect(near(await meanOf(), [30, 120, 200])).toBe(true)
  })

  it('AVIF in the container of HEIC is read as AVIF', async () => {
    const avif = await sharp({ create: { width: 64, height: 48, channels: 3, background: { r: 20, g: 160, b: 90 } } })
      .avif()
      .toBuffer()
    // Its first brand says no more than what container it is.
    avif.write('mif1', 8)
    const { facts, picture, trouble } = await readBytes(avif, 'image/avif')
    expect(trouble).toBeUndefined()
    expect([facts.width, facts.height, picture]).toEqual([64, 48, true])
  })

  it('that claim 900 million pixels, or hold none, are refused before any is decoded', async () => {
    const huge = await readBytes(bmp(10, 10, [0, 0, 0], { width: 30_000, height: 30_000 }), 'image/bmp')
    expect(huge.trouble).toContain('900 million pixels')
    const heic = await readFile(at('sky.heic'))
    // The extent of the picture stands in `ispe` (ISO/IEC 23008-12, 6.5.3).
    const place = heic.indexOf('ispe')
    heic.writeUInt32BE(30_000, place + 8)
    heic.writeUInt32BE(30_000, place + 12)
    expect((await readBytes(heic, 'image/heic')).trouble).toMatch(/900 million pixels|cannot be read/)
    for (const bytes of [heic.subarray(0, 200), Buffer.from('BM'), Buffer.from('\0\0\0\x18ftypheic\0\0\0\0')])
      expect((await readBytes(bytes, 'image/heic')).trouble).toMatch(/./)
  })
})

describe('messages that were kept as files', () => {
  // Written, and read once more, by Python's own email package.
  const script = `
import email, email.policy, json, sys
from email.message import EmailMessage
def made(kind):
    m = EmailMessage()
    m['Subject'] = 'Größe der Öfen:釉薬'
    m['From'] = 'Zoë Glaze <zoe@kiln-row.example>'
    m['To'] = 'Büro <office@marlpit.example>, yard@marlpit.example'
    if kind == 'html':
        m.set_content('<p>Der <b>Brenn</b>plan &amp; die Größe</p><script>no()</script>', subtype='html')
    elif kind == 'latin':
        m.set_content('Crème brûlée bei 1280 Grad\\n', charset='iso-8859-1', cte='quoted-printable')
    else:
        m.set_content('Anbei der Plan für zwölf Öfen, 釉薬.\\n', cte='base64')
        m.add_attachment(b'%PDF-1.7', maintype='application', subtype='pdf', filename='Brennplan März.pdf')
    return m.as_bytes()
raw = made(sys.argv[1])
open(sys.argv[2], 'wb').write(raw)
m = email.message_from_bytes(raw, policy=email.policy.default)
print(json.dumps([str(m['Subject']), str(m['From']), m.get_body(('plain', 'html')).get_content(), [a.get_filename() for a in m.iter_attachments()]]))
`
  it.each(['plain', 'latin', 'html'])('%s: every word that Python finds in it is found', async kind => {
    const path = at(`${kind}.eml`)
    const [subject, from, body, attached] = JSON.parse(run('python3', '-c', script, kind, path).toString()) as [
      string,
      string,
      string,
      string[],
    ]
    const { text, facts, trouble } = await readAt(path, 'message/rfc822')
    expect(trouble).toBeUndefined()
    expect(facts.documentTitle).toBe(subject)
    const words = [
      subject,
      from,
      body
        .replace(/<script.*script>/, '')
        .replace(/<[^>]+>/g, '')
        .replace('&amp;', '&'),
      ...attached,
    ].join(' ')
    for (const word of words.match(/[\p{L}\p{N}@.]+/gu)!) expect(text).toContain(word)
    expect(text).not.toContain('no()')
  })
})
