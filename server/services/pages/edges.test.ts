import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Problem } from '../../../core/problem'
import { button, pageOf, words } from '../../../core/testing/pages'
import type { PageDocument } from '../../../core/page/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const html = async (slug: string) => (await test.trough.published.find(slug, undefined))?.bytes.toString() ?? ''

async function write(id: string, title: string, draft: PageDocument) {
  const { pages } = test.trough
  const { revision } = await pages.get(id)
  await pages.saveDraft(id, { title, draft, revision })
  return pages.publish(id)
}

async function livePage(title: string) {
  const page = await test.trough.pages.create({ title })
  await write(page.id, title, pageOf(words(`Read of ${title}`)))
  return page
}

describe('an edge', () => {
  it('is there from the start, with nothing on it and nothing waiting', async () => {
    const edges = (await test.trough.pages.list()).filter(({ edge }) => edge)
    expect(edges.map(({ id, published, waiting }) => ({ id, published, waiting }))).toEqual([
      { id: 'head', published: null, waiting: false },
      { id: 'foot', published: null, waiting: false },
    ])
  })

  it('stands on every live page as soon as it is published, not before', async () => {
    const { pages } = test.trough
    await livePage('Kilns')
    await html('kilns')
    const { revision } = await pages.get('foot')
    await pages.saveDraft('foot', { title: 'Foot', draft: pageOf(words('Open on Saturdays')), revision })
    expect(await html('kilns')).not.toContain('Open on Saturdays')
    expect(await test.trough.published.preview('foot')).toContain('Open on Saturdays')
    await pages.publish('foot')
    expect(await html('kilns')).toMatch(/Read of Kilns[\s\S]*Open on Saturdays/)
    expect((await test.trough.published.message(new Problem(410, 'Gone', 'Look elsewhere.'))).bytes.toString()).toContain(
      'Open on Saturdays',
    )
    await pages.unpublish('foot')
    expect(await html('kilns')).not.toContain('Open on Saturdays')
  })

  it('keeps its name, and is neither moved, copied nor removed', async () => {
    const { pages } = test.trough
    await write('head', 'Something else', pageOf(words('Hello')))
    expect((await pages.get('head')).title).toBe('Head of every page')
    for (const act of [() => pages.remove('head'), () => pages.duplicate('head'), () => pages.change('head', { slug: 'menu' })])
      await expect(act()).rejects.toMatchObject({ status: 409 })
  })

  it('is no page that a visitor can ask for, or that anything leads to', async () => {
    const { pages, recognising } = test.trough
    await write('head', '', pageOf(words('Hello')))
    expect(await html('~head')).toBe('')
    expect(await pages.livePages(['head'])).toEqual(new Map())
    expect((await pages.menu()).map(({ id }) => id)).not.toContain('head')
    await expect(recognising.recognise('/~head', 'localhost')).rejects.toMatchObject({ status: 404 })
    const page = await livePage('Leads to the head')
    const { revision } = await pages.get(page.id)
    await pages.saveDraft(page.id, { title: 'x', draft: pageOf(button({ target: { kind: 'page', id: 'head' } })), revision })
    await expect(pages.publish(page.id)).rejects.toMatchObject({ status: 409 })
  })
})

describe('a file in the menu', () => {
  const itemFor = (id: string) =>
    pageOf(button({ placement: 'menuitem01', target: { kind: 'file', id }, label: 'Prices', note: '', look: 'bare' }))

  it('is known to be used there, follows its address on all pages, and is replaced there', async () => {
    const { library } = test.trough
    const [first, second] = [await test.put('first.pdf', '%PDF-1.7 first'), await test.put('second.pdf', '%PDF-1.7 second')]
    await livePage('Menu')
    await write('head', '', itemFor(first.id))
    expect(await html('menu')).toContain(`/files/${first.handle}?open&amp;at=menuitem01`)
    await library.change(first.id, { handle: 'prices-of-today.pdf' })
    expect(await html('menu')).toContain('/files/prices-of-today.pdf?open&amp;at=menuitem01')
    const gone = { files: [first.id], folders: [] }
    await expect(library.remove(gone)).rejects.toMatchObject({
      status: 409,
      extra: { uses: [{ pageTitle: 'Head of every page', label: 'Prices', draft: true, live: true }] },
    })
    await library.remove(gone, { replaceBy: second.id })
    expect(await html('menu')).toContain(`/files/${second.handle}?open&amp;at=menuitem01`)
  })
})

describe('a page in the menu', () => {
  it('is told of before it goes, and is not shown while it is not live', async () => {
    const { pages } = test.trough
    const page = await livePage('Classes')
    await livePage('Guides')
    await write(
      'head',
      '',
      pageOf(button({ placement: 'menuitem02', target: { kind: 'page', id: page.id }, label: 'Evening school', note: '', look: 'bare' })),
    )
    expect(await html('guides')).toMatch(/Evening school[\s\S]*<main/)
    await expect(pages.unpublish(page.id)).rejects.toMatchObject({
      status: 409,
      extra: { uses: [{ label: 'Evening school', draft: true, live: true }] },
    })
    await pages.unpublish(page.id, { despite: true })
    expect(await html('guides')).not.toContain('Evening school')
  })
})
