import { execFile } from 'node:child_process'
import { buffer } from 'node:stream/consumers'
import { promisify } from 'node:util'
import { Document, HeadingLevel, Packer, Paragraph } from 'docx'
import PDFDocument from 'pdfkit'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { PLAIN_SEE, type SeeQuery } from '../../../core/see/seeAddress'
import { button, pageOf } from '../../../core/testing/pages'
import { STRANGER, openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

/** A PDF with the lines of each page, its pages turned by some degrees. */
function pdf(pages: string[][], turned = 0): Promise<Buffer> {
  const document = new PDFDocument({ autoFirstPage: false, size: 'A4' })
  for (const lines of pages) {
    document.addPage()
    if (turned) Object.assign(document.page.dictionary.data, { Rotate: turned })
    for (const line of lines) document.fontSize(20).text(line)
  }
  document.end()
  return buffer(document)
}

async function see(handle: string, query: Partial<SeeQuery> = {}): Promise<string> {
  const seen = await test.trough.seeing.find(STRANGER, handle, { ...PLAIN_SEE, ...query })
  if ('moved' in seen) throw new Error(`moved to ${seen.moved}`)
  return (await seen.made(undefined)).bytes.toString()
}
const statusOf = (handle: string) =>
  test.trough.seeing.find(STRANGER, handle, PLAIN_SEE).then(
    () => 200,
    (error: { status: number }) => error.status,
  )

describe('a look at a PDF', () => {
  it('shows the page asked for with its words, the last for one behind it', async () => {
    await test.put('manual.pdf', await pdf([['First steps'], ['Then the kiln'], ['At last']]))
    await test.trough.reading.idle()
    expect(await see('manual.pdf')).toContain('First steps')
    expect(await see('manual.pdf', { page: 2 })).toContain('Then the kiln')
    const last = await see('manual.pdf', { page: 1e8 })
    expect(last).toContain('At last')
    expect(last).not.toContain('rel="next"')
    expect((await test.trough.pictures.find('manual.pdf', 960, { page: 2 })).representation.contentType).toBe('image/webp')
    for (const page of [4, -1, 1.5])
      await expect(test.trough.pictures.find('manual.pdf', 960, { page })).rejects.toMatchObject({ status: 404 })
  })

  it('begins at the first page with what is looked for, and lists them all', async () => {
    const html = await see('manual.pdf', { find: 'KILN' })
    expect(html).toContain('Page 2 of Manual')
    expect(html.match(/aria-current="page">Page 2</)).not.toBeNull()
    expect(await see('manual.pdf', { find: "'; drop table files; --" })).toContain('is not in this file')
    expect(await see('manual.pdf', { find: '\\d+(' })).toContain('is not in this file')
  })

  it('says to search engines what it is, also where its owner said nothing', async () => {
    const file = await test.put('bare.csv', 'a,b\n1,2\n')
    await test.trough.reading.idle()
    expect(await see(file.handle)).toMatch(/<meta name="description" content="CSV · 8 B · /)
    await test.trough.library.change(file.id, { description: 'All of it' })
    expect(await see(file.handle)).toContain('<meta name="description" content="All of it">')
  })

  // Poppler's pdftotext, which tells where each word stands, in points from the upper left corner of the page as it is seen.
  it.each([0, 90])('marks words where another reader of PDFs finds them, on pages turned by %d degrees', async turned => {
    const name = `turned-${turned}.pdf`
    const file = await test.put(name, await pdf([['The kiln and the glaze', 'fire kilns slowly']], turned))
    await test.trough.reading.idle()
    const boxes = await test.trough.looking.places(file, 1, ['kiln'])
    const { stdout } = await test.trough.dataFolder.store.withFile(file.sha256, path =>
      promisify(execFile)('pdftotext', ['-bbox', path, '-']),
    )
    // It tells the extent of a page as it is before it is turned.
    const extent = /<page width="([\d.]+)" height="([\d.]+)"/.exec(stdout)!.slice(1).map(Number)
    const [width, height] = turned ? extent.toReversed() : extent
    const words = [...stdout.matchAll(/xMin="([\d.]+)" yMin="([\d.]+)" xMax="([\d.]+)" yMax="([\d.]+)">kilns?</g)].map(found =>
      found.slice(1).map(Number),
    )
    expect(words).toHaveLength(2)
    expect(boxes).toHaveLength(2)
    const middles = boxes.map(box => ({ x: (box.x + box.width / 2) * width!, y: (box.y + box.height / 2) * height! }))
    for (const [x1, y1, x2, y2] of words) {
      expect(middles.filter(({ x, y }) => x > x1! && x < x2! && y > y1! && y < y2!)).toHaveLength(1)
    }
  })
})

describe('a look at other files', () => {
  it('shows tables, texts and what is in a bundle, and never what would run', async () => {
    await test.put('parts.csv', 'Part,Price\nLid <b>seal</b>,6\n')
    expect(await see('parts.csv')).toContain('<td>Lid &lt;b&gt;seal&lt;/b&gt;</td>')
    await test.put('page.html', '<script>alert(1)</script>')
    expect(await see('page.html')).toContain('&lt;script&gt;alert(1)&lt;/script&gt;')
    const sheet = await test.put('in.txt', 'inside')
    const bundle = await test.trough.bundles.create({ title: 'All', folder: null, files: [sheet.id], folders: [] })
    expect(await see(bundle.handle)).toContain('<td>in.txt</td>')
  })

  it('shows a document by its headings and words, with marks', async () => {
    const document = new Document({
      sections: [{ children: [new Paragraph({ text: 'Firing', heading: HeadingLevel.HEADING_1 }), new Paragraph('Fire <slowly> & well')] }],
    })
    await test.put('firing.docx', await Packer.toBuffer(document))
    const html = await see('firing.docx', { find: 'slow' })
    expect(html).toContain('<h2>Firing</h2>')
    expect(html).toContain('Fire &lt;<mark id="found">slow</mark>ly&gt; &amp; well')
  })

  it('finds other forms of a word by its stem, and words in scripts without spaces', async () => {
    await test.put('forms.txt', 'The kiln is cold.\n新しい釉薬の調合\n')
    await test.trough.reading.idle()
    expect(await see('forms.txt', { find: 'kilns' })).toContain('<mark id="found">kiln</mark> is cold')
    expect(await see('forms.txt', { find: '釉薬' })).toContain('新しい<mark id="found">釉薬</mark>の調合')
  })

  it('says so of what cannot be opened', async () => {
    await test.put('broken.docx', Buffer.from('PK\u0003\u0004 and nothing of it'))
    await test.put('unknown.bin', Buffer.from([0, 1, 2, 3]))
    for (const handle of ['broken.docx', 'unknown.bin']) expect(await see(handle)).toContain('cannot be shown here')
  })
})

describe('whether there is a look', () => {
  it('is said of the file, of its folder, of the site', async () => {
    const { library, site } = test.trough
    const trade = await library.folders.create({ name: 'Trade', parent: null })
    const file = await test.putInto('list.txt', 'prices', { folder: trade.id })
    expect(await statusOf('list.txt')).toBe(200)
    await library.folders.change(trade.id, { see: false })
    expect(await statusOf('list.txt')).toBe(404)
    await library.change(file.id, { see: true })
    expect(await statusOf('list.txt')).toBe(200)
    await library.change(file.id, { see: null })
    await library.folders.change(trade.id, { see: null })
    await site.set({ see: false })
    expect(await statusOf('list.txt')).toBe(404)
    await site.set({ see: true })
    expect(await statusOf('list.txt')).toBe(200)
  })

  it('follows the file: moved, of another edition, withdrawn, in the bin', async () => {
    const { library, seeing } = test.trough
    const file = await test.put('hours.txt', 'eight to five')
    await library.change(file.id, { handle: 'opening-hours.txt' })
    expect(await seeing.find(STRANGER, 'hours.txt', PLAIN_SEE)).toEqual({ moved: '/see/opening-hours.txt' })
    await test.putInto('hours.txt', 'nine to six', { editionOf: file.id })
    expect(await see('opening-hours.txt')).toContain('nine to six')
    await library.remove({ files: [file.id], folders: [] })
    expect(await statusOf('opening-hours.txt')).toBe(410)
    expect(await statusOf('never.txt')).toBe(404)
  })

  it('a button that leads to it leads to the file where there is none', async () => {
    const { library, pages, published } = test.trough
    const file = await test.put('guide.txt', 'a guide')
    const page = await pages.create(
      { title: 'Guides' },
      { draft: pageOf(button({ target: { kind: 'file', id: file.id }, action: 'see' })) },
    )
    await pages.publish(page.id)
    const html = async () => (await published.find('guides', undefined))!.bytes.toString()
    expect(await html()).toContain('href="/see/guide.txt?at=aaaaaaaaaa"')
    await library.change(file.id, { see: false })
    expect(await html()).toContain('href="/files/guide.txt?open&amp;at=aaaaaaaaaa"')
  })
})

it('names files beside it that visitors may find, and no others', async () => {
  const { library, pages } = test.trough
  const folder = await library.folders.create({ name: 'Sheets', parent: null })
  const put = (name: string) => test.putInto(name, name, { folder: folder.id })
  const [shown, also] = [await put('shown.txt'), await put('also.txt')]
  await put('secret.txt')
  expect(await see('shown.txt')).not.toContain('Also in')
  const buttons = [shown, also].map((file, index) => button({ placement: `bbbbbbbb${index}0`, target: { kind: 'file', id: file.id } }))
  const page = await pages.create({ title: 'Sheets' }, { draft: pageOf(...buttons) })
  await pages.publish(page.id)
  // What a folder is called that is not for visitors is nobody's business.
  expect(await see('shown.txt')).not.toMatch(/Also in|secret\.txt/)
  await library.folders.change(folder.id, { found: true })
  expect(await see('shown.txt')).toContain('href="/see/also.txt"')
  expect(await see('shown.txt')).toContain('href="/see/secret.txt"')
  await library.change(also.id, { see: false })
  expect(await see('shown.txt')).toContain('href="/files/also.txt"')
})
