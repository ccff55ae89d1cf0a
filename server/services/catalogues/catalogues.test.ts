import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { Readable } from 'node:stream'
import { sql } from 'drizzle-orm'
import type { CatalogueItem } from '../../../core/catalogue/catalogue'
import { newField } from '../../../core/catalogue/field'
import { gateRuleSchema } from '../../../core/gate/gate'
import { newList } from '../../../core/catalogue/listAttrs'
import { speechOf } from '../../../core/language/speech'
import { button, pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createEntryTaken } from './taken'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
  await test.trough.site.set({ name: 'Marlpit', address: 'https://www.marlpit.example' })
})
afterAll(() => test.close())

const FIELDS = [
  newField('title', 'Name'),
  newField('number', 'Number', 'text', { unique: true }),
  newField('body', 'Body', 'choice', {
    options: [
      { id: 'stone', name: 'Stoneware' },
      { id: 'porc', name: 'Porcelain' },
    ],
  }),
  newField('price', 'Price', 'money', { currency: 'GBP' }),
  newField('sheet', 'Data sheet', 'file'),
]

let made = 0
async function clays(): Promise<CatalogueItem> {
  return test.trough.catalogues.create({ name: `Clays ${++made}`, one: 'clay', fields: FIELDS })
}

/** A catalogue with a list and pages, live. */
async function shown() {
  const { trough } = test
  const catalogue = await clays()
  const sheet = await test.put(`sheet-${made}.txt`, 'fire it slowly')
  const [white, smooth] = await trough.entries.create(catalogue.id, [
    { title: 'White stoneware', number: 'C1', body: 'stone', price: 12.5, sheet: sheet.id },
    { title: 'Smooth porcelain', number: 'C2', body: 'porc' },
  ])
  const { list, layout } = await trough.layingOut.both(catalogue.id)
  await trough.entries.publish(catalogue.id, undefined)
  await trough.pages.publish(layout)
  const page = await trough.pages.publish(list)
  return { catalogue, sheet, white: white!, smooth: smooth!, page, layout }
}
const html = async (slug: string, asked?: string) =>
  (await test.trough.published.find(slug, undefined, asked === undefined ? undefined : new URLSearchParams(asked)))?.bytes.toString()

describe('a catalogue', () => {
  it('lists its entries on a page, each with its file, and gives each a page of its own', async () => {
    const { catalogue, sheet, page } = await shown()
    const listed = (await html(page.slug))!
    expect(listed).toContain(`href="/${catalogue.slug}/white-stoneware"`)
    expect(listed).toContain('£12.50')
    // The button of the one entry that has a sheet; the other shows none.
    expect(listed.match(new RegExp(`href="/files/${sheet.handle}`, 'g'))).toHaveLength(1)
    const own = (await html(`${catalogue.slug}/white-stoneware`))!
    expect(own).toContain('<h1>White stoneware</h1>')
    expect(own).toContain(`href="/files/${sheet.handle}`)
    expect(own).toContain('rel="next"')
    expect(await html(`${catalogue.slug}/smooth-porcelain`)).not.toContain('/files/')
  })

  it('shows a change to whoever asks next, once it is live', async () => {
    const { catalogue, white, page } = await shown()
    const [changed] = await test.trough.entries.change(catalogue.id, [
      { id: white.id, values: { title: 'Whitest stoneware', price: 13 }, revision: white.revision },
    ])
    expect(changed).toMatchObject({ waiting: true, live: true, values: { price: 13 } })
    expect(await html(page.slug)).toContain('White stoneware')
    await test.trough.entries.publish(catalogue.id, [white.id])
    expect(await html(page.slug)).toContain('£13.00')
    expect(await html(`${catalogue.slug}/white-stoneware`)).toContain('<h1>Whitest stoneware</h1>')
  })

  it('tells a desk that knows it already only what has changed since', async () => {
    const { catalogue, white, smooth } = await shown()
    const since = (stamp: string) => test.trough.entries.listSince(catalogue.id, { since: stamp })
    const first = await test.trough.entries.listSince(catalogue.id, { first: 1 })
    expect([first.whole, first.items.map(({ id }) => id)]).toEqual([true, [white.id]])
    await test.trough.entries.change(catalogue.id, [{ id: smooth.id, values: { price: 9 }, revision: smooth.revision }])
    const changed = await since(first.stamp)
    expect([changed.whole, changed.items.map(({ values }) => values.price)]).toEqual([false, [9]])
    await test.trough.entries.publish(catalogue.id, [smooth.id])
    expect(await since(changed.stamp)).toMatchObject({ whole: false, items: [{ id: smooth.id, waiting: false }] })
    // One that came, or went, has its place among all.
    await test.trough.entries.remove(catalogue.id, [white.id])
    expect(await since(changed.stamp)).toMatchObject({ whole: true, items: [{ id: smooth.id }] })
  })

  it('is walked again when an entry changes: one lacks the file that others have, or a list has lost its catalogue', async () => {
    const { catalogue, sheet, smooth, page, layout } = await shown()
    const found = async (id: string) =>
      (await test.trough.walk.state()).findings.filter(finding => finding.page.id === id).map(({ check, words }) => [check, words])
    expect(await found(layout)).toEqual([['empty-entries', '1 of 2 have no “Data sheet”, and nothing in its place: “Smooth porcelain”.']])
    await test.trough.entries.change(catalogue.id, [{ id: smooth.id, values: { sheet: sheet.id }, revision: smooth.revision }])
    await test.trough.entries.publish(catalogue.id, [smooth.id])
    expect(await found(layout)).toEqual([])
    expect(await found(page.id)).toEqual([])
    await test.trough.catalogues.remove(catalogue.id, { despite: true })
    expect(await found(page.id)).toEqual([['nowhere', 'This list is of a catalogue that is gone.']])
  })

  it('is narrowed by what stands in the address', async () => {
    const { page } = await shown()
    const document = (await test.trough.pages.get(page.id)).draft
    const placement = (document.content[0] as { attrs: { placement: string } }).attrs.placement
    const draft = pageOf({
      ...document.content[0],
      attrs: {
        ...newList(placement, (document.content[0] as { attrs: { catalogue: string } }).attrs.catalogue),
        narrow: ['body'],
        search: true,
      },
    } as never)
    const { revision } = await test.trough.pages.get(page.id)
    await test.trough.pages.saveDraft(page.id, { title: page.title, draft, revision })
    await test.trough.pages.publish(page.id)
    const narrowed = (await html(page.slug, `list=${placement}&body=porcelain`))!
    expect([narrowed.includes('Smooth porcelain</'), narrowed.includes('White stoneware</')]).toEqual([true, false])
    const searched = (await html(page.slug, `list=${placement}&q=whit`))!
    expect([searched.includes('Smooth porcelain</'), searched.includes('White stoneware</')]).toEqual([false, true])
    // What is asked of another list is not asked of this one.
    expect(await html(page.slug, 'list=zzzzzzzzzz&q=whit')).toContain('Smooth porcelain')
  })

  it('refuses what a field cannot hold, two alike, and what somebody else changed', async () => {
    const { catalogue, white } = await shown()
    const change = (values: Record<string, string | number>, revision = white.revision) =>
      test.trough.entries.change(catalogue.id, [{ id: white.id, values, revision }])
    await expect(change({ price: 'much' })).rejects.toMatchObject({ status: 422, extra: { field: 'price', entry: white.id } })
    await expect(change({ body: 'bronze' })).rejects.toMatchObject({ status: 422 })
    await expect(change({ number: 'C2' })).rejects.toMatchObject({ status: 409, extra: { field: 'number' } })
    await expect(change({ title: '' })).rejects.toMatchObject({ status: 422, extra: { field: 'title' } })
    await change({ price: 14 })
    await expect(change({ price: 15 })).rejects.toMatchObject({ status: 409, extra: { entry: white.id } })
  })

  it('keeps an address that changes, and leads on from it', async () => {
    const { catalogue, white } = await shown()
    await test.trough.entries.moveTo(white.id, 'white')
    expect(await test.trough.filling.place(`${catalogue.slug}/white-stoneware`)).toMatchObject({ slug: `${catalogue.slug}/white` })
    await test.trough.catalogues.change(catalogue.id, { slug: `bodies-${made}` })
    expect(await test.trough.filling.place(`${catalogue.slug}/white`)).toMatchObject({ slug: `bodies-${made}/white` })
    await expect(test.trough.entries.moveTo(white.id, 'smooth-porcelain')).rejects.toMatchObject({ status: 409 })
  })

  it('is known where a file is used, and follows when another takes its place', async () => {
    const { catalogue, sheet, white, page } = await shown()
    const other = await test.put(`other-${made}.txt`, 'newer')
    const places = await test.trough.library.uses(sheet.id)
    expect(places.map(({ kind, label, section, live }) => [kind, label, section, live])).toEqual([
      ['entry', 'White stoneware', 'Data sheet', true],
    ])
    const { undo } = await test.trough.replacing.replace({ kind: 'file', id: sheet.id }, { kind: 'file', id: other.id })
    const held = async () => (await test.trough.entries.list(catalogue.id)).find(({ id }) => id === white.id)?.values.sheet
    expect(await held()).toBe(other.id)
    expect(await html(page.slug)).toContain(`/files/${other.handle}`)
    await test.trough.replacing.takeBack(undo)
    expect(await held()).toBe(sheet.id)
    await expect(test.trough.library.remove({ files: [sheet.id], folders: [] }, {})).rejects.toMatchObject({ status: 409 })
    await test.trough.library.remove({ files: [sheet.id], folders: [] }, { takeOff: true })
    expect(await held()).toBeUndefined()
  })

  it('stands behind a gate with all its pages, where what they are laid out in does', async () => {
    const { catalogue, layout, page } = await shown()
    const rule = gateRuleSchema.parse({ kind: 'terms', terms: { text: 'Be kind.', file: null } })
    const gate = (await test.trough.gates.create({ name: `Trade ${made}`, rule })).id
    await test.trough.pages.change(layout, { gate })
    expect(await test.trough.filling.place(`${catalogue.slug}/white-stoneware`)).toMatchObject({ gate })
    // The list is open, and says what is asked further on.
    expect(await html(page.slug)).toContain('terms to accept')
    await test.trough.gates.change(gate, { rule: { hidden: true } })
    expect(await html(page.slug)).not.toContain(`href="/${catalogue.slug}/`)
    await expect(test.trough.pages.change(layout, { slug: 'elsewhere' })).rejects.toMatchObject({ status: 409 })
  })

  it('loses nothing unasked when a field changes', async () => {
    const { catalogue } = await shown()
    const asText = FIELDS.map(field => (field.id === 'price' ? newField('price', 'Price') : field))
    const changed = await test.trough.catalogues.changeFields(catalogue.id, { fields: asText, revision: 1, despite: false })
    expect((await test.trough.entries.list(catalogue.id))[0]!.values.price).toBe('12.5')
    const asFile = asText.map(field => (field.id === 'number' ? newField('number', 'Number', 'file') : field))
    await expect(
      test.trough.catalogues.changeFields(catalogue.id, { fields: asFile, revision: changed.revision, despite: false }),
    ).rejects.toMatchObject({ status: 409, extra: { losses: [{ field: 'number', entries: 2 }] } })
    await expect(test.trough.catalogues.changeFields(catalogue.id, { fields: asFile, revision: 1, despite: true })).rejects.toMatchObject({
      status: 409,
    })
  })

  it('goes live and leaves at set times, each of which stands by itself', async () => {
    const { trough } = test
    const catalogue = await clays()
    const [entry] = await trough.entries.create(catalogue.id, [{ title: 'Class', number: `T${made}` }])
    const live = async () => (await trough.entries.list(catalogue.id))[0]!.live
    await trough.timetable.set({ kind: 'entry', entry: entry!.id, to: 'live' }, '2099-12-01T08:00')
    await trough.timetable.set({ kind: 'entry', entry: entry!.id, to: 'off' }, '2099-12-31T08:00')
    const [first, last, ...more] = await trough.timetable.list()
    expect([first?.act, last?.act, more]).toEqual([
      { kind: 'entry', entry: entry!.id, to: 'live' },
      { kind: 'entry', entry: entry!.id, to: 'off' },
      [],
    ])
    await trough.database.execute(sql`update timetable set at = now() - interval '2 minutes' where id = ${first!.id}`)
    await trough.timetable.run()
    expect(await live()).toBe(true)
    await trough.database.execute(sql`update timetable set at = now() - interval '1 minute' where id = ${last!.id}`)
    await trough.timetable.run()
    expect(await live()).toBe(false)
    // What could not be done then is said now.
    await trough.entries.remove(catalogue.id, [entry!.id])
    await expect(trough.timetable.set({ kind: 'entry', entry: entry!.id, to: 'live' }, '2099-12-01T08:00')).rejects.toMatchObject({
      status: 409,
    })
  })

  it('tells of new entries in a feed, the newest first, where all may see their pages', async () => {
    const { catalogue, white, layout } = await shown()
    const [red] = await test.trough.entries.create(catalogue.id, [{ title: 'Red', number: 'C3' }])
    await test.trough.entries.publish(catalogue.id, [red!.id])
    const feed = (open = true) => test.trough.feeds.at(catalogue.slug, () => open, speechOf('en'))
    expect((await feed())?.entries[0]).toMatchObject({ title: 'Red', slug: `${catalogue.slug}/red` })
    const first = (await feed())!.entries.find(({ title }) => title === 'White stoneware')!
    await test.trough.entries.change(catalogue.id, [{ id: white.id, revision: 1, values: { price: 3 } }])
    await test.trough.entries.publish(catalogue.id, [white.id])
    // Changed, it is no new one.
    const again = (await feed())!
    expect(again.entries.map(({ title }) => title)[0]).toBe('Red')
    expect(again.entries.find(({ title }) => title === 'White stoneware')).toMatchObject({ published: first.published })
    expect(again.entries.find(({ title }) => title === 'White stoneware')!.updated > first.updated).toBe(true)
    expect(await feed(false)).toBeUndefined()
    // Who follows it by its former address still does.
    const former = catalogue.slug
    await test.trough.catalogues.change(catalogue.id, { slug: `${former}-moved` })
    expect(await test.trough.feeds.at(former, () => true, speechOf('en'))).toMatchObject({ slug: `${former}-moved` })
    await test.trough.catalogues.change(catalogue.id, { slug: former })
    expect(await html(`${catalogue.slug}/red`)).toContain(
      `type="application/atom+xml" title="${catalogue.name}" href="/${catalogue.slug}/feed.atom"`,
    )
    await test.trough.pages.unpublish(layout)
    expect(await feed()).toBeUndefined()
  })

  it('holds back an entry that something leads to', async () => {
    const { catalogue, white, smooth } = await shown()
    const page = await test.trough.pages.create(
      { title: 'News' },
      { draft: pageOf(button({ target: { kind: 'entry', id: white.id }, label: 'New clay' })) },
    )
    await expect(test.trough.entries.remove(catalogue.id, [white.id, smooth.id])).rejects.toMatchObject({
      status: 409,
      extra: { pages: [page.title] },
    })
    expect(await test.trough.entries.list(catalogue.id)).toHaveLength(2)
    expect(await test.trough.entries.places(white.id)).toEqual([{ id: page.id, title: 'News' }])
    expect(await test.trough.entries.places(smooth.id)).toEqual([])
    await test.trough.entries.remove(catalogue.id, [white.id], { despite: true })
    await test.trough.entries.remove(catalogue.id, [smooth.id])
    expect(await test.trough.entries.list(catalogue.id)).toEqual([])
  })

  it('counts what was taken of its files, and is in a bundle of a field as it is live', async () => {
    const { catalogue, sheet, smooth } = await shown()
    const { bundles, entries, entryIndex } = test.trough
    const bundle = await bundles.create({ title: `Sheets ${made}`, folder: null, files: [], folders: [] })
    const held = { id: 'held11', kind: 'field' as const, within: '', catalogue: catalogue.id, field: 'sheet', name: '' }
    const { revision } = await bundles.change(bundle.id, { entries: [held], revision: 1 })
    const members = async () => (await bundles.details(bundle.id)).members.map(({ path }) => path)
    expect(await members()).toEqual([sheet.fileName])
    const other = await test.put(`other-${made}.txt`, 'x')
    await entries.change(catalogue.id, [{ id: smooth.id, revision: smooth.revision, values: { sheet: other.id } }])
    expect(await members()).toEqual([sheet.fileName])
    await entries.publish(catalogue.id, undefined)
    expect(await members()).toEqual([sheet.fileName, other.fileName])
    expect(revision).toBe(2)
    const taken = createEntryTaken(
      entryIndex,
      async () =>
        new Map([
          [sheet.id, 3],
          [other.id, 2],
          ['elsewhere', 9],
        ]),
    )
    expect((await taken(catalogue.id)).map(({ count }) => count)).toEqual([3, 2])
  })

  it('takes entries out, and brings them back as they were', async () => {
    const { catalogue, white, page } = await shown()
    await test.trough.entries.remove(catalogue.id, [white.id])
    expect(await html(page.slug)).not.toContain('White stoneware')
    expect(await html(`${catalogue.slug}/white-stoneware`)).toBeUndefined()
    await test.trough.entries.restore(catalogue.id, [white.id])
    expect(await html(`${catalogue.slug}/white-stoneware`)).toContain('White stoneware')
  })

  it('an entry that is back at an address another had meanwhile moves on from there, as any does', async () => {
    const { catalogue, white } = await shown()
    const { entries } = test.trough
    await entries.remove(catalogue.id, [white.id])
    const [other] = await entries.create(catalogue.id, [{ title: 'White stoneware', number: 'C3' }])
    await entries.moveTo(other!.id, 'whitest')
    await entries.restore(catalogue.id, [white.id])
    expect((await entries.moveTo(white.id, 'white')).slug).toBe('white')
    expect(await html(`${catalogue.slug}/white-stoneware`)).toContain('White stoneware')
  })

  it('a catalogue that took the former address of another moves on from there', async () => {
    const { catalogues } = test.trough
    const first = await catalogues.create({ name: 'Slips', one: 'slip' })
    await catalogues.change(first.id, { slug: 'slips-of-before' })
    const second = await catalogues.create({ name: 'Slips', one: 'slip' })
    expect(second.slug).toBe('slips')
    expect((await catalogues.change(second.id, { slug: 'slips-of-now' })).slug).toBe('slips-of-now')
  })
})

const look = (text: string, name = 'glazes.csv', catalogue: string | null = null) =>
  test.trough.importing.look(Readable.from([Buffer.from(text)]), name, catalogue)

describe('a table that is brought in', () => {
  it('becomes a catalogue, changes only what changed the second time, and is taken back as one', async () => {
    await test.put('celadon.pdf', '%PDF-1.7 celadon')
    const table = 'Number;Name;Cone;Price;Sheet\r\nG1;Celadon;6;"12,50 €";celadon.pdf\r\nG2;Tenmoku;9;"9,00 €";\r\n'
    const first = await look(table)
    expect(first.plan).toMatchObject({ name: 'Glazes', one: 'glaze', key: 0 })
    const { job, catalogue } = await test.trough.importing.bring(first.id, first.plan, 'owner@marlpit.example')
    await test.trough.jobs.ended(job.id)
    const { fields, key } = await test.trough.catalogues.get(catalogue)
    expect(fields.map(({ name, kind }) => `${name} ${kind}`)).toEqual([
      'Name text',
      'Number text',
      'Cone number',
      'Price money',
      'Sheet file',
    ])
    const entries = await test.trough.entries.list(catalogue)
    const price = fields[3]!.id
    expect(entries.map(({ values }) => [values.title, values[price]])).toEqual([
      ['Celadon', 12.5],
      ['Tenmoku', 9],
    ])
    expect(key).toBe(fields[1]!.id)

    const second = await look(
      table.replace('9,00', '9,50').replace('Celadon', 'Celadon') + 'G3;Shino;9;"11,00 €";\r\n',
      'glazes.csv',
      catalogue,
    )
    const forecast = await test.trough.importing.forecast(second.id, second.plan)
    expect(forecast.counts).toEqual({ new: 1, changed: 1, same: 1, others: 0, left: 0, wrong: 0 })
    const again = await test.trough.importing.bring(second.id, second.plan, '')
    await test.trough.jobs.ended(again.job.id)
    expect((await test.trough.entries.list(catalogue)).map(({ values }) => values[price])).toEqual([12.5, 9.5, 11])
    const [latest] = await test.trough.importing.list(catalogue)
    await test.trough.importing.undo(latest!.id)
    expect((await test.trough.entries.list(catalogue)).map(({ values }) => values[price])).toEqual([12.5, 9])
  })

  it('says which cells are wrong, and brings in the rest when that is wanted', async () => {
    const catalogue = await clays()
    const { id, plan } = await look('Name,Number,Price,Body\nGrey,C7,lots,Stoneware\nBuff,C7,3,Terracotta\n,C8,3,\n', 'c.csv', catalogue.id)
    const { wrong, counts } = await test.trough.importing.forecast(id, plan)
    expect(wrong.map(({ row, column }) => [row, column])).toEqual([
      [2, 'Price'],
      [3, 'Number'],
      [4, 'Name'],
    ])
    expect(counts).toMatchObject({ new: 1, wrong: 1, left: 2 })
    await expect(test.trough.importing.bring(id, plan, '')).rejects.toMatchObject({ status: 422 })
    const { job } = await test.trough.importing.bring(id, { ...plan, despite: true }, '')
    await test.trough.jobs.ended(job.id)
    expect((await test.trough.entries.list(catalogue.id)).map(({ values }) => values.title)).toEqual(['Grey'])
  })

  it('comes back as it went out, in each format', async () => {
    const { catalogue } = await shown()
    for (const format of ['csv', 'xlsx', 'json'] as const) {
      const { bytes, fileName } = await test.trough.entryExport.write(catalogue.id, format)
      const { id, plan } = await test.trough.importing.look(Readable.from([bytes]), fileName, catalogue.id)
      expect([format, (await test.trough.importing.forecast(id, plan)).counts]).toEqual([
        format,
        { new: 0, changed: 0, same: 2, others: 0, left: 0, wrong: 0 },
      ])
    }
  })

  it('leaves what somebody writes into other cells while it comes in, and comes in once', async () => {
    const { catalogue, white } = await shown()
    const { id, plan } = await look('Number,Name,Price\nC1,White stoneware,20\nC9,Grey,3\n', 'c.csv', catalogue.id)
    const both = await Promise.allSettled([test.trough.importing.bring(id, plan, ''), test.trough.importing.bring(id, plan, '')])
    const begun = both.flatMap(each => (each.status === 'fulfilled' ? [each.value] : []))
    expect(begun).toHaveLength(1)
    await test.trough.jobs.ended(begun[0]!.job.id)
    const entries = await test.trough.entries.list(catalogue.id)
    expect(entries.map(({ values }) => values.number)).toEqual(['C1', 'C2', 'C9'])
    // What the table does not say stays.
    expect(entries.find(each => each.id === white.id)?.values).toMatchObject({ price: 20, body: 'stone', sheet: white.values.sheet })
  })

  it('is taken back with the entries that it put in the bin; what visitors saw goes to the bin, not for good', async () => {
    const { catalogue, smooth } = await shown()
    const { id, plan } = await look('Number,Name\nC1,White stoneware\nC8,Speckled\nC9,Grey\n', 'c.csv', catalogue.id)
    const { job } = await test.trough.importing.bring(id, { ...plan, others: 'bin' }, '')
    await test.trough.jobs.ended(job.id)
    const titles = async () => (await test.trough.entries.list(catalogue.id)).map(({ values }) => values.title)
    expect(await titles()).toEqual(['White stoneware', 'Speckled', 'Grey'])
    const speckled = (await test.trough.entries.list(catalogue.id)).find(({ values }) => values.title === 'Speckled')!
    await test.trough.entries.publish(catalogue.id, [speckled.id])
    const [brought] = await test.trough.importing.list(catalogue.id)
    expect(await test.trough.importing.undo(brought!.id)).toEqual({ changedSince: 0 })
    expect(await titles()).toEqual(['White stoneware', 'Smooth porcelain'])
    expect((await test.trough.entries.binned(catalogue.id)).map(({ title }) => title)).toEqual(['Speckled'])
    expect((await test.trough.entries.list(catalogue.id)).some(entry => entry.id === smooth.id)).toBe(true)
  })

  it('is held against the fields as they are when it comes in', async () => {
    const catalogue = await clays()
    const { id, plan } = await look('Number,Name,Grog\nC1,Crank,coarse\n', 'c.csv', catalogue.id)
    const coming = test.trough.importing.bring(id, plan, '')
    await coming.then(({ job }) => test.trough.jobs.ended(job.id))
    expect((await test.trough.catalogues.get(catalogue.id)).fields.at(-1)?.name).toBe('Grog')
    // The same plan once more: the table is in.
    await expect(test.trough.importing.bring(id, plan, '')).rejects.toMatchObject({ status: 404 })
  })
})
