import { describe, expect, it } from 'vitest'
import { mostMet, startLike } from './alike'
import { ON_A_PAGE, newButton } from './insert'
import type { ButtonAttrs, Target } from './schema'

const FILE: Target = { kind: 'file', id: 'f' }
const PAGE: Target = { kind: 'page', id: 'p' }
const button = (attrs: Partial<ButtonAttrs> = {}): ButtonAttrs => ({ ...newButton(FILE, 'Price list'), ...attrs })

describe('a button that is to be like another', () => {
  it('looks like it, is as wide, and does the same at a click', () => {
    const model = button({ look: 'rim', own: { width: 'fill' }, action: 'save', note: '{type}' })
    expect(newButton(FILE, 'Charts', startLike(model, FILE, ON_A_PAGE))).toMatchObject({
      look: 'rim',
      own: { width: 'fill' },
      action: 'save',
      note: '{type}',
      label: 'Charts',
      saveAs: '',
    })
  })

  it.each(['', '{type}', '{type}, {size}', '({pages})'])('says “%s” below its label, as that one does', note => {
    expect(startLike(button({ note }), FILE, ON_A_PAGE).note).toBe(note)
  })

  it.each(['For the trade', '{type}, for 2026', 'PDF'])('does not say “%s”: that is said of one file', note => {
    expect(startLike(button({ note }), FILE, ON_A_PAGE).note).toBe(ON_A_PAGE.note)
  })

  it('goes on to a page as pages are gone to, whatever files beside it do', () => {
    expect(newButton(PAGE, 'Kilns', startLike(button({ action: 'save' }), PAGE, ON_A_PAGE)).action).toBe('here')
    expect(newButton(FILE, 'List', startLike(button({ target: PAGE, action: 'here' }), FILE, ON_A_PAGE)).action).toBe('tab')
  })

  it('is one of its own: nothing of what the other leads to or is called comes with it', () => {
    const model = button({ saveAs: 'list.pdf' })
    const made = newButton(PAGE, 'Kilns', startLike(model, PAGE, ON_A_PAGE))
    expect(made.placement).not.toBe(model.placement)
    expect(made).toMatchObject({ target: PAGE, label: 'Kilns', saveAs: '' })
  })
})

describe('the look a page uses most', () => {
  it('is none where there is no button', () => expect(mostMet([])).toBeUndefined())

  it('counts what looks the same, what a button has of its own included', () => {
    const [slab, rim] = [button({ look: 'slab' }), button({ look: 'rim' })]
    const wide = button({ look: 'slab', own: { width: 'fill' } })
    expect(mostMet([slab, rim, rim, wide])).toBe(rim)
    expect(mostMet([wide, slab, button({ look: 'slab', own: { width: 'fill' } })])!.own).toEqual({ width: 'fill' })
  })

  it('is the later one of two that are met as often', () => {
    const [slab, rim] = [button({ look: 'slab' }), button({ look: 'rim' })]
    expect(mostMet([slab, rim])).toBe(rim)
    expect(mostMet([slab, rim, button({ look: 'slab' }), button({ look: 'rim' })])!.look).toBe('rim')
    expect(mostMet([rim, slab, rim, button({ look: 'slab' })])!.look).toBe('slab')
  })
})
