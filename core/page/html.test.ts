import { describe, expect, it } from 'vitest'
import type { Language } from '../language/languages'
import { BUILT_IN_LOOKS } from '../look/builtin'
import { problemsOf } from '../testing/html'
import {
  ENGLISH,
  NEW_SITE,
  PDF_FACTS,
  ZIP_FACTS,
  button,
  linkMark,
  pageOf,
  shelf,
  words,
  PLAIN_SHELVES,
  shelfWriting,
} from '../testing/pages'
import { renderMessage, renderPage } from './document'
import { flat } from '../shelf/listing'
import { pageRenderer, type PageFacts } from './html'
import { picksOf, renderShelf } from '../shelf/shelf'
import { idOf, mapTargets, placementsOf } from './targets'
import type { TargetFacts } from './placeholders'
import { changesBetween } from './changes'
import {
  pageDocumentSchema,
  type Block,
  type ButtonAttrs,
  type CardAttrs,
  type PageDocument,
  type PictureAttrs,
  type PlainBlock,
  type ShelfAttrs,
} from './schema'

const FILES = {
  pdf: PDF_FACTS,
  zip: ZIP_FACTS,
  tile: {
    ...PDF_FACTS,
    id: 'tile',
    handle: 'tile.png',
    title: 'Tile',
    mediaType: 'image/png',
    picture: { version: 'bbbbbbbb', width: 1000, height: 1250 },
  },
} as const
const fileOf = (id: string) => FILES[id as keyof typeof FILES]
const SIGNPOSTS: Record<string, ReturnType<PageFacts['signpost']>> = {
  list: { name: 'current-list', title: 'Current list', file: 'pdf' },
  bare: { name: 'bare', title: 'Bare', file: null },
}
const known: PageFacts = {
  file: fileOf,
  page: id => (id === 'trade' ? { slug: 'trade', title: 'Trade' } : undefined),
  signpost: id => SIGNPOSTS[id],
  shelf: source => flat(source.kind !== 'files' ? [PDF_FACTS] : source.ids.flatMap(id => fileOf(id) ?? [])),
  speech: ENGLISH,
  look: id => BUILT_IN_LOOKS.find(look => look.id === id)?.appearance,
  ...PLAIN_SHELVES,
}
const render = (...blocks: PageDocument['content']) => pageRenderer(known).blocks(blocks)

const site = {
  ...NEW_SITE,
  name: 'Marlpit & daughters',
  menu: [
    { id: 'home', slug: '', title: 'Home' },
    { id: 'trade', slug: 'trade', title: 'Trade "A"' },
  ],
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

describe('a button that leads to a signpost', () => {
  it('has the signpost’s address, and says what it points at now', () => {
    const html = render(button({ target: { kind: 'signpost', id: 'list' }, label: '', note: '{type}, {size}' }))
    expect(html).toContain('href="/to/current-list?open&amp;at=aaaaaaaaaa"')
    expect(html).toContain('Current list')
    expect(html).toContain('PDF, 240 kB')
  })

  it.each(['bare', 'gone'])('that points at nothing (%s) is not shown to visitors', id =>
    expect(render(button({ target: { kind: 'signpost', id } }))).toBe(''),
  )
})

describe('a button that leads elsewhere', () => {
  it.each([
    [{ kind: 'page' as const, id: 'trade' }, 'href="/trade"', 'Trade'],
    [
      { kind: 'address' as const, href: 'https://www.example.com/a?b=1&c=2' },
      'href="https://www.example.com/a?b=1&amp;c=2"',
      'example.com/a?b=1&amp;c=2',
    ],
    [{ kind: 'email' as const, address: 'shop@example.com' }, 'href="mailto:shop@example.com"', 'shop@example.com'],
    // RFC 3966: what separates digits for people is left out.
    [{ kind: 'phone' as const, number: '+44 (20) 7946-0000' }, 'href="tel:+442079460000"', '+44 (20) 7946-0000'],
  ])('%o', (target, href, label) => {
    const html = render(button({ target, label: '', note: '{type}, {size}', action: 'save' }))
    expect(html).toContain(href)
    expect(html).toContain(`<span class="tr-label">${label}</span>`)
    // There is no file to say anything of, and nothing to save.
    expect(html).not.toMatch(/\{|tr-note|tr-spoken|target=/)
  })

  it('opens a tab where that was chosen, but never for another program', () => {
    expect(render(button({ target: { kind: 'page', id: 'trade' }, action: 'tab' }))).toMatch(/target="_blank".*\(opens in a new tab\)/)
    expect(render(button({ target: { kind: 'email', address: 'shop@example.com' }, action: 'tab' }))).not.toContain('target=')
  })

  it('is not shown while its page is not live', () => expect(render(button({ target: { kind: 'page', id: 'drafted' } }))).toBe(''))

  it.each(['javascript:alert(1)', 'data:text/html,<b>', 'vbscript:x', '//example.com', 'www.example.com', 'ftp://example.com/'])(
    '%s fits no page',
    href => expect(pageDocumentSchema.safeParse(pageOf(button({ target: { kind: 'address', href } }))).success).toBe(false),
  )
})

describe('a card', () => {
  const card = (attrs: Partial<CardAttrs> = {}): PlainBlock => ({
    type: 'fileCard',
    attrs: { ...(button({ label: 'Download' }) as { attrs: ButtonAttrs }).attrs, title: '', text: '', pictured: true, ...attrs },
  })

  it('shows picture, title and what the file is, and its button says what it gives (WCAG 2.4.4)', async () => {
    const html = render(card())
    expect(html).toContain('src="/pictures/list.pdf?width=1920&amp;v=aaaaaaaa"')
    expect(html).toContain('<p class="tr-card-title">Price list</p>\n<p class="tr-card-text">All prices</p>')
    expect(html).toContain('<span class="tr-spoken">: Price list (opens in a new tab)</span>')
    expect(render(card({ title: 'Prices <2026>', text: 'Ours & theirs', pictured: false }))).toMatch(
      /Prices &lt;2026&gt;[^]*Ours &amp; theirs/,
    )
    expect(render(card({ pictured: false }))).not.toContain('<img')
    expect(render(card({ target: null }))).toBe('')
    expect(await problemsOf(renderPage(site, { slug: 'a', title: 'A', description: '', document: pageOf(card()) }, known))).toEqual([])
  })
})

describe('a picture', () => {
  const picture = (attrs: Partial<PictureAttrs> = {}): PlainBlock => ({
    type: 'picture',
    attrs: {
      placement: 'pppppppppp',
      file: 'tile',
      alt: 'A blue tile',
      decorative: false,
      caption: '',
      size: 'text',
      align: 'middle',
      target: null,
      action: 'tab',
      saveAs: '',
      ...attrs,
    },
  })

  it('comes in widths up to its own, with its extent, and says what it shows', async () => {
    const html = render(picture({ caption: 'Chun <blue>' }))
    // 1000 pixels wide: 1440 is the first that shows all of it, wider ones would show no more.
    expect([...html.matchAll(/width=(\d+)[^ ]* (\d+)w/g)].map(([, asked, said]) => [asked, said])).toEqual(
      [320, 640, 960, 1440].map(String).map(width => [width, width]),
    )
    expect(html).toContain('width="1000" height="1250" alt="A blue tile"')
    expect(html).toContain('<figcaption>Chun &lt;blue&gt;</figcaption>')
    expect(
      await problemsOf(
        renderPage(site, { slug: 'a', title: 'A', description: '', document: pageOf(picture(), picture({ decorative: true })) }, known),
      ),
    ).toEqual([])
  })

  it('is asked for at once where it is the first of the page, else when it comes near', () => {
    const html = renderPage(
      site,
      {
        slug: 'a',
        title: 'A',
        description: '',
        document: pageOf(words(' loading="lazy"'), picture(), picture({ placement: 'qqqqqqqqqq' })),
      },
      known,
    )
    expect([...html.matchAll(/<img[^>]*>/g)].map(([tag]) => tag.includes(' loading="lazy"'))).toEqual([false, true])
  })

  it('that leads somewhere says where, and one without its file is not shown', () => {
    expect(render(picture({ target: { kind: 'file', id: 'pdf' } }))).toMatch(
      /<a class="tr-led" href="\/files\/list.pdf\?open[^>]*target="_blank"[^>]*><img[^]*\(PDF, 240 kB, opens in a new tab\)/,
    )
    expect(render(picture({ decorative: true, target: { kind: 'page', id: 'trade' }, action: 'here' }))).toMatch(
      /alt=""[^]*<span class="tr-spoken">Trade<\/span><\/a>/,
    )
    expect(render(picture({ file: null }))).toBe('')
    expect(render(picture({ file: 'pdf-without' }))).toBe('')
  })

  it('goes with its file, leads nowhere without its target, and is known by both', () => {
    const page = pageOf(picture({ target: { kind: 'file', id: 'pdf' } }))
    expect(placementsOf(page)).toMatchObject([{ kind: 'picture', label: 'A blue tile', targets: [{ id: 'tile' }, { id: 'pdf' }] }])
    const without = (gone: string) => mapTargets(page, target => (idOf(target) === gone ? 'remove' : target))
    expect(placementsOf(without('pdf'))).toMatchObject([{ targets: [{ id: 'tile' }] }])
    expect(placementsOf(without('tile'))).toEqual([])
  })
})

describe('a link', () => {
  it('over several pieces of text is one anchor', () => {
    const mark = linkMark('bbbbbbbbbb', 'pdf')
    const html = render({
      type: 'paragraph',
      content: [
        { type: 'text', text: 'See the ' },
        { type: 'text', text: 'price ', marks: [mark] },
        { type: 'text', text: 'list', marks: [{ type: 'bold' }, mark] },
        { type: 'text', text: '.' },
      ],
    })
    expect(html.match(/<a /g)).toHaveLength(1)
    expect(html).toMatch(
      /<a [^>]*>price <strong>list<\/strong><span class="tr-spoken"> \(PDF, 240 kB, opens in a new tab\)<\/span><\/a>\.<\/p>/,
    )
  })

  it('without a target leaves plain words', () => {
    expect(render(words('the list', linkMark('bbbbbbbbbb', null)))).toBe('<p>the list</p>')
  })
})

describe('headings', () => {
  const heading = (level: 2 | 3 | 4, text: string): Block => ({ type: 'heading', attrs: { level }, content: [{ type: 'text', text }] })

  it('keep their size and come at most one level below the one before, at first below the title (WCAG technique G141)', () => {
    expect(render(heading(3, 'a'), heading(4, 'b'), heading(4, 'c'), heading(2, 'd'), heading(4, 'e'))).toBe(
      '<h3 aria-level="2">a</h3>\n<h4 aria-level="3">b</h4>\n<h4>c</h4>\n<h2>d</h2>\n<h4 aria-level="3">e</h4>',
    )
  })
})

describe('a page', () => {
  const document = pageOf(
    words('Hello & welcome <b>'),
    { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Files' }] },
    { type: 'heading', attrs: { level: 3 } },
    {
      type: 'bulletList',
      content: [
        {
          type: 'listItem',
          content: [
            { type: 'paragraph', content: [{ type: 'text', text: 'One' }, { type: 'hardBreak' }] },
            button({ placement: 'cccccccccc' }),
          ],
        },
      ],
    },
    { type: 'orderedList', attrs: { start: 3 }, content: [{ type: 'listItem', content: [words('Three')] }] },
    button(),
    button({ placement: 'dddddddddd', look: 'rim', align: 'middle' }),
    button({ placement: 'eeeeeeeeee', look: 'strap' }),
    words('the list', linkMark('ffffffffff', 'zip')),
  )
  const html = renderPage(site, { slug: 'trade', title: 'Trade <1>', description: 'For "trade" & <more>', document }, known)

  it("is valid HTML and passes the validator's accessibility rules", async () => {
    expect(await problemsOf(html)).toEqual([])
    expect(await problemsOf(renderMessage(site, 'There is no such page.', 'Look elsewhere.', known))).toEqual([])
  })

  it('the validator notices a fault', async () => {
    expect(await problemsOf(html.replace('</main>', '</main><img src="x"></div>'))).not.toEqual([])
  })

  it('needs no script and names no host', () => {
    expect(html).not.toMatch(/<script|javascript:|https?:\/\//)
  })

  it('carries rules only for what is on it', () => {
    expect(html).toContain('.tr-look-strap')
    expect(html).not.toMatch(/tr-shelf|tr-columns|blockquote/)
    const bare = renderPage(site, { slug: 'a', title: 'A', description: '', document: pageOf(words('Only words')) }, known)
    expect(bare).not.toMatch(/tr-button|tr-section|tr-link/)
  })

  it('is described by its first words where nothing else is said, cut between two of them', () => {
    const described = (text: string) =>
      /<meta name="description" content="([^"]*)">/.exec(
        renderPage(site, { slug: 'a', title: 'A', description: '', document: pageOf({ type: 'paragraph' }, words(text)) }, known),
      )?.[1]
    expect(described('Clay & glaze')).toBe('Clay &amp; glaze')
    expect(described('word '.repeat(60))).toMatch(/^(?:word ){31}word…$/)
    expect(renderPage(site, { slug: 'a', title: 'A', description: '', document: pageOf(button()) }, known)).not.toContain(
      'name="description"',
    )
  })

  it('marks itself in the menu', () => expect(html).toContain('<a class="tr-listed" href="/trade" aria-current="page">'))
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
    expect(render(shelf({ source: { kind: 'folder', id: 'f', order: 'title', below: 'no' } }))).not.toMatch(/<form|<input|<button/)
    expect(render(shelf({ source: null }))).toBe('')
    expect(render(shelf({ source: { kind: 'files', ids: ['gone'] } }))).toBe('')
  })

  it.each([
    ['pick=a&pick=b&pick=a', ['a', 'b']],
    ['', []],
    ['pick=a&all=', 'all'],
    ['all', 'all'],
  ])('reads %j from an address', (query, picks) => expect(picksOf(new URLSearchParams(query))).toEqual(picks))
})

it('leads from a shelf to looks at those of its files that may be looked at', () => {
  const files = [PDF_FACTS, ZIP_FACTS, { ...FILES.tile, see: true }]
  const html = renderShelf(flat(files), shelfWriting({ action: 'see' }))
  expect([...html.matchAll(/class="tr-item" href="([^"]*)"/g)].map(([, href]) => href)).toEqual([
    '/files/list.pdf?open&amp;at=ssssssssss',
    '/files/pictures.zip?save&amp;at=ssssssssss',
    '/see/tile.png?at=ssssssssss',
  ])
})

describe('a shelf of a folder', () => {
  const titled = (...titles: string[]) => titles.map(title => ({ ...PDF_FACTS, id: title, title }))
  const order = (language: Language, files: TargetFacts[]) => {
    const source = { kind: 'folder', id: 'folder', order: 'title', below: 'no' } as const
    const html = renderShelf(flat(files), shelfWriting({ source, action: 'here', pick: false }, language))
    return [...html.matchAll(/<span class="tr-label">([^<]+)/g)].map(([, title]) => title)
  }

  it('has its titles where readers of the language look for them (CLDR collation), numbers by their value', () => {
    expect(order('pl', titled('Mapa', 'Łopata', 'Zima', 'Lampa'))).toEqual(['Lampa', 'Łopata', 'Mapa', 'Zima'])
    expect(order('de', titled('Zange', 'Ärmel', 'Apfel'))).toEqual(['Apfel', 'Ärmel', 'Zange'])
    expect(order('en', titled('Kiln 10', 'Kiln 9'))).toEqual(['Kiln 9', 'Kiln 10'])
  })
})

describe('a shelf of a folder with those below it', () => {
  const listed = {
    files: [{ ...PDF_FACTS, id: 'k60', title: 'K60' }],
    folders: [
      { id: 'spare', name: 'Spare <parts>', ...flat([{ ...PDF_FACTS, id: 'door', title: 'Door' }]) },
      { id: 'arches', name: 'Łuki', ...flat([PDF_FACTS, ZIP_FACTS]) },
      { id: 'walls', name: 'Mury', ...flat([PDF_FACTS]) },
    ],
  }
  const shown = (below: 'folded' | 'open', more: Partial<ShelfAttrs> = {}, language: Language = 'en') =>
    renderShelf(listed, shelfWriting({ source: { kind: 'folder', id: 'f', order: 'title', below }, ...more }, language))

  it('folds them out without script, says how many are in each, and has them in the order of the language', () => {
    const html = shown('folded', {}, 'pl')
    expect(
      [...html.matchAll(/<summary><span>(.*?)<\/span> <span class="tr-note">(.*?)<\/span>/g)].map(([, name, count]) => [name, count]),
    ).toEqual([
      ['Łuki', '2 pliki'],
      ['Mury', '1 plik'],
      ['Spare &lt;parts&gt;', '1 plik'],
    ])
    expect(html).not.toContain(' open>')
    expect(shown('open')).toContain('<details class="tr-fold tr-folder" open>')
    // Files of the folder itself come first.
    expect(html.indexOf('K60')).toBeLessThan(html.indexOf('<details'))
  })

  it('gives all of them as one zip, and large pictures of their own addresses', async () => {
    expect(shown('folded')).toContain('All 5 as one zip')
    const pictured = (id: string) => ({ ...PDF_FACTS, id, picture: { version: 'c', width: 1000, height: 1250 } })
    const html = renderShelf(
      { files: [pictured('a')], folders: [{ id: 'more', name: 'More', ...flat([pictured('b')]) }] },
      shelfWriting({ layout: 'pictures' }),
    )
    const ids = [...html.matchAll(/ id="(see-[^"]+)"/g)].map(([, id]) => id)
    expect(new Set(ids).size).toBe(2)
  })

  it('is drawn by valid HTML, with the rules that fold', async () => {
    const document = pageOf(shelf({ source: { kind: 'folder', id: 'f', order: 'title', below: 'folded' } }))
    const html = renderPage(site, { slug: 'a', title: 'A', description: '', document }, { ...known, shelf: () => listed })
    expect(html).toContain('.tr-fold>summary')
    expect(await problemsOf(html)).toEqual([])
  })
})

describe('layout', () => {
  const section: Block = {
    type: 'section',
    attrs: { tone: 'deep', padding: 'large', width: 'wide' },
    content: [
      words('In it'),
      {
        type: 'columns',
        content: [
          { type: 'column', content: [button()] },
          {
            type: 'column',
            content: [{ type: 'blockquote', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'Said' }] }] }],
          },
        ],
      },
    ],
  }
  const row: Block = {
    type: 'buttonRow',
    attrs: { align: 'middle' },
    content: [button({ placement: 'bbbbbbbbbb' }), button({ placement: 'cccccccccc', target: null })] as Extract<
      PlainBlock,
      { type: 'downloadButton' }
    >[],
  }
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
    [
      'columns in a column',
      {
        type: 'columns',
        content: [
          { type: 'column', content: [{ type: 'columns', content: [] }] },
          { type: 'column', content: [words('x')] },
        ],
      },
    ],
    ['words in a row of buttons', { type: 'buttonRow', attrs: { align: 'left' }, content: [words('x')] }],
    [
      'a background that does not exist',
      { type: 'section', attrs: { tone: 'url(x)', padding: 'small', width: 'text' }, content: [words('x')] },
    ],
  ])('%s does not fit the schema', (_what, block) =>
    expect(pageDocumentSchema.safeParse({ type: 'doc', content: [block] }).success).toBe(false),
  )

  it('gives up its placements, and loses them, at any depth', () => {
    expect(placementsOf(page).map(({ id }) => id)).toEqual(['aaaaaaaaaa', 'bbbbbbbbbb', 'cccccccccc', 'ssssssssss'])
    const bare = mapTargets(page, () => 'remove')
    expect(placementsOf(bare)).toEqual([])
    expect(pageDocumentSchema.safeParse(bare).success).toBe(true)
    expect(bare.content.map(({ type }) => type)).toEqual(['section', 'horizontalRule', 'space'])
  })

  it('says what has changed inside', () => {
    const changed = mapTargets(page, target => (idOf(target) === 'pdf' ? { kind: 'file', id: 'zip' } : target))
    expect(changesBetween({ title: 'A', document: page }, { title: 'A', document: changed }).map(({ what }) => what)).toEqual([
      'button “Price list”: leads elsewhere',
      'button “Price list”: leads elsewhere',
      'shelf',
    ])
  })
})

describe('a link to the page that is shown elsewhere', () => {
  const moved = { ...site, address: 'https://www.marlpit.example' }
  const page = { slug: 'trade', title: 'Trade', description: 'For the trade', document: pageOf(words('x')) }
  const metaOf = (html: string) =>
    Object.fromEntries([...html.matchAll(/<meta property="og:([a-z:_]+)" content="([^"]*)">/g)].map(([, name, content]) => [name, content]))

  it('has its title, words, address and picture, whole addresses all (the Open Graph protocol)', async () => {
    const html = renderPage(moved, { ...page, picture: { ...FILES.tile, description: 'A blue "tile"' } }, known)
    expect(metaOf(html)).toMatchObject({
      'title': 'Trade',
      'type': 'website',
      'site_name': 'Marlpit &amp; daughters',
      'description': 'For the trade',
      'url': 'https://www.marlpit.example/trade',
      'image': 'https://www.marlpit.example/pictures/tile.png?width=1440&amp;v=bbbbbbbb&amp;jpeg',
      'image:type': 'image/jpeg',
      'image:alt': 'A blue &quot;tile&quot;',
    })
    expect(html).toContain('<link rel="canonical" href="https://www.marlpit.example/trade">')
    expect(await problemsOf(html)).toEqual([])
  })

  it('says what it is and what documents are on it (schema.org), in JSON that ends no element', () => {
    const file = { ...FILES.tile, title: '</script><b>' }
    const html = renderPage(
      moved,
      { ...page, document: pageOf(button({ target: { kind: 'file', id: 'tile' } })) },
      { ...known, file: () => file },
    )
    const [, json] = /<script type="application\/ld\+json">(.*?)<\/script>/.exec(html)!
    const { '@context': context, '@graph': graph } = JSON.parse(json!) as { '@context': string; '@graph': Record<string, unknown>[] }
    expect(context).toBe('https://schema.org')
    expect(graph.map(part => part['@type'])).toEqual(['BreadcrumbList', 'DigitalDocument'])
    expect(graph[1]).toMatchObject({ name: file.title, url: 'https://www.marlpit.example/files/tile.png', encodingFormat: file.mediaType })
    expect(JSON.stringify(graph[0])).toContain('"position":2,"name":"Trade","item":"https://www.marlpit.example/trade"')
  })

  it('has a drawn picture where it has none of its own, by its whole address and with its size', () => {
    expect(metaOf(renderPage(moved, page, known))).toMatchObject({
      'image': 'https://www.marlpit.example/shared.png?page=trade',
      'image:type': 'image/png',
      'image:width': '1200',
      'image:height': '630',
      'image:alt': 'Trade',
    })
    expect(metaOf(renderPage(moved, { ...page, slug: '' }, known)).image).toBe('https://www.marlpit.example/shared.png')
  })

  it('names no address while the site has none, and no picture that is not there', () => {
    expect(metaOf(renderPage(site, { ...page, picture: FILES.tile }, known))).toEqual({
      title: 'Trade',
      description: 'For the trade',
      type: 'website',
      site_name: 'Marlpit &amp; daughters',
    })
    expect(metaOf(renderPage(site, page, known))).not.toHaveProperty('image')
    expect(metaOf(renderMessage(moved, 'Gone', 'Not here', known))).toEqual({
      title: 'Gone',
      type: 'website',
      site_name: 'Marlpit &amp; daughters',
    })
  })
})
