import { brotliDecompressSync, gunzipSync } from 'node:zlib'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { saveDraftSchema } from '../../../core/page/pageItem'
import type { PageDocument } from '../../../core/page/schema'
import { gateRuleSchema } from '../../../core/gate/gate'
import { button, pageOf, words } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const html = async (slug: string) => (await test.trough.published.find(slug, undefined))?.bytes.toString()

describe('pages', () => {
  it('give titles addresses, numbered where taken', async () => {
    const { pages } = test.trough
    expect((await pages.create({ title: 'Clay & glaze' })).slug).toBe('clay-and-glaze')
    expect((await pages.create({ title: 'Clay & glaze' })).slug).toBe('clay-and-glaze-2')
    expect((await pages.create({ title: 'Desk' })).slug).toBe('our-desk')
    await expect(pages.create({ title: 'Other', slug: 'clay-and-glaze' })).rejects.toMatchObject({ status: 409 })
  })

  it('keep their draft from visitors until it is published, and then switch at once', async () => {
    const { pages } = test.trough
    const page = await pages.create({ title: 'News' })
    let { revision } = await pages.saveDraft(page.id, { title: 'News', draft: pageOf(words('First words')), revision: page.revision })
    expect(await html('news')).toBeUndefined()
    await pages.publish(page.id)
    expect(await html('news')).toContain('First words')
    ;({ revision } = await pages.saveDraft(page.id, { title: 'News', draft: pageOf(words('Second words')), revision }))
    expect(await html('news')).toContain('First words')
    expect((await pages.get(page.id)).waiting).toBe(true)
    await pages.publish(page.id)
    expect(await html('news')).toContain('Second words')
    expect((await pages.get(page.id)).waiting).toBe(false)
  })

  it('published and saved by several at once go live one after the other, each version whole; of two who saved one is told', async () => {
    const { pages } = test.trough
    const page = await pages.create({ title: 'Contested' })
    const { revision } = await pages.saveDraft(page.id, { title: 'Contested', draft: pageOf(words('One')), revision: page.revision })
    const saved = await Promise.allSettled([
      pages.publish(page.id),
      pages.saveDraft(page.id, { title: 'Contested', draft: pageOf(words('Two')), revision }),
      pages.publish(page.id),
      pages.saveDraft(page.id, { title: 'Contested', draft: pageOf(words('Three')), revision }),
      pages.publish(page.id),
    ])
    const [first, two, second, three, third] = saved.map(({ status }) => status)
    expect([first, second, third]).toEqual(['fulfilled', 'fulfilled', 'fulfilled'])
    expect([two, three].sort()).toEqual(['fulfilled', 'rejected'])
    await pages.publish(page.id)
    const versions = await pages.versions(page.id)
    expect(versions.map(({ number, live }) => [number, live])).toEqual([
      [4, true],
      [3, false],
      [2, false],
      [1, false],
    ])
    expect(await html('contested')).toContain(two === 'fulfilled' ? 'Two' : 'Three')
    expect(await pages.get(page.id)).toMatchObject({ waiting: false })
  })

  it('that are as what is live again wait no more, in the list as on the page', async () => {
    const { pages } = test.trough
    const page = await pages.create({ title: 'Undone' })
    const save = async (draft: PageDocument, revision: number) => pages.saveDraft(page.id, { title: 'Undone', draft, revision })
    const first = await save(pageOf(words('As it is')), page.revision)
    expect(first.waiting).toBe(true)
    await pages.publish(page.id)
    const changed = await save(pageOf(words('Otherwise')), first.revision)
    expect([changed.waiting, (await pages.get(page.id)).waiting]).toEqual([true, true])
    const undone = await save(pageOf(words('As it is')), changed.revision)
    expect([undone.waiting, (await pages.get(page.id)).waiting]).toEqual([false, false])
  })

  it('of 2,000 blocks are saved, published and read; one of more than 5,000 is refused and what was there stays', async () => {
    const { pages } = test.trough
    const page = await pages.create({ title: 'Long' })
    const many = (count: number) => pageOf(...Array.from({ length: count }, (_, index) => words(`Line ${index} of many`)))
    await pages.saveDraft(page.id, { ...saveDraftSchema.parse({ title: 'Long', draft: many(2000), revision: page.revision }) })
    await pages.publish(page.id)
    expect((await html('long'))!.match(/<p>Line \d+ of many<\/p>/g)).toHaveLength(2000)
    expect(saveDraftSchema.safeParse({ title: 'Long', draft: many(5001), revision: 2 }).success).toBe(false)
  })

  it('say how often a file was downloaded as it is now', async () => {
    const { pages, tally } = test.trough
    const file = await test.put('asked-for.pdf', '%PDF-1.7 asked for')
    const page = await pages.create({ title: 'Counted' })
    await pages.saveDraft(page.id, {
      title: 'Counted',
      draft: pageOf(button({ target: { kind: 'file', id: file.id }, note: '{downloads}, {edition}' })),
      revision: page.revision,
    })
    await pages.publish(page.id)
    expect(await html('counted')).toContain('0 downloads, edition 1')
    tally.observe({
      file: file.id,
      etag: '"e"',
      edition: 1,
      placement: 'aaaaaaaaaa',
      size: 10,
      delivered: [{ start: 0, end: 10 }],
      address: '192.0.2.7',
      at: Date.now(),
      userAgent: 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
    })
    await tally.flush()
    expect(await html('counted')).toContain('1 download, edition 1')
  })

  it('are shown with a picture where links to them stand elsewhere; it is not deleted unnoticed', async () => {
    const { pages, library, site } = test.trough
    await site.set({ name: 'Site', address: 'https://shop.example' })
    const pixel = async (name: string, background: string) =>
      test.put(
        name,
        await sharp({ create: { width: 1, height: 1, channels: 3, background } })
          .png()
          .toBuffer(),
      )
    const [first, second, text] = [
      await pixel('first.png', '#fff'),
      await pixel('second.png', '#000'),
      await test.put('words.txt', 'words'),
    ]
    const page = await pages.create({ title: 'Shared' })
    await pages.publish(page.id)
    await expect(pages.change(page.id, { picture: text.id })).rejects.toMatchObject({ status: 422, extra: { field: 'picture' } })
    await pages.change(page.id, { picture: first.id })
    expect((await library.get(first.id)).uses).toBe(1)
    await expect(library.remove({ files: [first.id], folders: [] })).rejects.toMatchObject({
      status: 409,
      extra: { uses: [{ kind: 'picture', pageTitle: 'Shared', live: true }] },
    })
    await library.remove({ files: [first.id], folders: [] }, { replaceBy: second.id })
    expect((await pages.get(page.id)).picture).toBe(second.id)
    await library.remove({ files: [second.id], folders: [] }, { takeOff: true })
    expect((await pages.get(page.id)).picture).toBeNull()
  })

  it('let no tab overwrite another', async () => {
    const { pages } = test.trough
    const page = await pages.create({ title: 'Two tabs' })
    const save = (text: string, revision: number) => pages.saveDraft(page.id, { title: page.title, draft: pageOf(words(text)), revision })
    await save('mine', page.revision)
    await expect(save('theirs', page.revision)).rejects.toMatchObject({ status: 409 })
    expect(JSON.stringify((await pages.get(page.id)).draft)).toContain('mine')
  })

  it('do not go live with a button that leads nowhere, unless told to; visitors then do not see it', async () => {
    const { pages } = test.trough
    const page = await pages.create({ title: 'Gap' })
    const draft = pageOf(words('Words'), button({ target: null, label: 'Missing form' }))
    await pages.saveDraft(page.id, { title: page.title, draft, revision: page.revision })
    await expect(pages.publish(page.id)).rejects.toMatchObject({
      status: 409,
      extra: { broken: [{ fault: 'no-target', placement: { label: 'Missing form' } }] },
    })
    expect(await html('gap')).toBeUndefined()
    await pages.publish(page.id, { despite: true })
    expect(await html('gap')).not.toContain('Missing form')
  })

  it('follow their files: a new title or a deletion shows at once', async () => {
    const { pages, library } = test.trough
    const file = await test.put('list.pdf', '%PDF-1.7 list')
    const page = await pages.create({ title: 'Follows' })
    await pages.saveDraft(page.id, {
      title: page.title,
      draft: pageOf(button({ target: { kind: 'file', id: file.id }, label: '' })),
      revision: page.revision,
    })
    await pages.publish(page.id)
    expect(await html('follows')).toContain('/files/list.pdf?open')
    await library.change(file.id, { title: 'Winter list', handle: 'winter.pdf' })
    expect(await html('follows')).toMatch(/files\/winter\.pdf.*Winter list/)
    await library.remove({ files: [file.id], folders: [] }, { despite: true })
    expect(await html('follows')).not.toContain('winter.pdf')
    expect((await pages.get(page.id)).broken).toBe(1)
  })
})

describe('encodings', () => {
  it('hold the same page, each with a tag of its own', async () => {
    const find = (accept?: string) => test.trough.published.find('news', accept)
    const [plain, br, gzip] = [await find(), await find('br'), await find('gzip')]
    expect(brotliDecompressSync(br!.bytes).equals(plain!.bytes)).toBe(true)
    expect(gunzipSync(gzip!.bytes).equals(plain!.bytes)).toBe(true)
    expect(new Set([plain, br, gzip].map(variant => variant!.representation.etag)).size).toBe(3)
  })
})

describe('a page as a whole', () => {
  async function live(title: string, text = 'Words') {
    const { pages } = test.trough
    const page = await pages.create({ title })
    await pages.saveDraft(page.id, { title, draft: pageOf(words(text), button({ target: null, label: 'Later' })), revision: page.revision })
    await pages.publish(page.id, { despite: true })
    return pages.get(page.id)
  }

  it('redirects from every address it had, and not from one that another page has taken', async () => {
    const { pages, knownSlugs } = test.trough
    const page = await live('Kilns')
    await pages.change(page.id, { slug: 'kilns-and-wheels' })
    await pages.change(page.id, { slug: 'machines' })
    expect(await html('machines')).toContain('Kilns')
    expect(
      await Promise.all(['kilns', 'kilns-and-wheels', 'machines', 'never'].map(async slug => (await knownSlugs.find(slug))?.slug)),
    ).toEqual(['machines', 'machines', 'machines', undefined])
    const next = await pages.create({ title: 'Kilns' })
    expect(next.slug).toBe('kilns')
    expect(await knownSlugs.find('kilns')).toBeUndefined()
    await expect(pages.change(next.id, { slug: 'machines' })).rejects.toMatchObject({ status: 409, extra: { field: 'slug' } })
    // Back at a former address, which then redirects no longer.
    await pages.change(page.id, { slug: 'kilns-and-wheels' })
    expect([(await knownSlugs.find('kilns-and-wheels'))?.slug, (await knownSlugs.find('machines'))?.slug]).toEqual([
      'kilns-and-wheels',
      'kilns-and-wheels',
    ])
  })

  it('carries its description, and leaves the menu where it is told to', async () => {
    const { pages } = test.trough
    const page = await live('Described')
    await pages.change(page.id, { description: 'Clay & "glaze"' })
    expect(await html('described')).toContain('<meta name="description" content="Clay &amp; &quot;glaze&quot;">')
    expect((await pages.menu()).some(item => item.slug === 'described')).toBe(true)
    await pages.change(page.id, { inMenu: false })
    expect((await pages.menu()).some(item => item.slug === 'described')).toBe(false)
    expect(await html('described')).toContain('Words')
  })

  it('is taken from visitors and comes back, with all its versions and what each changed', async () => {
    const { pages } = test.trough
    const page = await live('Seasonal')
    await pages.saveDraft(page.id, { title: 'Seasonal', draft: pageOf(words('Other words')), revision: page.revision })
    await pages.publish(page.id)
    await pages.unpublish(page.id)
    expect(await html('seasonal')).toBeUndefined()
    expect(await pages.get(page.id)).toMatchObject({ published: null, waiting: true, live: null })
    const [second, first] = await pages.versions(page.id)
    expect(first).toMatchObject({ number: 1, live: false, changes: [{ kind: 'added', what: 'the page “Seasonal”' }] })
    expect(second).toMatchObject({
      number: 2,
      live: false,
      changes: [
        { kind: 'changed', what: 'text “Other words”' },
        { kind: 'removed', what: 'button “Later”' },
      ],
    })
    expect((await pages.version(page.id, 1)).document.content).toHaveLength(2)
    await expect(pages.version(page.id, 9)).rejects.toMatchObject({ status: 404 })
    await pages.publish(page.id)
    expect((await pages.versions(page.id)).map(version => version.live)).toEqual([true, false, false])
  })

  it('is copied with buttons that are counted by themselves', async () => {
    const { pages } = test.trough
    const page = await live('Original')
    const copy = await pages.duplicate(page.id)
    expect(copy).toMatchObject({ title: 'Original, copy', slug: 'original-copy', published: null, broken: 1 })
    const [old, fresh] = [page.draft.content[1], copy.draft.content[1]] as Extract<
      (typeof page.draft.content)[number],
      { type: 'downloadButton' }
    >[]
    expect(fresh!.attrs).toEqual({ ...old!.attrs, placement: fresh!.attrs.placement })
    expect(fresh!.attrs.placement).not.toBe(old!.attrs.placement)
  })

  it('is copied behind its gate', async () => {
    const { pages, gates } = test.trough
    const rule = gateRuleSchema.parse({ kind: 'terms', terms: { text: 'Be kind.', file: null } })
    const gate = await gates.create({ name: 'Kind ones', rule })
    const page = await live('Between us')
    await pages.change(page.id, { gate: gate.id })
    expect((await pages.duplicate(page.id)).gate).toBe(gate.id)
  })

  it('leaves the home page where it is, and live', async () => {
    const { pages } = test.trough
    const home = (await pages.list()).find(page => page.slug === '') ?? (await pages.create({ title: 'Home' }, { home: true }))
    await expect(pages.change(home.id, { slug: 'elsewhere' })).rejects.toMatchObject({ status: 409 })
    await expect(pages.unpublish(home.id)).rejects.toMatchObject({ status: 409 })
  })
})
