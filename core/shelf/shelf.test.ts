import { describe, expect, it } from 'vitest'
import { Tree } from '../folders/folderTree'
import { renderPage } from '../page/document'
import { pageDocumentSchema, type ShelfAttrs } from '../page/schema'
import type { TargetFacts } from '../page/placeholders'
import { problemsOf } from '../testing/html'
import { NEW_SITE, PDF_FACTS, ZIP_FACTS, knowing, pageOf, shelf, shelfWriting } from '../testing/pages'
import { arranged } from './arrange'
import { iconOf, siteIconSchema, type SiteIcon } from './icons'
import { flat } from './listing'
import { renderShelf } from './shelf'
import { shownBy } from './shelfLook'
import { FIRST_OF_MANY, asksForAnything, shelfQuery, shelfSourceSchema, type FoundSource } from './shelfSource'
import { LAYOUTS, SHELF_FACTS, SHELF_PARTS, shownOf, type OwnShown } from './shown'
import { withoutLook } from './wearing'

const FOUND: FoundSource = { kind: 'found', folders: [], q: '', types: [], tags: [], order: 'title', below: 'no' }
const file = (given: Partial<TargetFacts>): TargetFacts => ({ ...PDF_FACTS, see: true, ...given })
const html = (given: Partial<ShelfAttrs>, files: TargetFacts[] = [file({ id: 'a' }), file({ id: 'b', title: '<Kilns>' })]) =>
  renderShelf(flat(files), shelfWriting(given))

describe('how a shelf shows its files', () => {
  const all = { parts: [...SHELF_PARTS], facts: [...SHELF_FACTS] }

  it.each(LAYOUTS)('as %s is valid HTML with everything shown, and carries what its rules need', async layout => {
    const facts = { ...knowing(file({ id: 'pdf' }), { ...ZIP_FACTS, title: 'A "zip" & more', description: '<b>Not bold</b>' }) }
    const page = renderPage(
      NEW_SITE,
      { slug: 'x', title: 'X', description: '', document: pageOf(shelf({ layout, shown: all })) },
      { ...facts, icon: ({ id }) => (id === 'pdf' ? { kind: 'drawn', name: 'x', path: 'M0,0h24' } : undefined) },
    )
    expect(await problemsOf(page)).toEqual([])
    expect(page).not.toContain('<b>Not bold')
    // A class without a rule would be a forgotten part of the style sheet.
    for (const name of ['tr-tiles', 'tr-cards', 'tr-compact', 'tr-files', 'tr-gallery'])
      if (page.includes(`class="${name}`) || page.includes(` ${name}"`)) expect(page).toContain(`.${name}`)
  })

  it('without a setting touched: each layout with what it is good for', () => {
    expect(html({})).toMatch(/<li>.*<a class="tr-item"[^>]*><span class="tr-label">Price list<\/span> <span class="tr-note">PDF, 240 kB/)
    expect(html({ layout: 'table' })).toMatch(/<th scope="col">Name<\/th><th scope="col"[^>]*>Kind<.*Size.*Changed/)
    expect(html({ layout: 'tiles' })).toContain('class="tr-view" src="/pictures/list.pdf')
    expect(html({ layout: 'cards' })).toContain('<p class="tr-more">All prices</p>')
    expect(html({ layout: 'compact' })).toContain('<ul class="tr-compact">')
  })

  it('has its parts in the order they were put in, the title always among them', () => {
    const shown = html({ shown: { parts: ['description', 'title', 'icon', 'button', 'look'] } })
    const places = ['tr-more', 'tr-item', 'tr-sign', 'tr-button', 'Look inside'].map(word => shown.indexOf(word))
    expect(places).toEqual(places.toSorted((a, b) => a - b))
    expect(html({ shown: { parts: ['facts'] } })).toContain('Price list')
  })

  it('names each link and button so that it can be told alone (WCAG 2.2, 2.4.4)', () => {
    const shown = html({ layout: 'cards', shown: { parts: ['title', 'look', 'button'] } })
    expect(shown).toContain('>Download</span><span class="tr-spoken">: &lt;Kilns&gt; (PDF, 240 kB)</span>')
    expect(shown).toContain('Look inside<span class="tr-spoken">: &lt;Kilns&gt;</span>')
    // Facts that are shown nowhere are said in the link.
    expect(shown).toContain('<span class="tr-label">Price list</span><span class="tr-spoken"> (PDF, 240 kB, opens in a new tab)</span>')
  })

  it('marks what is new for as long as was chosen', () => {
    const of = (changed: string) => html({ shown: { parts: ['title', 'new'], newDays: 7 } }, [file({ changed })])
    expect(of('2026-11-25T12:00:00.000Z')).toContain('>New<')
    expect(of('2026-11-22T11:59:59.000Z')).not.toContain('>New<')
  })

  it('leaves a look out where there is none', () => {
    expect(html({ shown: { parts: ['title', 'look'] } }, [file({ see: false })])).not.toContain('Look inside')
  })

  it('is a form that is sent in its body where an address would be too long', () => {
    const many = (count: number) => Array.from({ length: count }, (_, index) => file({ id: `file${index}` }))
    expect(html({}, many(150))).toContain('method="get"')
    expect(html({}, many(151))).toContain('method="post"')
  })

  it('gives each folder an address within the page', () => {
    const shown = renderShelf({ files: [], folders: [{ id: 'f1', name: 'Kilns & co', ...flat([file({})]) }] }, shelfWriting({}))
    expect(shown).toContain(
      '</summary>\n<a class="tr-here" id="in-ssssssssss-f1" href="#in-ssssssssss-f1" aria-label="Address of Kilns &amp; co">',
    )
  })
})

describe('a look of shelves', () => {
  const looks: Record<string, OwnShown> = { sheets: { layout: 'table', facts: ['size'], density: 'close' } }
  const by = (id: string) => looks[id]

  it('is worn but for what the shelf has of its own; gone, it says nothing', () => {
    expect(shownBy({ look: 'sheets' }, by)).toMatchObject({ layout: 'table', facts: ['size'], density: 'close' })
    expect(shownBy({ look: 'sheets', layout: 'tiles', shown: { density: 'airy' } }, by)).toMatchObject({ layout: 'tiles', density: 'airy' })
    expect(shownBy({ look: 'gone' }, by)).toEqual(shownOf({}))
  })

  it('leaves shelves as they look when it is deleted', () => {
    const document = pageOf(shelf({ look: 'sheets', shown: { density: 'airy' } }), shelf({ placement: 'tttttttttt', look: 'other' }))
    const look = { id: 'sheets', name: 'Sheets', shown: looks.sheets! }
    const [first, second] = withoutLook(document, look).content as { attrs: ShelfAttrs }[]
    expect(shownBy(first!.attrs, () => undefined)).toEqual(shownBy({ look: 'sheets', shown: { density: 'airy' } }, by))
    expect(first!.attrs.look).toBeNull()
    expect(second!.attrs.look).toBe('other')
    expect(pageDocumentSchema.safeParse(withoutLook(document, look)).success).toBe(true)
  })
})

describe('what a shelf asks the library for', () => {
  const NOW = Date.parse('2026-11-29T12:00:00.000Z')

  it('says folders, tags, kinds, words and days', () => {
    expect(
      shelfQuery(
        { ...FOUND, folders: ['f'], tags: ['K60'], types: ['sheet'], q: ' price ', within: { time: 'added', days: 7 }, most: 5 },
        NOW,
      ),
    ).toEqual({ sort: 'title', limit: 5, addedFrom: '2026-11-22T12:00:00.000Z', among: ['f'], type: ['sheet'], tag: ['K60'], q: 'price' })
    expect(shelfQuery({ kind: 'folder', id: 'f', order: 'newest', below: 'folded' }, NOW)).toEqual({
      sort: '-changed',
      limit: 300,
      folder: 'f',
      below: 'true',
    })
  })

  it('never means all of the library', () => {
    expect(asksForAnything(FOUND)).toBe(false)
    expect(asksForAnything({ ...FOUND, q: '  ' })).toBe(false)
    for (const said of [{ tags: ['a'] }, { folders: ['f'] }, { types: ['film' as const] }, { q: 'x' }])
      expect(asksForAnything({ ...FOUND, ...said }), JSON.stringify(said)).toBe(true)
  })

  it('refuses what it cannot mean', () => {
    for (const wrong of [{ most: 0 }, { most: 301 }, { within: { time: 'changed', days: 0 } }, { types: ['cat'] }, { order: 'own' }])
      expect(shelfSourceSchema.safeParse({ ...FOUND, ...wrong }).success, JSON.stringify(wrong)).toBe(false)
  })
})

describe('what it gives', () => {
  const tree = new Tree([
    { id: 'kilns', parent: null, name: 'Kilns' },
    { id: 'parts', parent: 'kilns', name: 'Parts' },
    { id: 'guides', parent: null, name: 'Guides' },
  ])
  const lying = (id: string, folder: string | null) => ({ id, folder })
  const files = [lying('a', 'kilns'), lying('b', 'parts'), lying('c', 'guides'), lying('d', null)]
  const of = (
    source: Parameters<typeof arranged>[0],
    given: Partial<Parameters<typeof arranged<{ id: string; folder: string | null }>>[2]>,
  ) => arranged(source, tree, { files, pinned: [], total: files.length, ...given })

  it('has pinned files first, once, and counts them among so many', () => {
    expect(of({ ...FOUND, most: 3 }, { pinned: [lying('c', 'guides')] })).toEqual({
      files: [lying('c', 'guides'), lying('a', 'kilns'), lying('b', 'parts')],
      folders: [],
      pinned: 1,
    })
  })

  it('stands in folders where that was asked for: those that were chosen, or all', () => {
    const names = (source: FoundSource) => of(source, {}).folders.map(({ name, folders }) => [name, folders.map(each => each.name)])
    expect(names({ ...FOUND, below: 'folded' })).toEqual([
      ['Kilns', ['Parts']],
      ['Guides', []],
    ])
    // One folder within another is not listed twice.
    expect(names({ ...FOUND, below: 'open', folders: ['kilns', 'parts'] })).toEqual([['Kilns', ['Parts']]])
    expect(of({ ...FOUND, below: 'open' }, {}).files).toEqual([lying('d', null)])
  })

  it('has but the first of many, and says how many there are', () => {
    const many = Array.from({ length: 300 }, (_, index) => lying(String(index), 'kilns'))
    const listing = of({ kind: 'folder', id: 'kilns', order: 'title', below: 'no' }, { files: many, total: 10_000 })
    expect(listing.files).toHaveLength(FIRST_OF_MANY)
    expect(listing.total).toBe(10_000)
    expect(
      of({ kind: 'folder', id: 'kilns', order: 'title', below: 'no', most: 300 }, { files: many, total: 10_000 }).total,
    ).toBeUndefined()
  })
})

describe('an icon', () => {
  const tree = new Tree([
    { id: 'kilns', parent: null },
    { id: 'parts', parent: 'kilns' },
  ])
  const icon = (kind: SiteIcon['of']['kind'], value: string): SiteIcon => ({
    of: { kind, value },
    icon: { kind: 'drawn', name: `${kind} ${value}`, path: 'M0,0' },
  })
  const marked = { id: 'f', folder: 'parts', tags: ['K60', 'manual'], mediaType: 'application/pdf' }

  it('is that of the file, then of the nearest folder, of a tag, of the type', () => {
    const icons = [icon('type', 'PDF'), icon('tag', 'manual'), icon('folder', 'kilns'), icon('folder', 'parts'), icon('file', 'f')]
    const names = icons.map((_, index) => iconOf(marked, icons.slice(0, icons.length - index), tree))
    expect(names.map(found => found?.kind === 'drawn' && found.name)).toEqual([
      'file f',
      'folder parts',
      'folder kilns',
      'tag manual',
      'type PDF',
    ])
    expect(iconOf(marked, [], tree)).toBeUndefined()
  })

  it('that is drawn is an outline and nothing else', () => {
    expect(siteIconSchema.safeParse(icon('type', 'PDF')).success).toBe(true)
    const scripted = { of: { kind: 'type', value: 'PDF' }, icon: { kind: 'drawn', name: 'x', path: '"/><script>' } }
    expect(siteIconSchema.safeParse(scripted).success).toBe(false)
  })
})
