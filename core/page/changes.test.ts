import { describe, expect, it } from 'vitest'
import { button, linkMark, pageOf, shelf, words } from '../testing/pages'
import { changesBetween } from './changes'
import type { Block } from './schema'

const heading = (text: string): Block => ({ type: 'heading', attrs: { level: 2 }, content: [{ type: 'text', text }] })
const between = (before: Block[], after: Block[], titles: [string, string] = ['Trade', 'Trade']) =>
  changesBetween({ title: titles[0], document: pageOf(...before) }, { title: titles[1], document: pageOf(...after) }).map(
    ({ kind, what }) => `${kind} ${what}`,
  )

describe('what has changed on a page', () => {
  it('is all of it where there was none', () =>
    expect(changesBetween(undefined, { title: 'Trade', document: pageOf(words('x')) })).toEqual([
      { kind: 'added', what: 'the page “Trade”' },
    ]))
  it('is nothing where nothing has', () => expect(between([words('a'), button()], [words('a'), button()])).toEqual([]))
  it('is its title', () =>
    expect(between([words('a')], [words('a')], ['Trade', 'For the trade'])).toEqual(['changed title, now “For the trade”']))

  it('names what came, went and was written anew', () => {
    expect(between([words('a'), words('c')], [words('a'), heading('New'), words('c')])).toEqual(['added heading “New”'])
    expect(between([words('a'), button(), words('c')], [words('a'), words('c')])).toEqual(['removed button “Price list”'])
    expect(between([words('first words')], [words('other words')])).toEqual(['changed text “other words”'])
    expect(between([words('a')], [words('a'), shelf()])).toEqual(['added shelf'])
  })

  it('says what is different about a button', () => {
    expect(between([button()], [button({ target: { kind: 'file', id: 'zip' }, label: 'Pictures' })])).toEqual([
      'changed button “Pictures”: leads elsewhere, another label',
    ])
    // Another button in its place is not the same one changed.
    expect(between([button()], [button({ placement: 'bbbbbbbbbb', label: 'Other' })])).toEqual([
      'added button “Other”',
      'removed button “Price list”',
    ])
  })

  it('does not take another order of settings, or one left empty, for a change', () => {
    const { attrs } = button() as Extract<Block, { type: 'downloadButton' }>
    const turned = Object.fromEntries(Object.entries(attrs).reverse()) as typeof attrs
    expect(between([button(), shelf()], [{ type: 'downloadButton', attrs: { ...turned, extra: null } as typeof attrs }, shelf()])).toEqual(
      [],
    )
  })

  it('sees words that lead elsewhere', () =>
    expect(between([words('list', linkMark('bbbbbbbbbb', 'pdf'))], [words('list', linkMark('bbbbbbbbbb', 'zip'))])).toEqual([
      'changed text “list”',
    ]))
  it('sees what was only moved', () =>
    expect(between([button(), words('a'), words('b')], [words('a'), words('b'), button()])).toEqual(['moved button “Price list”']))
  it('keeps long texts short', () => expect(between([words('a')], [words('a'), words('long '.repeat(40))])[0]!.length).toBeLessThan(80))
})

it('what the editor writes and others leave out is no change', () => {
  const table = (attrs: object | undefined): Block =>
    ({
      type: 'table',
      content: [{ type: 'tableRow', content: [{ type: 'tableCell', ...(attrs && { attrs }), content: [{ type: 'paragraph' }] }] }],
    }) as Block
  const text = (...content: Block[]) => ({ title: 'A', document: pageOf(...content) })
  expect(changesBetween(text(table(undefined)), text(table({ colspan: 1, rowspan: 1 })))).toEqual([])
  expect(changesBetween(text(table(undefined)), text(table({ colspan: 1, rowspan: 1, colwidth: null })))).toEqual([])
  expect(changesBetween(text(table(undefined)), text(table({ colspan: 2, rowspan: 1 })))).toHaveLength(1)
  expect(changesBetween(text({ type: 'paragraph' }), text({ type: 'paragraph', content: [] }))).toEqual([])
})
