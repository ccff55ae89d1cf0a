import { execFileSync } from 'node:child_process'
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buffer } from 'node:stream/consumers'
import PDFDocument from 'pdfkit'
import { strToU8, zipSync, type Zippable } from 'fflate'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { makeForm, makeSheet } from '../../demo/office'
import { makePdf } from '../../demo/pdf'
import { makeTone } from '../../demo/pictures'
import { contentsOf } from './look'
import { read, type ReadPart } from './read'

const OOXML = 'application/vnd.openxmlformats-officedocument.'
const WORD = `${OOXML}wordprocessingml.document`
const SHEET = `${OOXML}spreadsheetml.sheet`

let folder: string
let path: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-read-'))
  path = join(folder, 'blob')
})
afterAll(() => rm(folder, { recursive: true }))

async function readBytes(bytes: Buffer | Uint8Array | string, mediaType: string) {
  await writeFile(path, bytes)
  const parts: ReadPart[] = []
  const result = await read(
    { path, mediaType, picture: join(folder, 'pictures/first.webp'), pages: join(folder, 'pictures/pages.pdf'), programs: {} },
    async found => void parts.push(...found),
  )
  return { ...result, parts }
}
const zip = (files: Zippable) => zipSync(files)

describe('reading a book', () => {
  /** As EPUB 3.3 lays one out. */
  const book = (chapters: Record<string, string>, spine: string[]) =>
    zip({
      'mimetype': strToU8('application/epub+zip'),
      'META-INF/container.xml': strToU8('<container><rootfiles><rootfile full-path="OEBPS/book.opf"/></rootfiles></container>'),
      'OEBPS/book.opf': strToU8(
        `<package><metadata><dc:title xmlns:dc="d">Of clay</dc:title><dc:creator xmlns:dc="d">The yard</dc:creator></metadata><manifest>${Object.keys(
          chapters,
        )
          .map((name, index) => `<item id="c${index}" href="${encodeURI(name)}"/>`)
          .join('')}</manifest><spine>${spine.map(id => `<itemref idref="${id}"/>`).join('')}</spine></package>`,
      ),
      ...Object.fromEntries(Object.entries(chapters).map(([name, html]) => [`OEBPS/${name}`, strToU8(html)])),
    })

  it('finds the words of its chapters in the order they are read, and nothing that would run', async () => {
    const chapters = {
      'two words.xhtml': '<html><head><title>T</title></head><body><h1>Glazes</h1><p>Ash&nbsp;&amp; bone</p></body></html>',
      'one.xhtml': '<html><body><script>alert(1)</script><img src="https://elsewhere.example/x.png"/><p>Clay</p></body></html>',
    }
    const { facts, parts, trouble } = await readBytes(book(chapters, ['c1', 'c0', 'gone']), 'application/epub+zip')
    expect(trouble).toBeUndefined()
    expect(facts).toMatchObject({ documentTitle: 'Of clay', author: 'The yard' })
    expect(parts.map(({ part, words }) => [part, words])).toEqual([
      ['Chapter 1', ['clay']],
      ['Chapter 2', ['glazes', 'ash', 'bone']],
    ])
  })

  it('says what is wrong with one that is none', async () => {
    expect((await readBytes(zip({ mimetype: strToU8('application/epub+zip') }), 'application/epub+zip')).trouble).toMatch(/damaged/)
  })
})

describe('reading a PDF', () => {
  it('says of one whose pages are pictures that it has no words', async () => {
    const document = new PDFDocument()
    document.rect(40, 40, 200, 100).fill('#345').addPage().rect(0, 0, 9, 9).fill('#345').end()
    expect((await readBytes(await buffer(document), 'application/pdf')).facts).toMatchObject({ pages: 2, scanned: true })
    const written = await makePdf({ title: 'Clay', subtitle: '', sections: [{ heading: 'One' }] }, new Date('2026-11-02'))
    expect((await readBytes(written, 'application/pdf')).facts.scanned).toBeUndefined()
  })

  it('counts its pages, draws the first, and finds title, author, date and words', async () => {
    const sections = Array.from({ length: 9 }, (_, index) => ({
      heading: `Part ${index}`,
      text: Array.from({ length: 20 }, () => 'Clay and glaze. '.repeat(30)),
    }))
    const bytes = await makePdf({ title: 'Ön clay', subtitle: '', sections }, new Date('2026-11-02T09:00:00Z'))
    // The page tree of an uncompressed PDF says how many pages it has (ISO 32000-1, 7.7.3.2).
    const count = Number(/\/Type \/Pages\s*\/Count (\d+)/.exec(bytes.toString('latin1'))![1])
    const { facts, picture, parts } = await readBytes(bytes, 'application/pdf')
    expect(count).toBeGreaterThan(5)
    expect(facts).toMatchObject({ pages: count, documentTitle: 'Ön clay', author: 'Marlpit Pottery Supply', dated: '2026-11-02' })
    expect(parts.map(part => part.part)).toEqual(Array.from({ length: count }, (_, index) => `Page ${index + 1}`))
    expect(parts[0]!.words).toEqual(expect.arrayContaining(['on', 'clay', 'glaze']))
    expect(picture).toBe(true)
    const { width, height } = await sharp(join(folder, 'pictures/first.webp')).metadata()
    // A4 is 210 by 297 mm (ISO 216).
    expect(height / width).toBeCloseTo(297 / 210, 1)
  })

  it.each([
    ['cut off', '%PDF-1.7 and nothing more', /damaged or cut off/],
    [
      'without pages',
      '%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj 2 0 obj<</Type/Pages/Kids[]/Count 0>>endobj trailer<</Root 1 0 R>>',
      /no pages|damaged/,
    ],
  ])('says what is wrong with one %s', async (_, bytes, words) => {
    expect((await readBytes(bytes, 'application/pdf')).trouble).toMatch(words)
  })

  it('of 5,000 pages is read to its end', async () => {
    const kids = Array.from({ length: 5000 }, (_, index) => `${index + 10} 0 R`).join(' ')
    const pages = Array.from(
      { length: 5000 },
      (_, index) =>
        `${index + 10} 0 obj<</Type/Page/Parent 2 0 R/MediaBox[0 0 200 200]/Contents 4 0 R/Resources<</Font<</F 5 0 R>>>>>>endobj`,
    ).join('\n')
    const content = 'BT /F 12 Tf 20 100 Td (Kiln page) Tj ET'
    const bytes = `%PDF-1.4\n1 0 obj<</Type/Catalog/Pages 2 0 R>>endobj\n2 0 obj<</Type/Pages/Kids[${kids}]/Count 5000>>endobj\n4 0 obj<</Length ${content.length}>>stream\n${content}\nendstream endobj\n5 0 obj<</Type/Font/Subtype/Type1/BaseFont/Helvetica>>endobj\n${pages}\ntrailer<</Root 1 0 R>>`
    const { facts, parts, trouble } = await readBytes(bytes, 'application/pdf')
    expect([facts.pages, parts.length, trouble]).toEqual([5000, 5000, undefined])
    expect(parts.at(-1)).toMatchObject({ part: 'Page 5000', words: ['kiln', 'page'] })
  })

  it('says that one is locked', async () => {
    // qpdf locks it, as an office program would.
    await writeFile(join(folder, 'open.pdf'), await makePdf({ title: 'Locked', subtitle: '', sections: [] }, new Date(0)))
    execFileSync('qpdf', ['--encrypt', 'secret', 'secret', '256', '--', join(folder, 'open.pdf'), join(folder, 'locked.pdf')])
    expect((await readBytes(await readFile(join(folder, 'locked.pdf')), 'application/pdf')).trouble).toMatch(/locked with a password/)
  })
})

describe('reading a picture', () => {
  it('measures it as it is seen, turned by its Exif orientation', async () => {
    const picture = sharp({ create: { width: 60, height: 40, channels: 3, background: '#0E6A68' } }).jpeg()
    expect((await readBytes(await picture.clone().toBuffer(), 'image/jpeg')).facts).toEqual({ width: 60, height: 40 })
    expect((await readBytes(await picture.withMetadata({ orientation: 6 }).toBuffer(), 'image/jpeg')).facts).toEqual({
      width: 40,
      height: 60,
    })
  })

  it('of 30,000 by 30,000 pixels is measured and not drawn', async () => {
    const svg = '<svg xmlns="http://www.w3.org/2000/svg" width="30000" height="30000"><rect width="9" height="9"/></svg>'
    const { facts, picture, trouble } = await readBytes(svg, 'image/svg+xml')
    expect(facts).toEqual({ width: 30000, height: 30000 })
    expect([picture, trouble]).toEqual([false, expect.stringMatching(/900 million pixels/)])
  })

  it('that is none is said to be none', async () => {
    expect((await readBytes('no picture', 'image/png')).trouble).toMatch(/could not be read/)
  })
})

describe('reading office documents', () => {
  it('finds the words and title of a DOCX that another library made', async () => {
    const { facts, parts } = await readBytes(await makeForm('Joining form', 'Fill this in.', ['Name', 'Kiln size']), WORD)
    expect(facts).toMatchObject({
      documentTitle: 'Joining form',
      author: 'Marlpit Pottery Supply',
      dated: expect.stringMatching(/^\d{4}-\d\d-\d\d$/),
    })
    expect(parts.map(part => part.body).join()).toMatch(/Joining form[\s\S]*Fill this in\.[\s\S]*Kiln size/)
  })

  it('finds the cells of an XLSX that another library made, and shows it as a table', async () => {
    const { facts, parts } = await readBytes(
      await makeSheet([
        ['Glaze', 'Feldspar'],
        ['Tenmoku', 48.5],
      ]),
      SHEET,
    )
    expect(facts.sheets).toBe(1)
    expect(parts[0]!.body).toContain('Tenmoku\t48.5')
    expect(await contentsOf(path, SHEET)).toEqual({
      kind: 'sheets',
      sheets: [
        {
          name: expect.any(String),
          rows: [
            ['Glaze', 'Feldspar'],
            ['Tenmoku', '48.5'],
          ],
          cut: false,
        },
      ],
    })
  })

  const workbook = (sheet: string, more: Zippable = {}) =>
    zip({
      'xl/workbook.xml': strToU8('<workbook xmlns:r="r"><sheets><sheet name="Dates &amp; more" r:id="rId1"/></sheets></workbook>'),
      'xl/_rels/workbook.xml.rels': strToU8('<Relationships><Relationship Id="rId1" Target="worksheets/one.xml"/></Relationships>'),
      'xl/worksheets/one.xml': strToU8(`<worksheet><sheetData>${sheet}</sheetData></worksheet>`),
      ...more,
    })

  it('reads dates, shared and inline texts and gaps in a sheet (ECMA-376 part 1, 18)', async () => {
    await writeFile(
      path,
      workbook(
        '<row><c r="A1" t="s"><v>0</v></c><c r="C1" t="s"><v>1</v></c></row><row><c r="A2" s="1"><v>39448</v></c><c r="B2" s="2"><v>39448</v></c><c t="inlineStr"><is><t>inline</t></is></c><c r="E2" t="b"><v>1</v></c></row>',
        {
          'xl/styles.xml': strToU8(
            '<styleSheet><numFmts><numFmt numFmtId="170" formatCode="dd/mm/yyyy"/><numFmt numFmtId="171" formatCode="&quot;day&quot; 0.0"/></numFmts><cellXfs><xf numFmtId="0"/><xf numFmtId="170"/><xf numFmtId="171"/></cellXfs></styleSheet>',
          ),
          'xl/sharedStrings.xml': strToU8('<sst><si><t>Kiln</t></si><si><r><t>K</t></r><r><t>60</t></r><rPh><t>no</t></rPh></si></sst>'),
        },
      ),
    )
    // 39448 is 1 January 2008 (the example of ECMA-376 part 1, 18.17.4.1, from memory).
    expect(await contentsOf(path, SHEET)).toEqual({
      kind: 'sheets',
      sheets: [
        {
          name: 'Dates & more',
          cut: false,
          rows: [
            ['Kiln', '', 'K60'],
            ['2008-01-01', '39448', 'inline', '', 'TRUE'],
          ],
        },
      ],
    })
  })

  it('reads a sheet of a million rows within its bounds', async () => {
    const { facts, trouble } = await readBytes(workbook('<row><c><v>1</v></c></row>'.repeat(1_000_000)), SHEET)
    expect([facts.sheets, trouble]).toEqual([1, undefined])
    expect(await contentsOf(path, SHEET)).toMatchObject({ sheets: [{ rows: { length: 500 }, cut: true }] })
  })

  it('refuses entities that multiply, in every reader', async () => {
    const bomb =
      '<?xml version="1.0"?><!DOCTYPE d [<!ENTITY a "aaaaaaaaaa"><!ENTITY b "&a;&a;&a;&a;">]><document><p><t>&b;</t></p></document>'
    expect((await readBytes(zip({ 'word/document.xml': strToU8(bomb) }), WORD)).trouble).toMatch(/entities of its own/)
    await expect(contentsOf(path, WORD)).rejects.toThrow(/entities of its own/)
  })

  it('reads slides in their order', async () => {
    const slide = (words: string) => strToU8(`<p:sld xmlns:a="a" xmlns:p="p"><a:p><a:r><a:t>${words}</a:t></a:r></a:p></p:sld>`)
    const { facts, parts } = await readBytes(
      zip({ 'ppt/slides/slide10.xml': slide('ten'), 'ppt/slides/slide2.xml': slide('two') }),
      `${OOXML}presentationml.presentation`,
    )
    expect(facts.pages).toBe(2)
    expect(parts.map(({ part, body }) => [part, body.trim()])).toEqual([
      ['Slide 1', 'two'],
      ['Slide 2', 'ten'],
    ])
  })

  it('reads OpenDocument text and sheets', async () => {
    const meta = strToU8(
      '<office:document-meta xmlns:office="o" xmlns:dc="d"><office:meta><dc:title>Hours</dc:title><dc:date>2026-10-01T10:00:00</dc:date></office:meta></office:document-meta>',
    )
    const text = strToU8(
      '<office:document-content xmlns:office="o" xmlns:text="t"><text:h>Opening</text:h><text:p>eight <text:span>to</text:span> five</text:p></office:document-content>',
    )
    expect(await readBytes(zip({ 'meta.xml': meta, 'content.xml': text }), 'application/vnd.oasis.opendocument.text')).toMatchObject({
      facts: { documentTitle: 'Hours', dated: '2026-10-01' },
      parts: [{ part: '', body: 'Opening\neight to five\n' }],
    })
    const table = strToU8(
      '<o xmlns:table="t" xmlns:text="x"><table:table table:name="Stock"><table:table-row><table:table-cell><text:p>C1</text:p></table:table-cell><table:table-cell table:number-columns-repeated="2"/><table:table-cell><text:p>9</text:p></table:table-cell></table:table-row></table:table></o>',
    )
    await writeFile(path, zip({ 'content.xml': table }))
    expect(await contentsOf(path, 'application/vnd.oasis.opendocument.spreadsheet')).toEqual({
      kind: 'sheets',
      sheets: [{ name: 'Stock', cut: false, rows: [['C1', '', '', '9']] }],
    })
  })
})

describe('reading zips', () => {
  // Python's zipfile is the reference: it writes what its own reader, and `unzip`, understand.
  const python = (script: string) =>
    execFileSync('python3', ['-c', `import zipfile, warnings\nwarnings.simplefilter('ignore')\n${script}`, path], { encoding: 'utf8' })

  it('lists the same names and sizes as Python and unzip', async () => {
    python(`
z = zipfile.ZipFile(__import__('sys').argv[1], 'w', zipfile.ZIP_DEFLATED)
for name in ['a.txt', 'Ümläut/ﬁle 🏺.pdf', 'deep/er/x', 'empty/']: z.writestr(name, name * 9)
z.close()`)
    const contents = await contentsOf(path, 'application/zip')
    const ours = contents.kind === 'entries' ? contents.entries.map(({ name, size }) => `${name} ${size}`) : []
    const theirs = python(`
for i in zipfile.ZipFile(__import__('sys').argv[1]).infolist():
    if not i.filename.endswith('/'): print(i.filename, i.file_size)`)
      .trim()
      .split('\n')
    expect(ours).toEqual(theirs)
    const listed = execFileSync('unzip', ['-l', path], { encoding: 'utf8' })
    expect(Number(/(\d+) files?$/m.exec(listed)![1])).toBe(ours.length + 1)
    const { facts, parts } = await readBytes(await readFile(path), 'application/zip')
    expect(facts.entries).toBe(3)
    expect(parts[0]!.words).toContain('umlaut')
  })

  it('reads names in code page 437 where they are not UTF-8, and marks locked entries', async () => {
    const bytes = Buffer.from(zip({ 'caf?.txt': strToU8('x') }))
    for (let at = bytes.indexOf('caf?'); at >= 0; at = bytes.indexOf('caf?', at + 1)) bytes[at + 3] = 0x82
    // Bit 0 of the general purpose flags: encrypted (APPNOTE.TXT 4.4.4).
    bytes[bytes.indexOf(Buffer.from([0x50, 0x4b, 1, 2])) + 8]! |= 1
    await writeFile(path, bytes)
    expect(await contentsOf(path, 'application/zip')).toEqual({
      kind: 'entries',
      cut: false,
      entries: [{ name: 'café.txt', size: 1, locked: true }],
    })
  })

  it('says that one is damaged', async () => {
    expect((await readBytes(zip({ 'a.txt': strToU8('x') }).subarray(0, 30), 'application/zip')).trouble).toMatch(/damaged or cut off/)
  })
})

describe('reading the rest', () => {
  it('finds words of HTML that people see', async () => {
    const { facts, parts } = await readBytes(
      '<title>Kiln &amp; clay</title><style>p{}</style><p>Fire <b>slow</b>ly</p><script>var hidden</script>',
      'text/html',
    )
    expect(facts.documentTitle).toBe('Kiln & clay')
    expect(parts[0]!.words).toEqual(['fire', 'slowly'])
  })

  it('knows how long a sound lasts', async () => {
    const bytes = makeTone()
    // Bytes of the data chunk over bytes a second (RIFF WAVE, fields at 40 and 28).
    expect((await readBytes(bytes, 'audio/wav')).facts.seconds).toBeCloseTo(bytes.readUInt32LE(40) / bytes.readUInt32LE(28), 1)
  })

  it('keeps the beginning of what has no picture', async () => {
    expect((await readBytes('Hello\0 there', 'text/plain')).facts.excerpt).toBe('Hello  there')
  })

  it('has nothing to say of other types', async () =>
    expect(await readBytes('x', 'application/x-unheard-of')).toEqual({ facts: {}, picture: false, parts: [] }))

  it('shows text, Markdown, CSV', async () => {
    await writeFile(path, '# Hi\n<script>x</script>')
    expect(await contentsOf(path, 'text/markdown')).toEqual({
      kind: 'document',
      html: '<h2>Hi</h2>\n<p>&lt;script&gt;x&lt;/script&gt;</p>\n',
    })
    expect(await contentsOf(path, 'text/plain')).toMatchObject({ kind: 'text', cut: false })
    // RFC 4180, section 2: quotes, doubled quotes, line breaks within them.
    await writeFile(path, 'a,"b ""b"""\r\n"c\r\nc",d')
    expect(await contentsOf(path, 'text/csv')).toMatchObject({
      sheets: [
        {
          rows: [
            ['a', 'b "b"'],
            ['c\r\nc', 'd'],
          ],
        },
      ],
    })
  })
})

describe('text of real PDFs', () => {
  // Those that `npm test` installs by name.
  it.each(
    ['bzip2/manual.pdf.gz', 'libtasn1-doc/libtasn1.pdf', 'shared-mime-info/shared-mime-info-spec.pdf'].map(
      name => `/usr/share/doc/${name}`,
    ),
  )('%s has the words pdftotext finds', async manual => {
    execFileSync('sh', ['-c', 'case "$1" in *.gz) gzip -dc "$1";; *) cat "$1";; esac > "$2"', 'sh', manual, path])
    const { parts } = await readBytes(await readFile(path), 'application/pdf')
    const words = (text: string) => new Set(text.toLowerCase().match(/[a-z]{3,}/g))
    const ours = words(parts.map(part => part.body).join(' '))
    const theirs = words(execFileSync('pdftotext', [path, '-'], { encoding: 'utf8', maxBuffer: 1e9 }))
    const found = [...theirs].filter(word => ours.has(word)).length
    expect(found / Math.max(1, theirs.size)).toBeGreaterThan(0.97)
  })
})
