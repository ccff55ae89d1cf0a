import { Node, getSchema } from '@tiptap/core'
import { history, redo, redoDepth, undo, undoDepth } from '@tiptap/pm/history'
import { EditorState, type Transaction } from '@tiptap/pm/state'
import StarterKit from '@tiptap/starter-kit'
import { describe, expect, it } from 'vitest'
import { button, heading, pageOf, words } from '~~/core/testing/pages'
import type { PageDocument } from '~~/core/page/schema'
import { become } from './become'
import { Past, REPLACED, recall, type Beyond, type Replaced } from './past'

const names = ['placement', 'target', 'label', 'note', 'action', 'saveAs', 'look', 'align']
/** As the desk's, without what shows it. */
const Button = Node.create({
  name: 'downloadButton',
  group: 'block',
  atom: true,
  addAttributes: () => Object.fromEntries(names.map(name => [name, { default: null }])),
})
const schema = getSchema([StarterKit, Button])
const nodeOf = (document: PageDocument) => schema.nodeFromJSON(document)

/** An editor without a screen, with what was done in it written down. */
function open(document: PageDocument) {
  const beyond: Beyond[] = []
  const opened = {
    state: EditorState.create({ schema, doc: nodeOf(document), plugins: [history()] }),
    past: new Past(nodeOf(document).toJSON() as object),
    beyond,
    apply(transaction: Transaction) {
      const applied = opened.state.applyTransaction(transaction)
      beyond.push(opened.past.note(applied.transactions, opened.state, applied.state))
      opened.state = applied.state
    },
    /** Types at a place, a while after what was done before or right behind it. */
    type(text: string, at: number, time: number) {
      opened.apply(opened.state.tr.insertText(text, at).setTime(time))
    },
    undo: () => undo(opened.state, opened.apply),
    redo: () => redo(opened.state, opened.apply),
  }
  return opened
}

const kept = ({ past }: { past: Past }) => structuredClone(past.kept)
const text = (state: EditorState) => state.doc.textContent

describe('what was done on a page', () => {
  it('is undone after a reload step by step as it would have been before', () => {
    const page = open(pageOf(words('Clay')))
    page.type(' and', 5, 1000)
    page.type(' glaze', 9, 1100)
    page.type(' from', 15, 9000)
    page.type(' here', 20, 20_000)
    page.undo()
    const { state, past } = recall(page.state, kept(page), page.state.doc)!
    expect([text(state), undoDepth(state), redoDepth(state)]).toEqual(['Clay and glaze from', 2, 1])
    const again = { ...open(pageOf()), state, past }
    undo(again.state, transaction => (again.state = again.state.apply(transaction)))
    // Typed at one go, undone at one go.
    expect(text(again.state)).toBe('Clay and glaze')
    undo(again.state, transaction => (again.state = again.state.apply(transaction)))
    expect(text(again.state)).toBe('Clay')
  })

  it('is undone up to where the page is, when the last of it was never saved', () => {
    const page = open(pageOf(words('Clay')))
    page.type(' and', 5, 1000)
    const saved = page.state.doc
    page.type(' glaze', 9, 9000)
    const { state } = recall(page.state, kept(page), saved)!
    expect([text(state), undoDepth(state)]).toEqual(['Clay and', 1])
  })

  it('is forgotten where the page was changed elsewhere', () => {
    const page = open(pageOf(words('Clay')))
    page.type(' and', 5, 1000)
    expect(recall(page.state, kept(page), nodeOf(pageOf(words('Something else'))))).toBeUndefined()
  })

  it('tells what was replaced everywhere when that is undone, and when it is done once more, after a reload, too', () => {
    const target = (id: string) => ({ target: { kind: 'file' as const, id }, title: id })
    const replaced: Replaced = { from: target('old'), to: target('new'), undo: 'token' }
    const before = pageOf(heading('Prices'), button({ target: target('old').target }))
    const page = open(before)
    page.type('Our ', 1, 1000)
    page.apply(
      become(page.state, nodeOf(pageOf(heading('Our Prices'), button({ target: target('new').target }))))!
        .setMeta(REPLACED, replaced)
        .setTime(9000),
    )
    page.type('!', 11, 20_000)
    page.undo()
    page.undo()
    page.undo()
    page.redo()
    page.redo()
    expect(page.beyond.slice(3).map(({ back, again }) => back?.undo ?? (again && 'again'))).toEqual([
      undefined,
      'token',
      undefined,
      undefined,
      'again',
    ])
    const reloaded = recall(page.state, kept(page), page.state.doc)!
    let told: Beyond | undefined
    undo(reloaded.state, transaction => {
      const { state, transactions } = reloaded.state.applyTransaction(transaction)
      told = reloaded.past.note(transactions, reloaded.state, state)
    })
    expect(told?.back).toEqual(replaced)
    page.past.forget('token')
    page.undo()
    expect(page.beyond.at(-1)!.back).toBeUndefined()
  })
})

describe('a page becomes another', () => {
  it('by the settings alone that differ, so that what was written around them can still be undone', () => {
    const way = (id: string) => button({ target: { kind: 'file', id } })
    const page = open(pageOf(way('old'), words('Clay'), way('old')))
    page.type(' and glaze', 6, 1000)
    page.apply(become(page.state, nodeOf(pageOf(way('new'), words('Clay and glaze'), way('new'))))!.setMeta('addToHistory', false))
    page.undo()
    expect(page.state.doc.eq(nodeOf(pageOf(way('new'), words('Clay'), way('new'))))).toBe(true)
  })

  it.each([
    [pageOf(words('One'), words('Two')), pageOf(words('One'), heading('New'), words('Two'))],
    [pageOf(words('aaa')), pageOf(words('aa'))],
    [pageOf(heading('One')), pageOf(words('Two'), button())],
  ])('whatever differs', (from, to) => {
    const { state } = open(from)
    expect(state.apply(become(state, nodeOf(to))!).doc.eq(nodeOf(to))).toBe(true)
    expect(become(state, nodeOf(from))).toBeUndefined()
  })
})
