import { describe, expect, it } from 'vitest'
import { BUILT_IN_LOOKS } from '../look/builtin'
import { problemsOf } from '../testing/html'
import { ENGLISH, NEW_SITE, PDF_FACTS, button, pageOf, words, PLAIN_SHELVES } from '../testing/pages'
import { renderMessage, renderPage } from './document'
import { flat } from '../shelf/listing'
import type { EdgeDocuments } from './edges'
import type { PageFacts } from './html'
import { newPicture } from './insert'
import type { PlainBlock, Target } from './schema'

const known: PageFacts = {
  file: id => (id === 'pdf' ? PDF_FACTS : undefined),
  page: id => (id === 'trade' ? { slug: 'trade', title: 'Trade' } : undefined),
  signpost: () => undefined,
  shelf: () => flat([]),
  speech: ENGLISH,
  look: id => BUILT_IN_LOOKS.find(look => look.id === id)?.appearance,
  ...PLAIN_SHELVES,
}
const menu = [
  { id: 'home', slug: '', title: 'Clay, glaze and kilns' },
  { id: 'trade', slug: 'trade', title: 'Trade' },
  { id: 'guides', slug: 'guides', title: 'Guides' },
]
let placed = 0
const item = (target: Target, label: string): PlainBlock =>
  button({ placement: `item${String(placed++).padStart(4, '0')}`, target, label, note: '{type}', look: 'bare', action: 'here' })
const row = (...content: PlainBlock[]) => ({ type: 'buttonRow', attrs: { align: 'left' }, content }) as PlainBlock

const render = (edges: EdgeDocuments, slug = 'guides') =>
  renderPage(
    { ...NEW_SITE, name: 'Marlpit', menu, edges },
    { slug, title: 'Guides', description: '', document: pageOf(words('Read')) },
    known,
  )
const menuOf = (html: string) =>
  [...(/<nav[\s\S]*?<\/nav>/.exec(html)?.[0] ?? '').matchAll(/<li>(.*?)<\/li>/g)].map(([, entry]) => entry!.replace(/<[^>]+>/g, '').trim())

const HEAD = pageOf(
  row(item({ kind: 'file', id: 'pdf' }, 'Prices'), item({ kind: 'page', id: 'trade' }, 'For the trade')),
  item({ kind: 'phone', number: '01632 960001' }, 'Call us'),
  words('Closed on Good Friday'),
)
const FOOT = pageOf(
  { type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text: 'Find us' }] },
  row(item({ kind: 'address', href: 'https://maps.example/' }, 'The yard')),
)

describe('the head', () => {
  it('never written on lists the pages by themselves, the first one as Home', () => {
    expect(menuOf(render({}))).toEqual(['Home', 'Trade', 'Guides'])
    expect(menuOf(render({ head: pageOf({ type: 'paragraph' }) }))).toEqual(['Home', 'Trade', 'Guides'])
  })

  it('has what was placed in it first, files and addresses among it; a page that is placed is not listed again', () => {
    expect(menuOf(render({ head: HEAD }))).toEqual(['Prices PDF (240 kB)', 'For the trade', 'Call us', 'Home', 'Guides'])
  })

  it('leads through the same addresses as any button, counted where it stands', () => {
    expect(render({ head: pageOf(item({ kind: 'file', id: 'pdf' }, 'Prices')) })).toMatch(
      /<li><a class="tr-button tr-look-bare" href="\/files\/list\.pdf\?open&amp;at=item\d+">/,
    )
  })

  it('leaves out what leads nowhere', () => {
    expect(
      menuOf(render({ head: pageOf(item({ kind: 'file', id: 'gone' }, 'Old'), item({ kind: 'page', id: 'draft' }, 'Not live')) })),
    ).toEqual(['Home', 'Trade', 'Guides'])
    expect(
      renderPage(
        { ...NEW_SITE, edges: { head: pageOf(item({ kind: 'page', id: 'draft' }, 'Not live')) } },
        { slug: '', title: 'A', description: '', document: pageOf() },
        known,
      ),
    ).not.toContain('<nav')
  })

  it('marks the page it stands on, placed or listed (WAI-ARIA 1.2, aria-current)', () => {
    const current = (html: string) =>
      [...html.matchAll(/<a[^>]*href="([^"?]*)[^>]*aria-current="page"|<a[^>]*aria-current="page"[^>]*href="([^"?]*)/g)].map(
        ([, a, b]) => a ?? b,
      )
    expect(current(render({ head: HEAD }, 'trade'))).toEqual(['/trade'])
    expect(current(render({ head: HEAD }, 'guides'))).toEqual(['/guides'])
  })

  const MARK: PlainBlock = { type: 'picture', attrs: { ...newPicture('pdf'), alt: 'Marlpit, pots' } }

  it('has its first picture in the place of the name, leading home, named by its words or the site’s name', async () => {
    const html = render({ head: pageOf(MARK, ...HEAD.content, MARK) })
    expect(html).toMatch(
      /<div class="tr-head"><a class="tr-site" href="\/"><img class="tr-mark"[^>]* alt="Marlpit, pots"(?![^>]*lazy)[^>]*><\/a>/,
    )
    expect(html.match(/tr-mark"/g)).toHaveLength(1)
    expect(html).toMatch(/<\/div>\n<p>Closed on Good Friday<\/p>\n<figure/)
    const adorning = pageOf({ ...MARK, attrs: { ...MARK.attrs, decorative: true } } as PlainBlock)
    expect(render({ head: adorning })).toContain('alt="Marlpit"')
    expect(render({ head: pageOf({ ...MARK, attrs: { ...MARK.attrs, file: 'gone' } } as PlainBlock) })).toContain('href="/">Marlpit</a>')
    expect(await problemsOf(html)).toEqual([])
  })

  // HTML, the popover attribute; what a browser does with it is tried in one.
  it('folds a long menu away by a key, a short one never', async () => {
    const html = render({ head: HEAD })
    expect(html).toMatch(
      /<button class="tr-key" type="button" popovertarget="tr-menu">Menu<\/button><ul class="tr-menu" id="tr-menu" popover>/,
    )
    expect(await problemsOf(html)).toEqual([])
    expect(render({})).not.toContain('popovertarget')
  })

  it('has anything that is no button below the bar', () => {
    expect(render({ head: HEAD })).toMatch(/<\/nav><\/div>\n<p>Closed on Good Friday<\/p>\n<\/header>/)
  })
})

describe('an edge', () => {
  it('is valid on every page, and on messages', async () => {
    expect(await problemsOf(render({ head: HEAD, foot: FOOT }))).toEqual([])
    const message = renderMessage({ ...NEW_SITE, menu, edges: { head: HEAD, foot: FOOT } }, 'Gone', 'Look elsewhere.', known)
    expect(await problemsOf(message)).toEqual([])
    expect(menuOf(message)).toContain('Prices PDF (240 kB)')
    expect(message).toContain('Find us')
  })

  it('brings the rules of what is on it, which other pages do without', () => {
    expect(render({ foot: FOOT })).toContain('.tr-row')
    expect(render({ head: HEAD })).toContain('.tr-look-bare')
    expect(render({})).not.toMatch(/\.tr-look-bare|\.tr-row/)
  })

  it('stands within its landmark', () => {
    expect(render({ foot: FOOT })).toMatch(/<footer class="tr-page">\n<h2>Find us<\/h2>[\s\S]*<p class="tr-foot">Marlpit<\/p><\/footer>/)
  })
})
