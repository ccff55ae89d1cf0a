import { expect, it } from 'vitest'
import { problemsOf } from '../testing/html'
import { ENGLISH, NEW_SITE, PDF_FACTS, linkMark, pageOf, PLAIN_SHELVES } from '../testing/pages'
import { renderPage } from './document'
import { flat } from '../shelf/listing'
import { pageRenderer, type PageFacts } from './html'
import { pageDocumentSchema, type Mark, type TableBlock } from './schema'
import { mapTargets, placementsOf } from './targets'

type Cell = TableBlock['content'][number]['content'][number]
const cell = (type: Cell['type'], text: string, ...marks: Mark[]): Cell => ({
  type,
  content: [{ type: 'paragraph', ...(text && { content: [{ type: 'text', text, ...(marks.length && { marks }) }] }) }],
})
const head = (text: string) => cell('tableHeader', text)
const data = (text: string, ...marks: Mark[]) => cell('tableCell', text, ...marks)
const table = (...rows: Cell[][]): TableBlock => ({ type: 'table', content: rows.map(content => ({ type: 'tableRow', content })) })

const known: PageFacts = {
  speech: ENGLISH,
  file: id => (id === 'pdf' ? PDF_FACTS : undefined),
  page: () => undefined,
  signpost: () => undefined,
  shelf: () => flat([]),
  look: () => undefined,
  ...PLAIN_SHELVES,
}
const render = (block: TableBlock) => pageRenderer(known).blocks([block])

const HOURS = table(
  [head(''), head('Opens'), head('Closes')],
  [head('Saturday'), data('9:00'), data('12:00 & later', linkMark('aaaaaaaaaa', 'pdf'))],
)

it('says which cells name a column and which a row (WCAG 2.2, technique H63)', () => {
  const html = render(HOURS)
  expect(html).toContain('<thead><tr><td></td><th scope="col">Opens</th><th scope="col">Closes</th></tr></thead>')
  expect(html).toContain('<tr><th scope="row">Saturday</th><td>9:00</td>')
  expect(html).toContain('aria-label="Table: Opens, Closes"')
})

it('is valid HTML on a page, also with cells that span others', async () => {
  const spanning = table([{ ...head('Week'), attrs: { colspan: 2, rowspan: 1 } }], [data('a'), data('b')])
  const html = renderPage(NEW_SITE, { slug: 'x', title: 'Hours', description: '', document: pageOf(HOURS, spanning) }, known)
  expect(await problemsOf(html)).toEqual([])
  expect(html).toContain('<th scope="col" colspan="2">Week</th>')
  expect(html).toContain('.tr-table')
})

it('without words is nothing, and needs no style', () => {
  expect(render(table([]))).toBe('')
  expect(renderPage(NEW_SITE, { slug: 'x', title: 'Plain', description: '', document: pageOf() }, known)).not.toContain('.tr-table')
})

it('has its links found and changed like any others', () => {
  expect(placementsOf(pageOf(HOURS)).map(({ id }) => id)).toEqual(['aaaaaaaaaa'])
  const changed = mapTargets(pageOf(HOURS), () => null)
  expect(JSON.stringify(changed)).not.toContain('"pdf"')
  expect(pageDocumentSchema.safeParse(changed).success).toBe(true)
})

it.each([
  [
    'buttons in a cell',
    { type: 'table', content: [{ type: 'tableRow', content: [{ type: 'tableCell', content: [{ type: 'horizontalRule' }] }] }] },
  ],
  ['301 rows', table(...Array.from({ length: 301 }, () => [data('x')]))],
  ['21 columns', table(Array.from({ length: 21 }, () => data('x')))],
  ['a cell as wide as a billion', table([{ ...data('x'), attrs: { colspan: 1e9, rowspan: 1 } }])],
])('refuses %s', (_, block) => expect(pageDocumentSchema.safeParse({ type: 'doc', content: [block] }).success).toBe(false))
