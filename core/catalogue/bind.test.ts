import { describe, expect, it } from 'vitest'
import { speechOf } from '../language/speech'
import type { Block, Inline, Target } from '../page/schema'
import { button, words } from '../testing/pages'
import { fillBlocks, fillSiteValues, namesSiteValues, type Filling } from './bind'
import type { Values } from './entry'
import { newField } from './field'
import { longTextBlocks } from './longText'
import { firstCard, firstLayout } from './ways'

const FIELDS = [
  newField('title', 'Name'),
  newField('price', 'Price', 'money', { currency: 'GBP' }),
  newField('weight', 'Weight', 'number', { unit: 'kg' }),
  newField('sheet', 'Sheet', 'file'),
  newField('photo', 'Photo', 'picture'),
  newField('about', 'About', 'longText'),
  newField('site', 'Site', 'link'),
]
const filling = (values: Values, more: Partial<Filling> = {}): Filling => ({
  fields: FIELDS,
  entry: { id: 'e1', slug: 'crank', values: { title: 'Crank', ...values }, published: '' },
  paged: true,
  fileTitle: id => (id === 'gone' ? undefined : `File ${id}`),
  speech: speechOf('en'),
  ...more,
})
const field = (id: string): Inline => ({ type: 'field', attrs: { field: id } })
const line = (...content: Inline[]): Block => ({ type: 'paragraph', content })
const said = (blocks: Block[]) => JSON.stringify(blocks)
const toField = (id: string, without?: string): Target => ({ kind: 'field', field: id, ...(without && { without }) })

describe('what is laid out for all entries', () => {
  it('says what one has, and leaves out lines of what it has not', () => {
    const layout = [
      line(field('title')),
      line({ type: 'text', text: 'Price: ' }, field('price')),
      line({ type: 'text', text: 'Weight: ' }, field('weight')),
    ]
    expect(fillBlocks(layout, filling({ price: 9.5 }))).toEqual([
      words('Crank'),
      line({ type: 'text', text: 'Price: ' }, { type: 'text', text: '£9.50' }),
    ])
  })

  it('leads its buttons to what the entry has; where it has nothing, they go, or words stand there', () => {
    const layout = [button({ target: toField('sheet') }), button({ target: toField('site', 'No site yet') })]
    const [led, none] = fillBlocks(layout, filling({ sheet: 's1' }))
    expect(led).toMatchObject({ attrs: { target: { kind: 'file', id: 's1' } } })
    expect(none).toEqual(words('No site yet'))
    // A file that visitors do not get is none.
    expect(fillBlocks([button({ target: toField('sheet') })], filling({ sheet: 'gone' }))).toEqual([])
  })

  it('leads to the entry’s own page only where entries have one', () => {
    const layout = [button({ target: toField('page') })]
    expect(fillBlocks(layout, filling({}))).toMatchObject([{ attrs: { target: { kind: 'entry', id: 'e1' } } }])
    expect(fillBlocks(layout, filling({}, { paged: false }))).toEqual([])
  })

  it('shows a picture with the name of the entry for those who do not see it, sections that hang on a field, and rows of a table', () => {
    const section: Block = {
      type: 'section',
      attrs: { tone: 'tint', padding: 'small', width: 'text', onlyIf: 'sheet' },
      content: [words('With a sheet') as never],
    }
    const table = firstLayout(FIELDS)
      .flatMap(block => (block.type === 'columns' ? block.content[0]!.content : [block]))
      .find(({ type }) => type === 'table') as Block
    const some = fillBlocks([...firstCard(FIELDS, true), section, table], filling({ photo: 'p1', weight: 12 }))
    expect(said(some)).toContain('"file":"p1","alt":"Crank"')
    expect(said(some)).not.toContain('With a sheet')
    expect(said(some)).toContain('12\u00A0kg')
    expect(said(some)).not.toContain('"Price"')
    expect(said(fillBlocks([section], filling({ sheet: 's1' })))).toContain('With a sheet')
  })

  it('has sections for single entries', () => {
    const section: Block = {
      type: 'section',
      attrs: { tone: 'tint', padding: 'small', width: 'text', onlyFor: ['e1', 'e7'] },
      content: [words('New this year') as never],
    }
    expect(said(fillBlocks([section], filling({})))).toContain('New this year')
    const other = { id: 'e2', slug: 'raku', values: { title: 'Raku' }, published: '' }
    expect(fillBlocks([section], filling({}, { entry: other }))).toEqual([])
  })

  it('takes nothing that is written for HTML, and no more of Markdown than is meant', () => {
    const blocks = longTextBlocks(
      '<script>alert(1)</script> **bold** [go](javascript:alert(1)) [there](https://a.example/)\n\n- one\n- two',
    )
    expect(said(blocks)).toContain('<script>alert(1)</script> ')
    expect(said(blocks)).not.toContain('javascript:alert(1)"')
    expect(blocks[0]).toMatchObject({
      content: expect.arrayContaining([{ type: 'text', text: 'bold', marks: [{ type: 'bold' }] }]) as unknown,
    })
    expect(said(blocks)).toContain('"href":"https://a.example/"')
    expect(blocks[1]).toMatchObject({ type: 'bulletList', content: [{ type: 'listItem' }, { type: 'listItem' }] })
  })

  it('fills no list that stands in it with the entry itself', () => {
    const inner = {
      type: 'entryList',
      attrs: { only: [{ field: 'price', is: 'same' }] },
      content: [line(field('title'))],
    } as unknown as Block
    expect(fillBlocks([inner], filling({}))).toMatchObject([{ but: 'e1', content: [line(field('title'))] }])
  })
})

describe('values of the whole site', () => {
  const value = (id: string): Inline => ({ type: 'siteValue', attrs: { field: id } })

  it('are put where they are named, in lists too, and fields of entries are left alone', () => {
    const list = { type: 'entryList', attrs: {}, content: [line(field('title'), value('price'))] } as unknown as Block
    const page = [line({ type: 'text', text: 'From ' }, value('price')), list]
    expect(namesSiteValues({ content: page })).toBe(true)
    expect(namesSiteValues({ content: [line(field('price'))] })).toBe(false)
    const [first, second] = fillSiteValues(page, filling({ price: 9.5 }))
    expect(first).toEqual(line({ type: 'text', text: 'From ' }, { type: 'text', text: '£9.50' }))
    expect(second).toMatchObject({ content: [line(field('title'), { type: 'text', text: '£9.50' })] })
  })

  it('leave out lines and rows that would say nothing, and stand as paragraphs where they are long', () => {
    const row = (...content: Inline[]) => ({ type: 'tableRow', content: [{ type: 'tableCell', content: [line(...content)] }] })
    const table = { type: 'table', content: [row(value('weight')), row(value('price'))] } as unknown as Block
    const filled = fillSiteValues(
      [line({ type: 'text', text: 'Weight: ' }, value('weight')), table, line(value('about'))],
      filling({ price: 2, about: 'One\n\nTwo' }),
    )
    expect(filled).toHaveLength(3)
    expect(said(filled)).not.toContain('Weight')
    expect((filled[0] as { content: unknown[] }).content).toHaveLength(1)
    expect(filled.slice(1)).toEqual([words('One'), words('Two')])
  })
})
