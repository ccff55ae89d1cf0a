import { describe, expect, it } from 'vitest'
import type { LiveEntry, Values } from '../catalogue/entry'
import { newField } from '../catalogue/field'
import { newList } from '../catalogue/listAttrs'
import { BUILT_IN_LOOKS } from '../look/builtin'
import { contrastOf } from '../look/contrastCheck'
import { withOverrides } from '../look/appearance'
import { DEFAULT_DARK, DEFAULT_PALETTE, tonePalettes } from '../look/palette'
import { buttonsIn } from '../page/buttonLooks'
import { newCard, newPicture } from '../page/insert'
import { pageDocumentSchema, type Block, type PageDocument, type PlainBlock, type Reference } from '../page/schema'
import { ENGLISH, button, linkMark, pageOf, PDF_FACTS, shelf, words, ZIP_FACTS } from '../testing/pages'
import type { WalkFacts, WalkedCatalogue, WalkedFile } from './facts'
import type { PageMend } from './finding'
import { applyMend } from './mend'
import { CHECK_WORDS, walkPage, type PageFinding } from './walkPage'

const FILES: Record<string, WalkedFile> = {
  pdf: { ...PDF_FACTS, dated: '2026-11' },
  zip: ZIP_FACTS,
  big: { ...ZIP_FACTS, id: 'big', title: 'Picture pack', size: 24_000_000 },
  badly: {
    ...PDF_FACTS,
    id: 'badly',
    fileName: 'list latest.pdf',
    betterName: { fileName: 'list-2026-11.pdf', reason: '“latest” will not be true for long.' },
  },
}
const SIGNPOSTS: Record<string, ReturnType<WalkFacts['signpost']>> = {
  list: { name: 'current-list', title: 'Current list', file: 'pdf' },
  bare: { name: 'bare', title: 'Bare', file: null },
}
const CLAY_FIELDS = [
  newField('title', 'Name'),
  newField('sheet', 'Data sheet', 'file'),
  newField('poster', 'Poster', 'file'),
  newField('manual', 'Manual', 'file'),
  newField('chart', 'Chart', 'file'),
  newField('maker', 'Maker', 'link'),
  newField('day', 'Day', 'date'),
]
const NAMES = ['Crank', 'Raku', 'Porcelain', 'Buff', 'Black', 'White', 'Red', 'Grey']
const entry = (title: string, values: Values = {}): LiveEntry => ({ id: title, slug: title, values: { title, ...values }, published: '' })
const CLAYS: WalkedCatalogue = {
  id: 'clays',
  one: 'clay',
  layout: null,
  type: null,
  fields: CLAY_FIELDS,
  entries: NAMES.map((name, at) =>
    entry(name, { chart: `chart ${at}`, ...(at > 3 && { sheet: `sheet ${at}` }), ...(at > 4 && { poster: `poster ${at}` }) }),
  ),
  lists: [[]],
  led: new Set(),
}
const listOf = (catalogue: string | null, content: Block[] = [words('Its name')]): Block =>
  ({ type: 'entryList', attrs: newList('llllllllll', catalogue), content }) as Block
const AWAY: Record<string, string> = { old: 'Old list', plan: 'Plan' }

function factsOf(document: PageDocument, more: Partial<WalkFacts> = {}): WalkFacts {
  const file = (id: string) => FILES[id]
  const page = (id: string) => (id === 'home' ? { slug: '', title: 'Home' } : undefined)
  const reachable = (reference: Reference) =>
    reference.kind === 'file'
      ? !!file(reference.id)
      : reference.kind === 'page'
        ? !!page(reference.id)
        : reference.kind === 'signpost'
          ? !!file(signpost(reference.id)?.file ?? '')
          : reference.kind === 'catalogue'
            ? reference.id === 'clays'
            : reference.kind !== 'folder'
  const signpost = (id: string) => SIGNPOSTS[id]
  return {
    pageId: 'p',
    edge: false,
    document,
    file,
    page,
    entry: () => undefined,
    catalogue: id => (id === 'clays' ? CLAYS : undefined),
    ownCatalogue: undefined,
    today: '2027-02-01',
    signpost,
    reachable,
    gate: () => undefined,
    ownGate: null,
    fallback: id => (id === 'withdrawn' ? 2 : undefined),
    away: reference => ('id' in reference ? AWAY[reference.id] : undefined),
    ownPlace: href =>
      !href.includes('marlpit.example')
        ? undefined
        : href.endsWith('/files/list.pdf')
          ? { target: { kind: 'file', id: 'pdf' }, title: 'Price list' }
          : 'nothing',
    namesake: said => (said === 'Pictures' ? { id: 'zip', title: 'Pictures' } : undefined),
    outside: () => undefined,
    uptake: () => undefined,
    arrivals: () => undefined,
    measure: (said, size) => (said.length * size) / 2,
    palette: DEFAULT_PALETTE,
    speech: ENGLISH,
    dark: null,
    look: id => BUILT_IN_LOOKS.find(look => look.id === id)?.appearance,
    ...more,
  }
}
const find = (document: PageDocument, more?: Partial<WalkFacts>) => walkPage(factsOf(document, more))
const told = (found: PageFinding[]) => found.map(({ check, placement, act }) => [check, placement, act])

/** What is left to find once everything with a mend is mended. */
function mendAll(document: PageDocument, found = find(document)): PageDocument {
  return found.reduce((page, { mend }) => (mend ? applyMend(page, mend as PageMend) : page), document)
}

const heading = (level: 2 | 3 | 4, text: string): PlainBlock => ({ type: 'heading', attrs: { level }, content: [{ type: 'text', text }] })
const picture = (attrs: object = {}): PlainBlock => ({
  type: 'picture',
  attrs: { ...newPicture('pdf'), placement: 'pppppppppp', ...attrs },
})

/** A page with one slip each, and what finds it. */
const SLIPS: [check: string, what: string, block: Block | Block[], act: string | undefined][] = [
  ['nowhere', 'a button without a target', button({ target: null, label: 'Pictures' }), 'Lead it to “Pictures”'],
  ['nowhere', 'a link without a target', words('Some day', linkMark('bbbbbbbbbb', null)), 'Take it off'],
  ['nowhere', 'a picture without its file', picture({ file: 'gone' }), 'Take it off'],
  ['nowhere', 'a shelf with a file that is gone', shelf({ source: { kind: 'files', ids: ['pdf', 'gone'] } }), 'Take it off'],
  [
    'nowhere',
    'a shelf of a folder that is gone',
    shelf({ source: { kind: 'folder', id: 'gone', order: 'title', below: 'no' } }),
    'Take it off',
  ],
  ['nowhere', 'a list of a catalogue that is gone', listOf('gone'), 'Take it off'],
  [
    'nowhere',
    'a signpost that points at nothing',
    button({ target: { kind: 'signpost', id: 'bare' }, label: 'Pictures' }),
    'Lead it to “Pictures”',
  ],
  [
    'own-address',
    'an address of this site',
    button({ target: { kind: 'address', href: 'http://www.marlpit.example/files/list.pdf' } }),
    'Lead it to “Price list” itself',
  ],
  [
    'own-address',
    'an address of this site where nothing is',
    button({ target: { kind: 'address', href: 'https://www.marlpit.example/gone' } }),
    'Take it off',
  ],
  ['insecure', 'an outside address without encryption', button({ target: { kind: 'address', href: 'http://clay.example/' } }), 'Use https'],
  ['date-named', 'a label with an older month', button({ label: 'Price list, October 2026' }), 'Say “Price list, November 2026”'],
  ['date-named', 'a note with an older month', button({ note: '2026-09, {size}' }), 'Say “2026-11, {size}”'],
  ['date-named', 'a link with an older month', words('the list of Oct 2026', linkMark('bbbbbbbbbb', 'pdf')), 'Say “the list of Nov 2026”'],
  ['type-named', 'a label that promises a PDF', button({ label: 'All pictures as PDF', target: { kind: 'file', id: 'zip' } }), 'Say ZIP'],
  ['type-named', 'a note that promises a zip', button({ note: 'zip, {size}' }), 'Say PDF'],
  ['placeholder', 'a slip in a placeholder', button({ note: '{type}, {pagse}' }), 'Make it {pages}'],
  ['placeholder', 'a placeholder that means nothing', button({ note: '{type}, {weather}' }), 'Take {weather} away'],
  [
    'same-words',
    'two that say the same',
    [button(), button({ placement: 'cccccccccc', target: { kind: 'file', id: 'zip' } })],
    'Say “Pictures”',
  ],
  ['vague', 'a link that says here', words('here', linkMark('bbbbbbbbbb', 'pdf')), 'Say “Price list”'],
  ['vague', 'a button that says Download!', button({ label: 'Download!' }), 'Say “Price list”'],
  ['readable', 'words that hardly stand out', button({ own: { words: '#2F6B68' } }), 'Take the colour #'],
  ['picture-words', 'a picture without words', picture(), 'Say “Price list”'],
  [
    'ghosts',
    'a suggestion at which nothing was written',
    { type: 'paragraph', attrs: { ghost: 'Whom it is for' } } as PlainBlock,
    undefined,
  ],
  ['heading-order', 'a heading that leaves out a level', [heading(2, 'One'), heading(4, 'Two')], 'Make it level 3'],
  ['fits', 'words that are too long for an exact width', button({ own: { width: 120 } }), 'Make it 1'],
  [
    'fits',
    'words that no width holds',
    button({ own: { width: 400 }, label: 'All that there is to be known about clay, glazes, kilns and classes in one very long line' }),
    'Let it take all the width',
  ],
  [
    'size-shown',
    'a large file without its size',
    button({ label: 'The pack', target: { kind: 'file', id: 'big' }, note: '' }),
    'Add its size',
  ],
  ['size-shown', 'a large file in a sentence', words('the pack', linkMark('bbbbbbbbbb', 'big')), undefined],
]

describe('the walk', () => {
  it.each(SLIPS)('finds (%s) %s, and its act mends it without making another', (check, _, blocks, act) => {
    const document = pageOf(...[blocks].flat())
    const found = find(document)
    expect(found.map(one => one.check)).toEqual([check])
    expect(found[0]!.act?.slice(0, act && /[#1]$/.test(act) ? act.length : undefined)).toBe(act)
    expect(CHECK_WORDS.find(({ name }) => name === check)!.cost).toBe(found[0]!.cost)
    const mended = mendAll(document, found)
    expect(pageDocumentSchema.safeParse(mended).success).toBe(true)
    expect(find(mended)).toEqual(act ? [] : found)
  })

  it('finds nothing on a page that is as it should be', () => {
    expect(
      find(
        pageOf(
          heading(2, 'Lists'),
          heading(3, 'Prices'),
          heading(2, 'More'),
          { type: 'heading', attrs: { level: 4 } },
          button(),
          button({ placement: 'cccccccccc', label: 'Price list, November 2026', note: '{type}, {pages}, {size}' }),
          button({ placement: 'dddddddddd', label: 'Lists of 2026 and later' }),
          button({ placement: 'eeeeeeeeee', label: 'Price list, winter 2027', note: '' }),
          shelf(),
          picture({ alt: 'Two bowls' }),
          picture({ placement: 'qqqqqqqqqq', decorative: true }),
          button({ placement: 'ffffffffff', label: 'Ask us', target: { kind: 'email', address: 'shop@marlpit.example' } }),
          words('home', {
            type: 'downloadLink',
            attrs: { placement: 'gggggggggg', target: { kind: 'page', id: 'home' }, action: 'here', saveAs: '' },
          }),
        ),
      ),
    ).toEqual([])
  })

  it('brings back what is in the bin, and publishes what is not live', () => {
    const found = find(
      pageOf(button({ target: { kind: 'file', id: 'old' } }), button({ placement: 'cccccccccc', target: { kind: 'page', id: 'plan' } })),
    )
    expect(found.map(({ mend, act }) => [mend, act])).toEqual([
      [{ kind: 'restore', file: 'old' }, 'Bring “Old list” back'],
      [{ kind: 'publish', page: 'plan' }, 'Publish “Plan”'],
    ])
  })

  it.each([
    ['an error', { status: 500, mediaType: '', size: 0 }, /answers 500/],
    ['no answer', { status: 0, mediaType: '', size: 0 }, /no answer/],
    ['another type', { status: 200, mediaType: 'text/html', size: 240_000 }, /arrives as HTML instead of PDF/],
    ['too few bytes', { status: 200, mediaType: 'application/pdf', size: 239_000 }, /239 kB arrive instead of 240 kB/],
    ['other bytes', { status: 200, mediaType: 'application/pdf', size: 240_000, whole: false }, /not those that were put in/],
  ])('tells when a visitor gets %s', (_, answer, expected) => {
    const file = (id: string) => (id === 'pdf' ? { ...FILES.pdf!, answer } : undefined)
    const [found, ...rest] = find(pageOf(button()), { file })
    expect([found!.check, found!.cost, rest]).toEqual(['answers', 'blocked', []])
    expect(found!.words).toMatch(expected)
  })

  it('gives out an earlier edition in the place of one that was withdrawn', () => {
    expect(find(pageOf(button({ target: { kind: 'file', id: 'withdrawn' } }))).map(({ mend, act }) => [mend, act])).toEqual([
      [{ kind: 'edition', file: 'withdrawn', number: 2 }, 'Give out edition 2 instead'],
    ])
  })

  it('tells when a signpost does not give what it points at', () => {
    const signpost = () => ({ name: 'list', title: 'List', file: 'pdf', answer: { status: 404, mediaType: '', size: 0 } })
    const [found, ...rest] = find(pageOf(button({ target: { kind: 'signpost', id: 'list' } })), { signpost })
    expect([found!.check, found!.words, rest]).toEqual(['answers', 'The server answers 404 instead of giving the file.', []])
  })

  it('says nothing of a file that arrives as it is', () => {
    const file = () => ({ ...FILES.pdf!, answer: { status: 200, mediaType: 'application/pdf', size: 240_000, whole: true } })
    expect(find(pageOf(button()), { file })).toEqual([])
  })

  it.each([
    [{ status: 404 }, ['outside', 'clay.example answered 404.', undefined]],
    [{ status: 0 }, ['outside', 'clay.example gave no answer.', undefined]],
    [{ status: 0, private: true }, ['outside', 'clay.example lies in a private network, which visitors cannot reach.', undefined]],
    [
      { status: 200, movedTo: 'https://www.clay.example/new' },
      ['moved', 'It has moved to https://www.clay.example/new for good.', 'Lead there straight'],
    ],
    [{ status: 200 }, undefined],
    [{ status: 302 }, undefined],
  ])('tells what an address elsewhere answered: %j', (answer, expected) => {
    const found = find(pageOf(button({ target: { kind: 'address', href: 'https://clay.example/' } })), { outside: () => answer })
    expect(found.map(({ check, words: said, act }) => [check, said, act])).toEqual(expected ? [expected] : [])
  })

  it('tells a misleading file name once, however often it is placed', () => {
    const found = find(
      pageOf(
        button({ target: { kind: 'file', id: 'badly' } }),
        button({ placement: 'cccccccccc', label: 'The same', target: { kind: 'file', id: 'badly' } }),
      ),
    )
    expect(found.map(({ check, mend }) => [check, mend])).toEqual([
      ['file-name', { kind: 'rename', file: 'badly', fileName: 'list-2026-11.pdf' }],
    ])
  })

  it('judges contrast on the background a button stands on', () => {
    const deep = (own: object): Block => ({
      type: 'section',
      attrs: { tone: 'deep', padding: 'medium', width: 'text' },
      content: [button({ own: { fill: { kind: 'none' }, hover: {}, pressed: {}, ...own } })],
    })
    expect(told(find(pageOf(deep({ words: '#24211D' })))).map(([check]) => check)).toEqual(['readable'])
    expect(find(pageOf(deep({ words: 'ink' })))).toEqual([])
    // The mended colour is held against the formula of WCAG 2.2 by itself.
    const [mended] = buttonsIn(mendAll(pageOf(deep({ words: '#24211D' }))))
    const appearance = withOverrides(BUILT_IN_LOOKS.find(look => look.id === 'slab')!.appearance, mended!.own)
    expect(
      contrastOf(appearance, tonePalettes(DEFAULT_PALETTE).deep, () => undefined).filter(({ part, passes }) => part === 'words' && !passes),
    ).toEqual([])
  })

  it('judges headings of an edge only among themselves', () => {
    const foot = pageOf(heading(3, 'The yard'), heading(3, 'The school'))
    expect(told(find(foot, { edge: true }))).toEqual([])
    expect(told(find(pageOf(heading(2, 'The yard'), heading(4, 'Hours')), { edge: true }))).toEqual([
      ['heading-order', undefined, 'Make it level 3'],
    ])
  })

  it('finds words that vanish on a dark screen alone, and says so', () => {
    const strap = pageOf(button({ look: 'strap', own: { words: '#24211D' } }))
    expect(find(strap)).toEqual([])
    const [found, ...others] = find(strap, { dark: DEFAULT_DARK })
    expect(others).toEqual([])
    expect(found).toMatchObject({ check: 'readable', words: expect.stringMatching(/^Its label stands out on a dark screen 1\.\d to 1/) })
    // In the site's own ink it is read on either.
    expect(find(pageOf(button({ look: 'strap' })), { dark: DEFAULT_DARK })).toEqual([])
  })

  it('keeps the key of a finding while the fault is the same, and gives another for another', () => {
    const keys = (label: string, before: Block[] = []) => find(pageOf(...before, button({ label }))).map(({ key }) => key)
    expect(keys('Price list, October 2026')).toEqual(keys('Price list, October 2026', [words('New above')]))
    expect(keys('Price list, October 2026')).not.toEqual(keys('Price list, September 2026'))
  })
})

describe('entries of a catalogue', () => {
  const leads = (field: string, without?: string) => button({ target: { kind: 'field', field, without }, label: 'Papers' })
  const found = (document: PageDocument, more?: Partial<WalkFacts>) => find(document, more).filter(({ check }) => check === 'empty-entries')

  it('that lack what a card leads to are named, unless something stands in its place', () => {
    expect(found(pageOf(listOf('clays', [leads('sheet')]))).map(({ words: said }) => said)).toEqual([
      '4 of 8 have no “Data sheet”, and nothing in its place: “Crank”, “Raku”, “Porcelain” and 1 more.',
    ])
    expect(found(pageOf(listOf('clays', [leads('manual')]))).map(({ words: said }) => said)).toEqual([
      'No clay has a “Manual”: nobody sees this.',
    ])
    for (const blocks of [[leads('chart')], [leads('sheet', 'None yet')], [leads('poster')], [leads('field-that-is-gone')]])
      expect(found(pageOf(listOf('clays', blocks)))).toEqual([])
  })

  it('are looked at where they are laid out, but for lists that stand there', () => {
    const inSection = {
      type: 'section',
      attrs: { tone: 'tint', padding: 'medium', width: 'text' },
      content: [listOf('other', [leads('manual')])],
    } as Block
    const page = pageOf(leads('sheet'), listOf('clays', [leads('chart')]), inSection)
    expect(found(page, { ownCatalogue: CLAYS })).toHaveLength(1)
    expect(found(page)).toEqual([])
    // What a list lacks of entries that have pages is said of those.
    const laidOut = { ...CLAYS, layout: 'l' }
    expect(found(pageOf(listOf('clays', [leads('sheet')])), { catalogue: () => laidOut })).toEqual([])
  })

  /** What one check says of entries that are laid out on a page. */
  const said = (check: string, more: Partial<WalkedCatalogue>, facts?: Partial<WalkFacts>) =>
    find(pageOf(words('Its name')), { ownCatalogue: { ...CLAYS, layout: 'p', ...more }, ...facts })
      .filter(each => each.check === check)
      .map(({ words: told }) => told)

  it('two with the file of one are told, but not a paper that is meant for all', () => {
    const doubled = CLAYS.entries.with(5, entry('White', { chart: 'chart 0' }))
    expect(said('shared-file', { entries: doubled })).toEqual(['“Crank”, “White” have the same “Chart”.'])
    expect(said('shared-file', {})).toEqual([])
    expect(said('shared-file', { entries: NAMES.map(name => entry(name, { chart: 'terms' })) })).toEqual([])
  })

  it('whose days are over are told where they take place at a time', () => {
    const entries = [entry('Throwing', { day: '2027-01-11' }), entry('Glazing', { day: '2027-03-01' }), entry('Raku')]
    expect(said('days-past', { type: 'Course', entries })).toEqual(['Over: “Throwing”.'])
    expect(said('days-past', { type: 'Product', entries })).toEqual([])
  })

  it('with addresses that do not answer, or are not encrypted, are told', () => {
    const entries = [
      entry('Crank', { maker: 'https://gone.example/' }),
      entry('Raku', { maker: 'http://plain.example/' }),
      entry('Buff', { maker: 'https://well.example/' }),
    ]
    const outside = (href: string) => ({ status: href.includes('gone') ? 404 : 200 })
    expect(said('entry-links', { entries }, { outside })).toEqual([
      '“Maker” does not answer: “Crank”.',
      '“Maker” has no encryption: “Raku”.',
    ])
  })

  it('that no list has, and nothing leads to, are told', () => {
    expect(said('unlisted-entries', {})).toEqual([])
    const lists = [[{ field: 'sheet', is: 'set' as const }]]
    expect(said('unlisted-entries', { lists, led: new Set(['Crank', 'Raku']) })).toEqual(['No list has them: “Porcelain”, “Buff”.'])
    expect(said('unlisted-entries', { lists: [] })).toEqual(['No page lists them: “Crank”, “Raku”, “Porcelain” and 5 more.'])
  })
})

describe('what stands behind a gate', () => {
  const gate = { id: 'trade', name: 'Trade', hidden: false }
  const words = (more: Partial<WalkFacts>) => find(pageOf(button()), more).map(({ check, words: said }) => [check, said])

  it('is found where nobody gets through, and not said to be no answer besides', () => {
    const answered = { ...FILES.pdf!, answer: { status: 403, mediaType: '', size: 0 } }
    expect(words({ gate: () => ({ ...gate, closed: 'It has no password: nobody gets through.' }), file: () => answered })).toEqual([
      ['gates', 'It leads behind the gate “Trade”. It has no password: nobody gets through.'],
    ])
    expect(words({ gate: () => gate })).toEqual([])
  })

  it('is found where visitors do not see the button, but not on a page behind the same gate', () => {
    const hidden = () => ({ ...gate, hidden: true })
    expect(words({ gate: hidden })).toEqual([
      ['gates', 'What it leads to is hidden behind the gate “Trade”: visitors do not see this button.'],
    ])
    expect(words({ gate: hidden, ownGate: 'trade' })).toEqual([])
  })

  it('is found in the menu', () => {
    const menu = pageOf(button({ target: { kind: 'page', id: 'home' } }))
    const inEdge = { edge: true, gate: () => gate }
    expect(find(menu, inEdge).map(({ check }) => check)).toContain('gated-menu')
    expect(find(menu, { ...inEdge, edge: false }).map(({ check }) => check)).not.toContain('gated-menu')
  })
})

describe('what is counted', () => {
  const big = pageOf(button({ target: { kind: 'file', id: 'big' }, label: 'Picture pack' }))
  const checks = (more: Partial<WalkFacts>) =>
    find(big, more)
      .map(({ check }) => check)
      .filter(check => check === 'fallen-silent' || check === 'breaks-off')

  it('says of a button that it is not used any more, where it was used enough', () => {
    const uptake = (before: number, since: number) => () => ({ before, since, day: '2026-11-12' })
    expect(checks({ uptake: uptake(20, 0) })).toEqual(['fallen-silent'])
    expect(checks({ uptake: uptake(19, 0) })).toEqual([])
    expect(checks({ uptake: uptake(400, 1) })).toEqual([])
  })

  it('says of a large file that it breaks off as often as it arrives', () => {
    const arrivals = (broken: number, taken: number) => () => ({ broken, taken })
    expect(checks({ arrivals: arrivals(5, 5) })).toEqual(['breaks-off'])
    expect(checks({ arrivals: arrivals(4, 0) })).toEqual([])
    expect(checks({ arrivals: arrivals(9, 10) })).toEqual([])
    // A small one is there at once, or its reader wanted no more of it.
    expect(
      find(pageOf(button({ target: { kind: 'file', id: 'pdf' } })), { arrivals: arrivals(9, 0) }).map(({ check }) => check),
    ).not.toContain('breaks-off')
  })
})

describe('a mend', () => {
  it('keeps what is beside it: the rest of a sentence, of a shelf, of a card', () => {
    const sentence = pageOf({
      type: 'paragraph',
      content: [
        { type: 'text', text: 'Take it ' },
        { type: 'text', text: 'he', marks: [linkMark('bbbbbbbbbb', 'pdf')] },
        { type: 'text', text: 're', marks: [{ type: 'bold' }, linkMark('bbbbbbbbbb', 'pdf')] },
        { type: 'text', text: '.' },
      ],
    })
    expect(mendAll(sentence)).toEqual(
      pageOf({
        type: 'paragraph',
        content: [
          { type: 'text', text: 'Take it ' },
          { type: 'text', text: 'Price list', marks: [linkMark('bbbbbbbbbb', 'pdf')] },
          { type: 'text', text: '.' },
        ],
      }),
    )
    expect(mendAll(pageOf(shelf({ source: { kind: 'files', ids: ['pdf', 'gone'] } })))).toEqual(
      pageOf(shelf({ source: { kind: 'files', ids: ['pdf'] } })),
    )
    const card: PlainBlock = {
      type: 'fileCard',
      attrs: { ...newCard({ kind: 'file', id: 'pdf' }), placement: 'bbbbbbbbbb', title: 'List of May 2026', text: 'All of it' },
    }
    expect(mendAll(pageOf(card))).toEqual(pageOf({ ...card, attrs: { ...card.attrs, title: 'List of November 2026' } } as PlainBlock))
  })

  it('takes from a picture only where it leads, where that alone is gone', () => {
    const led = picture({ alt: 'Two bowls', target: { kind: 'file', id: 'gone' } })
    expect(mendAll(pageOf(led))).toEqual(pageOf(picture({ alt: 'Two bowls', target: null })))
  })

  it('changes nothing where its placement is no longer there', () => {
    const page = pageOf(words('Nothing here'))
    for (const mend of find(pageOf(button({ target: null, label: 'Some day' }), button({ placement: 'cccccccccc', label: 'here' }))).map(
      ({ mend }) => mend as PageMend,
    ))
      expect(applyMend(page, mend)).toEqual(page)
  })
})
