import { HtmlValidate } from 'html-validate'
import { describe, expect, it } from 'vitest'
import { PDF_FACTS, ZIP_FACTS, button, linkMark, pageOf, shelf, words } from '../testing/pages'
import { renderMessage, renderPage } from './document'
import { renderBlocks, type PageFacts } from './html'
import { picksOf } from './shelf'
import { mapTargets, placementsOf } from './targets'
import { changesBetween } from './changes'
import { pageDocumentSchema, type Block, type PageDocument, type PlainBlock, type Target } from './schema'

const FILES = { pdf: PDF_FACTS, zip: ZIP_FACTS } as const
const fileOf = ({ id }: Pick<Target, 'id'>) => FILES[id as keyof typeof FILES]
const known: PageFacts = { target: fileOf, shelf: source => source.kind === 'folder' ? [PDF_FACTS] : source.ids.flatMap(id => fileOf({ id }) ?? []) }
const render = (...blocks: PageDocument['content']) => renderBlocks(pageOf(...blocks), known)

const site = { name: 'Marlpit & daughters', menu: [{ slug: '', title: 'Home' }, { slug: 'trade', title: 'Trade "A"' }] }

const validator = new HtmlValidate({ extends: ['html-validate:standard', 'html-validate:a11y'], rules: { 'doctype-style': 'off' } })
async function problemsOf(html: string): Promise<string[]> {
  const report = await validator.validateString(html)
  return report.results.flatMap(result => result.messages.map(message => `${message.ruleId}: ${message.message}`))
}

describe('a button', () => {
  it('has a root-relative address with its placement', () => {
    expect(render(button())).toContain('href="/files/list.pdf?open&amp;at=aaaaaaaaaa"')
    expect(render(button({ action: 'save' }))).toContain('href="/files/list.pdf?save&amp;at=aaaaaaaaaa"')
  })

  it('opens a tab only where that was chosen, and says so', () => {
    expect(render(button())).toMatch(/target="_blank" rel="noopener".*\(opens in a new tab\)/)
    expect(render(button({ action: 'here' }))).not.toMatch(/target=|new tab/)
  })

  it('saves what browsers must not show, whatever was chosen', () => {
    const html = render(button({ target: { kind: 'file', id: 'zip' }, action: 'tab' }))
    expect(html).toContain('?save&amp;')
    expect(html).not.toContain('target=')
  })

  it('fills its placeholders with the file as it is now', () => {
    expect(render(button({ note: '{type}, {pages}, {size}' }))).toContain('PDF, 4 pages, 240 kB')
  })

  it('speaks type and size where the visible words leave them out (WCAG 2.4.4)', () => {
    expect(render(button({ note: '', action: 'here' }))).toContain('<span class="tr-spoken"> (PDF, 240 kB)</span>')
    expect(render(button({ action: 'here' }))).not.toContain('tr-spoken')
  })

  it('that leads nowhere is not shown to visitors', () => {
    expect(render(button({ target: null }))).toBe('')
    expect(render(button({ target: { kind: 'file', id: 'binned' } }))).toBe('')
  })

  it('takes no HTML from labels', () => {
    expect(render(button({ label: '<script>alert("x")</script>&' }))).toContain('&lt;script&gt;alert(&quot;x&quot;)&lt;/script&gt;&amp;')
  })
})

describe('a link', () => {
  it('over several pieces of text is one anchor', () => {
    const mark = linkMark('bbbbbbbbbb', 'pdf')
    const html = render({ type: 'paragraph', content: [
      { type: 'text', text: 'See the ' }, { type: 'text', text: 'price ', marks: [mark] }, { type: 'text', text: 'list', marks: [{ type: 'bold' }, mark] }, { type: 'text', text: '.' },
    ] })
    expect(html.match(/<a /g)).toHaveLength(1)
    expect(html).toMatch(/<a [^>]*>price <strong>list<\/strong><span class="tr-spoken"> \(PDF, 240 kB, opens in a new tab\)<\/span><\/a>\.<\/p>/)
  })

  it('without a target leaves plain words', () => {
    expect(render(words('the list', linkMark('bbbbbbbbbb', null)))).toBe('<p>the list</p>')
  })
})

describe('a page', () => {
  const document = pageOf(
    words('Hello & welcome <b>'),
    { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Files' }] },
    { type: 'heading', attrs: { level: 3 } },
    { type: 'bulletList', content: [{ type: 'listItem', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'One' }, { type: 'hardBreak' }] }, button({ placement: 'cccccccccc' })] }] },
    { type: 'orderedList', attrs: { start: 3 }, content: [{ type: 'listItem', content: [words('Three')] }] },
    button(), button({ placement: 'dddddddddd', look: 'rim', align: 'middle' }), button({ placement: 'eeeeeeeeee', look: 'strap' }),
    words('the list', linkMark('ffffffffff', 'zip')),
  )
  const html = renderPage(site, { slug: 'trade', title: 'Trade <1>', description: 'For "trade" & <more>', document }, known)

  it('is valid HTML and passes the validator\'s accessibility rules', async () => {
    expect(await problemsOf(html)).toEqual([])
    expect(await problemsOf(renderMessage(site, 'There is no such page.', 'Look elsewhere.'))).toEqual([])
  })

  it('the validator notices a fault', async () => {
    expect(await problemsOf(html.replace('</main>', '</main><img src="x"></div>'))).not.toEqual([])
  })

  it('needs no script and names no host', () => {
    expect(html).not.toMatch(/<script|javascript:|https?:\/\//)
  })

  it('marks itself in the menu', () => expect(html).toContain('<a href="/trade" aria-current="page">'))
})

describe('a shelf', () => {
  it('lists its files with their links, and asks for a zip of those ticked by a plain form', async () => {
    const html = render(shelf())
    expect(html).toContain('<form class="tr-shelf" action="/shelves/ssssssssss" method="get">')
    expect(html).toContain('name="pick" value="pdf"')
    expect(html).toContain('href="/files/list.pdf?open&amp;at=ssssssssss" target="_blank"')
    // A zip is saved whatever was chosen.
    expect(html).toContain('href="/files/pictures.zip?save&amp;at=ssssssssss"')
    expect(await problemsOf(renderPage(site, { slug: 'a', title: 'A', description: '', document: pageOf(shelf()) }, known))).toEqual([])
  })

  it('is a plain list where there is nothing to pick among, and nothing where it has no files', () => {
    expect(render(shelf({ pick: false }))).not.toMatch(/<form|<input|<button/)
    expect(render(shelf({ source: { kind: 'folder', id: 'f', order: 'title' } }))).not.toMatch(/<form|<input|<button/)
    expect(render(shelf({ source: null }))).toBe('')
    expect(render(shelf({ source: { kind: 'files', ids: ['gone'] } }))).toBe('')
  })

  it.each([['pick=a&pick=b&pick=a', ['a', 'b']], ['', []], ['pick=a&all=', 'all'], ['all', 'all']])('reads %j from an address', (query, picks) =>
    expect(picksOf(new URLSearchParams(query))).toEqual(picks))
})

describe('layout', () => {
  const section: Block = { type: 'section', attrs: { tone: 'deep', padding: 'large', width: 'wide' }, content: [
    words('In it'),
    { type: 'columns', content: [{ type: 'column', content: [button()] }, { type: 'column', content: [{ type: 'blockquote', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Said' }] }] }] }] },
  ] }
  const row: Block = { type: 'buttonRow', attrs: { align: 'middle' }, content: [button({ placement: 'bbbbbbbbbb' }), button({ placement: 'cccccccccc', target: null })] as Extract<PlainBlock, { type: 'downloadButton' }>[] }
  const page = pageOf(section, row, { type: 'horizontalRule' }, { type: 'space', attrs: { size: 'small' } }, shelf())

  it('fits the schema, is valid HTML, and leaves out buttons that lead nowhere', async () => {
    expect(pageDocumentSchema.parse(page)).toEqual(page)
    const html = renderPage(site, { slug: 'a', title: 'A', description: '', document: page }, known)
    expect(await problemsOf(html)).toEqual([])
    expect(html).toContain('<section class="tr-section tr-tone-deep tr-pad-large tr-width-wide">')
    expect(html.match(/class="tr-button tr-look-slab"/g)).toHaveLength(2)
    expect(render({ ...row, content: [] } as Block)).toBe('')
  })

  it.each([
    ['a section in a section', { type: 'section', attrs: { tone: 'plain', padding: 'small', width: 'text' }, content: [section] }],
    ['one column', { type: 'columns', content: [{ type: 'column', content: [words('x')] }] }],
    ['columns in a column', { type: 'columns', content: [{ type: 'column', content: [{ type: 'columns', content: [] }] }, { type: 'column', content: [words('x')] }] }],
    ['words in a row of buttons', { type: 'buttonRow', attrs: { align: 'left' }, content: [words('x')] }],
    ['a background that does not exist', { type: 'section', attrs: { tone: 'url(x)', padding: 'small', width: 'text' }, content: [words('x')] }],
  ])('%s does not fit the schema', (_what, block) => expect(pageDocumentSchema.safeParse({ type: 'doc', content: [block] }).success).toBe(false))

  it('gives up its placements, and loses them, at any depth', () => {
    expect(placementsOf(page).map(({ id }) => id)).toEqual(['aaaaaaaaaa', 'bbbbbbbbbb', 'cccccccccc', 'ssssssssss'])
    const bare = mapTargets(page, () => 'remove')
    expect(placementsOf(bare)).toEqual([])
    expect(pageDocumentSchema.safeParse(bare).success).toBe(true)
    expect(bare.content.map(({ type }) => type)).toEqual(['section', 'horizontalRule', 'space'])
  })

  it('says what has changed inside', () => {
    const changed = mapTargets(page, target => target?.id === 'pdf' ? { kind: 'file', id: 'zip' } : target)
    expect(changesBetween({ title: 'A', document: page }, { title: 'A', document: changed }).map(({ what }) => what))
      .toEqual(['button “Price list”: leads elsewhere', 'button “Price list”: leads elsewhere', 'shelf'])
  })
})
