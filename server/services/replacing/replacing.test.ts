import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Target } from '../../../core/page/schema'
import type { Appearance } from '../../../core/look/appearance'
import { DEFAULT_LOOK } from '../../../core/look/builtin'
import { buttonsIn } from '../../../core/page/buttonLooks'
import { placementsOf } from '../../../core/page/targets'
import { button, heading, pageOf, shelf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const fileOf = ({ id }: { id: string }) => ({ kind: 'file' as const, id })

it('another file is put in the place of one everywhere, and that is taken back', async () => {
  const { library, pages, signposts, bundles, replacing } = test.trough
  const [old, next] = [await test.put('old.txt', 'old'), await test.put('next.txt', 'next one')]
  const page = await pages.create({ title: 'Page' })
  // The other file is there already, too: that place stays its own when the change is taken back.
  const before = pageOf(
    button({ target: { kind: 'file', id: old.id } }),
    button({ placement: 'cccccccccc', target: { kind: 'file', id: next.id } }),
  )
  await pages.saveDraft(page.id, { title: 'Page', draft: before, revision: 1 })
  await pages.publish(page.id)
  const post = await signposts.create({ title: 'Current', file: old.id })
  const bundle = await bundles.create({ title: 'Pack', folder: null, files: [old.id], folders: [] })

  const { places, undo } = await replacing.replace(fileOf(old), fileOf(next))
  expect(places).toBe(3)
  const targets = async () => {
    const { draft, live } = await pages.get(page.id)
    return [draft, live!.document].map(document => buttonsIn(document).map(({ target }) => (target as { id: string }).id))
  }
  const members = async () => (await bundles.details(bundle.id)).entries.map(entry => 'file' in entry && entry.file)
  expect([await targets(), (await signposts.get(post.id)).file, await members()]).toEqual([
    [
      [next.id, next.id],
      [next.id, next.id],
    ],
    next.id,
    [next.id],
  ])
  expect((await library.get(old.id)).uses).toBe(0)
  await replacing.takeBack(undo)
  expect([await targets(), (await signposts.get(post.id)).file, await members()]).toEqual([
    [
      [old.id, next.id],
      [old.id, next.id],
    ],
    old.id,
    [old.id],
  ])
  await expect(replacing.takeBack(undo)).rejects.toThrow('can no longer be taken back')
})

it('is taken back on pages that were written on, or went live, since; what was written stays', async () => {
  const { replacing, pages } = test.trough
  const [old, next] = [await test.put('was.txt', 'was'), await test.put('is.txt', 'is')]
  const made = pageOf(button({ target: fileOf(old) }), button({ placement: 'cccccccccc', target: fileOf(old) }))
  const page = await pages.create({ title: 'Written on' }, { draft: made })
  await pages.publish(page.id)
  const { undo } = await replacing.replace(fileOf(old), fileOf(next))
  const { draft, revision } = await pages.get(page.id)
  const own: Target = { kind: 'address', href: 'https://own.example' }
  const written = pageOf(heading('Written since'), draft.content[0]!, button({ placement: 'cccccccccc', target: own }))
  await pages.saveDraft(page.id, { title: 'Written on', draft: written, revision })
  await pages.publish(page.id)
  await replacing.takeBack(undo)
  const now = await pages.get(page.id)
  for (const document of [now.draft, now.live!.document]) {
    expect(document.content[0]).toEqual(heading('Written since'))
    expect(buttonsIn(document).map(({ target }) => target)).toEqual([fileOf(old), own])
  }
})

it('is taken back on a page that went live since, on what was in its draft alone as well', async () => {
  const { replacing, pages } = test.trough
  const [old, next] = [await test.put('former.txt', 'former'), await test.put('latter.txt', 'latter')]
  const first = button({ target: fileOf(old) })
  const page = await pages.create({ title: 'Waiting' }, { draft: pageOf(first) })
  await pages.publish(page.id)
  const draft = pageOf(first, button({ placement: 'cccccccccc', target: fileOf(old) }))
  await pages.saveDraft(page.id, { title: 'Waiting', draft, revision: (await pages.get(page.id)).revision })
  const { undo } = await replacing.replace(fileOf(old), fileOf(next))
  const replaced = await pages.get(page.id)
  await pages.saveDraft(page.id, {
    title: 'Waiting',
    draft: pageOf(...replaced.draft.content, heading('More')),
    revision: replaced.revision,
  })
  await pages.publish(page.id)
  await replacing.takeBack(undo)
  const now = await pages.get(page.id)
  for (const document of [now.draft, now.live!.document]) expect(document).toEqual(pageOf(...draft.content, heading('More')))
})

it('is not taken back over a bundle or a look that was changed since', async () => {
  const { replacing, bundles, looks } = test.trough
  const bytes = (background: string) =>
    sharp({ create: { width: 60, height: 40, channels: 3, background } })
      .png()
      .toBuffer()
  const [old, next] = [await test.put('old.png', await bytes('#1F5A57')), await test.put('next.png', await bytes('#A9795A'))]
  const fill = { kind: 'picture' as const, file: old.id, veil: 40, colour: 'ink' }
  const look = await looks.create({ name: 'Filled', appearance: { ...DEFAULT_LOOK.appearance, fill } as Appearance })
  const bundle = await bundles.create({ title: 'Kept', folder: null, files: [old.id], folders: [] })

  const first = await replacing.replace(fileOf(old), fileOf(next))
  const { entries, revision } = await bundles.change(bundle.id, { entries: [], revision: (await bundles.details(bundle.id)).revision })
  await expect(replacing.takeBack(first.undo)).rejects.toMatchObject({ status: 409 })
  expect(await bundles.details(bundle.id)).toMatchObject({ entries, revision })

  const second = await replacing.replace(fileOf(next), fileOf(old))
  const { appearance } = await looks.change(look.id, { appearance: DEFAULT_LOOK.appearance })
  await expect(replacing.takeBack(second.undo)).rejects.toMatchObject({ status: 409 })
  expect((await looks.list()).find(({ id }) => id === look.id)!.appearance).toEqual(appearance)
})

it('is refused whole where the other file cannot be put everywhere', async () => {
  const { replacing, bundles, signposts } = test.trough
  const one = await test.put('one.txt', 'one')
  const pack = await bundles.create({ title: 'One', folder: null, files: [one.id], folders: [] })
  const post = await signposts.create({ title: 'One', file: one.id })
  // A bundle cannot lie in a bundle.
  await expect(replacing.replace(fileOf(one), fileOf(pack))).rejects.toThrow('is a bundle')
  expect((await signposts.get(post.id)).file).toBe(one.id)
  await expect(replacing.replace(fileOf(one), fileOf(one))).rejects.toThrow('can take its own place')
})

it('two who replace the same file at once leave everything with one of the two, never some with each', async () => {
  const { replacing, pages } = test.trough
  const [old, one, other] = await Promise.all(['o.txt', 'p.txt', 'q.txt'].map(name => test.put(name, name)))
  const made = await Promise.all(
    ['A', 'B', 'C'].map(async title => {
      const page = await pages.create({ title }, { draft: pageOf(button({ target: { kind: 'file', id: old!.id } })) })
      await pages.publish(page.id)
      return page.id
    }),
  )
  await Promise.all([replacing.replace(fileOf(old!), fileOf(one!)), replacing.replace(fileOf(old!), fileOf(other!))])
  const led = new Set<string>()
  for (const id of made) for (const { target } of buttonsIn((await pages.get(id)).live!.document)) led.add((target as { id: string }).id)
  expect(led.size).toBe(1)
  expect(led.has(old!.id)).toBe(false)
})

describe('a target that is no file', () => {
  const shop = { kind: 'address' as const, href: 'https://shop.example/clay' }
  async function pageWith(title: string, ...blocks: Parameters<typeof pageOf>) {
    const { pages } = test.trough
    const { id } = await pages.create({ title }, { draft: pageOf(...blocks) })
    await pages.publish(id, { despite: true })
    return id
  }
  const targetsOn = async (id: string) => {
    const { draft, live } = await test.trough.pages.get(id)
    return [draft, live!.document].map(document => placementsOf(document).map(({ targets }) => targets[0] ?? null))
  }

  it('is replaced everywhere, drafts and live pages alike, and taken back', async () => {
    const { replacing, pages } = test.trough
    const sale = await pages.create({ title: 'Sale' })
    await pages.publish(sale.id)
    const [from, file] = [{ kind: 'page' as const, id: sale.id }, await test.put('sale.txt', 'sale')]
    const id = await pageWith('Leads on', heading('Offers'), button({ target: from }), button({ placement: 'bbbbbbbbbb', target: shop }))
    expect((await replacing.places(from)).uses).toMatchObject([{ pageTitle: 'Leads on', section: 'Offers', draft: true, live: true }])
    const { places, undo } = await replacing.replace(from, fileOf(file))
    expect(places).toBe(1)
    expect(await targetsOn(id)).toEqual([
      [fileOf(file), shop],
      [fileOf(file), shop],
    ])
    expect((await replacing.places(from)).uses).toEqual([])
    await replacing.takeBack(undo)
    expect(await targetsOn(id)).toEqual([
      [from, shop],
      [from, shop],
    ])
  })

  it('outside the site is the same however its address is written (RFC 3986, 6.2.2; RFC 3966, 3)', async () => {
    const { replacing } = test.trough
    const phone = (number: string) => ({ kind: 'phone' as const, number })
    const id = await pageWith(
      'Written otherwise',
      button({ target: { kind: 'address', href: 'HTTPS://SHOP.example:443/glaze/../clay' } }),
      button({ placement: 'bbbbbbbbbb', target: phone('+44 (20) 7946-0000') }),
    )
    expect((await replacing.places(phone('+442079460000'))).uses).toHaveLength(1)
    await replacing.replace(shop, { kind: 'email', address: 'shop@marlpit.example' })
    await replacing.replace(phone('+44 20 7946 0000'), null)
    expect(await targetsOn(id)).toEqual([
      [{ kind: 'email', address: 'shop@marlpit.example' }],
      [{ kind: 'email', address: 'shop@marlpit.example' }],
    ])
  })

  it('can be a signpost that buttons of a file lead by from then on; where the file is shown, it stays', async () => {
    const { replacing, signposts } = test.trough
    const [file, other] = [await test.put('list.txt', 'list'), await test.put('other.txt', 'other')]
    const post = await signposts.create({ title: 'Price list of today', file: file.id })
    const id = await pageWith(
      'By signpost',
      button({ target: fileOf(file) }),
      shelf({ placement: 'cccccccccc', source: { kind: 'files', ids: [file.id, other.id] } }),
    )
    const { places } = await replacing.replace(fileOf(file), { kind: 'signpost', id: post.id })
    expect(places).toBe(1)
    expect(await targetsOn(id)).toEqual([
      [{ kind: 'signpost', id: post.id }, fileOf(file)],
      [{ kind: 'signpost', id: post.id }, fileOf(file)],
    ])
  })

  it('is not led back to once it is gone', async () => {
    const { replacing, pages } = test.trough
    const gone = await pages.create({ title: 'Gone soon' })
    const id = await pageWith('Led away', button({ target: { kind: 'page', id: gone.id } }))
    const { undo } = await replacing.replace({ kind: 'page', id: gone.id }, shop)
    await pages.remove(gone.id)
    await expect(replacing.takeBack(undo)).rejects.toMatchObject({ status: 404 })
    expect(await targetsOn(id)).toEqual([[shop], [shop]])
  })

  it('is refused where the other is not there', async () => {
    const { replacing, pages } = test.trough
    const gone = { kind: 'page' as const, id: 'gone' }
    await expect(replacing.replace(shop, gone)).rejects.toMatchObject({ status: 404 })
    const head = (await pages.list()).find(page => page.edge)!
    await expect(replacing.replace(shop, { kind: 'page', id: head.id })).rejects.toMatchObject({ status: 422 })
    const file = await test.put('taken.txt', 'taken')
    await expect(replacing.replace(fileOf(file), null)).rejects.toMatchObject({ status: 422 })
  })
})
