import { fileQuerySchema } from '../../core/files/query'
import sharp from 'sharp'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { readSearchQuery } from '../../core/search/searchQuery'
import { PLAIN_SEE } from '../../core/see/seeAddress'
import { gateRuleSchema } from '../../core/gate/gate'
import { Problem } from '../../core/problem'
import type { FileItem } from '../../core/files/fileItem'
import { newField } from '../../core/catalogue/field'
import { speechOf } from '../../core/language/speech'
import { BUILT_IN_LOOKS } from '../../core/look/builtin'
import type { NewShelfLook } from '../../core/shelf/shelfLook'
import type { PageDetails } from '../../core/page/pageItem'
import { button, letterbox, pageOf, shelf, words } from '../../core/testing/pages'
import { STRANGER, listen, openTestTrough, type TestTrough } from '../testing/harness'
import { openServices, type Services } from '../trough'
import { createEvents } from './events'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
  await build()
  // What is kept in memory is there before the first change; what is seen after each of them is there before the next.
  await seen(test.trough)
})
afterAll(() => test.close())

const made = {} as {
  list: FileItem
  plan: FileItem
  tile: FileItem
  folder: string
  bundle: FileItem
  page: PageDetails
  signpost: string
  look: string
  catalogue: string
  entries: string[]
}

const tile = (background: string) =>
  sharp({ create: { width: 60, height: 40, channels: 3, background } })
    .png()
    .toBuffer()

async function build(): Promise<void> {
  const { library, bundles, pages, signposts, looks, site } = test.trough
  await site.set({ name: 'Marlpit', address: 'https://www.marlpit.example' })
  made.folder = (await library.folders.create({ name: 'Sheets', parent: null })).id
  made.list = await test.putInto('price-list-2026-11.pdf', '%PDF-1.7 list', { folder: made.folder })
  made.plan = await test.put('plan.txt', 'a plan')
  made.tile = await test.put('tile.png', await tile('#1F5A57'))
  made.bundle = await bundles.create({ title: 'All of it', folder: null, files: [made.plan.id], folders: [made.folder] })
  made.signpost = (await signposts.create({ title: 'Current list', file: made.list.id })).id
  made.look = (await looks.create({ name: 'Kiln', appearance: BUILT_IN_LOOKS[0]!.appearance })).id
  const page = await pages.create({ title: 'Home' }, { home: true })
  const draft = pageOf(
    words('Welcome'),
    button({ placement: 'aaaaaaaaaa', target: { kind: 'file', id: made.list.id }, label: 'List, {downloads}', look: made.look }),
    button({ placement: 'bbbbbbbbbb', target: { kind: 'signpost', id: made.signpost }, label: 'Now' }),
    button({ placement: 'cccccccccc', target: { kind: 'file', id: made.bundle.id }, label: 'All, {size}' }),
    shelf({ placement: 'dddddddddd', source: { kind: 'folder', id: made.folder, order: 'title', below: 'no' } }),
  )
  await pages.saveDraft(page.id, { title: 'Home', draft, revision: page.revision })
  await pages.publish(page.id, { despite: true })
  made.page = await pages.get(page.id)
  await buildCatalogue()
  await test.trough.reading.idle()
}

/** Things with a file each, a page that lists them and pages of their own, all live. */
async function buildCatalogue(): Promise<void> {
  const { catalogues, entries, layingOut, pages } = test.trough
  const { id } = await catalogues.create({
    name: 'Things',
    one: 'thing',
    fields: [newField('title', 'Name'), newField('sheet', 'Sheet', 'file')],
  })
  const sheet = await test.put('sheet-of-a-thing.txt', 'a sheet')
  made.entries = (
    await entries.create(
      id,
      ['One', 'Two', 'Three'].map(title => ({ title, sheet: sheet.id })),
    )
  ).map(entry => entry.id)
  made.catalogue = id
  const { list, layout } = await layingOut.both(id)
  await entries.publish(id, undefined)
  for (const page of [layout, list]) await pages.publish(page, { despite: true })
}

async function changeEntry(at: number, values: Record<string, string>, publish = true): Promise<void> {
  const { entries } = test.trough
  const { id, revision } = (await entries.list(made.catalogue)).find(entry => entry.id === made.entries[at])!
  await entries.change(made.catalogue, [{ id, revision, values }])
  if (publish) await entries.publish(made.catalogue, [id])
}

/** Writes a value of the whole site, and puts it live. */
async function setHours(hours: string): Promise<void> {
  const { id } = await test.trough.catalogues.ofSite()
  const [entry] = await test.trough.entries.list(id)
  await test.trough.entries.change(id, [{ id: entry!.id, revision: entry!.revision, values: { hours } }])
  await test.trough.entries.publish(id, undefined)
}

/** Addresses of entries, of now and before. */
const THINGS = ['things', 'goods'].flatMap(first => ['one', 'two', 'three', 'first', 'four'].map(last => `${first}/${last}`))

/** All that is kept in memory, as somebody sees it who asks. */
async function seen(trough: Services) {
  await trough.reading.idle()
  await trough.bundles.settled()
  const { items } = await trough.library.list(fileQuerySchema.parse({ sort: 'title', limit: 500 }))
  const bin = await trough.library.list(fileQuerySchema.parse({ sort: 'title', bin: 'true', limit: 500 }))
  const known = [...items, ...bin.items].sort((a, b) => (a.id < b.id ? -1 : 1))
  const server = await listen((request, response) =>
    trough.delivery
      .deliver(request, response, request.url!.slice(1), { save: true, edition: null, at: null }, request.headers.signpost === 'yes')
      .then(moved => void (moved && response.writeHead(308, { Location: moved }).end())),
  )
  const ask = async (name: string, signpost = '') => {
    const answer = await fetch(`${server.url}/${name}`, { method: 'HEAD', redirect: 'manual', headers: { signpost } })
    return [answer.status, answer.headers.get('etag'), answer.headers.get('location'), answer.headers.get('content-disposition')]
  }
  const pages = await trough.pages.list()
  const slugs = [...new Set([...pages.map(page => page.slug), 'home', 'kilns', 'ovens', 'never'])]
  const posts = await trough.signposts.list()
  const result = {
    files: known,
    tags: await trough.library.tags(),
    folders: await trough.library.folders.list(),
    pages,
    posts,
    site: await trough.site.get(),
    answers: await Promise.all(
      [...known.map(file => file.handle), 'price-list-2026-11.pdf', 'renamed.pdf', 'never.pdf'].map(async handle => [
        handle,
        ...(await ask(handle)),
      ]),
    ),
    pointing: await Promise.all(
      ['current-list', 'list-now', ...posts.map(post => post.name)].map(async name => [name, ...(await ask(name, 'yes'))]),
    ),
    html: await Promise.all(
      slugs.map(async slug => [slug, (await trough.published.find(slug, undefined))?.bytes.toString(), await trough.knownSlugs.find(slug)]),
    ),
    catalogues: await trough.catalogues.list(),
    entries: await trough.entries.list(made.catalogue),
    named: await Promise.all(THINGS.map(async path => [path, await trough.filling.place(path), await trough.entryIndex.named.at(path)])),
    fed: await Promise.all(['things', 'goods'].map(slug => trough.feeds.at(slug, () => true, speechOf('en')))),
    ofEntries: await Promise.all(THINGS.map(async path => [path, (await trough.published.find(path, undefined))?.bytes.toString()])),
    pictures: await Promise.all(
      known.map(async file =>
        trough.pictures.find(file.handle, 320).then(
          picture => picture.representation.etag,
          (error: { status: number }) => error.status,
        ),
      ),
    ),
    searched: (await (await trough.searching.find(readSearchQuery(new URLSearchParams('sort=title')))).made(undefined)).bytes.toString(),
    looks: await Promise.all(
      known.map(async file =>
        trough.seeing.find(STRANGER, file.handle, PLAIN_SEE).then(
          async look => ('moved' in look ? look : (await look.made(undefined)).bytes.toString()),
          (error: { status: number }) => error.status,
        ),
      ),
    ),
    letterbox: await trough.letterboxes.find('keptbox01'),
    icon: (await trough.icon.get()).bytes.toString('base64'),
    message: (await trough.published.message(new Problem(410, 'Gone', 'It is gone.'))).bytes.toString(),
    passing: [...(await trough.guard.standing()).gates.values()].map(({ name, rule, givers }) => [name, rule, [...(givers ?? [])].sort()]),
    outside: await trough.outside.isOn(),
    checks: await trough.checks.get(),
    found: (await trough.walk.state()).findings.map(({ key, words: said }) => [key, said]).sort(),
  }
  await server.close()
  return result
}

/** The same data, as services see it that have just started and remember nothing. */
async function seenAnew() {
  const trough = await openServices({ ...test.trough.dataFolder, events: createEvents() })
  try {
    return await seen(trough)
  } finally {
    await trough.close()
  }
}

const redraft = async (...blocks: Parameters<typeof pageOf>) => {
  const page = await test.trough.pages.get(made.page.id)
  await test.trough.pages.saveDraft(page.id, {
    title: page.title,
    draft: pageOf(...page.draft.content, ...blocks),
    revision: page.revision,
  })
}

const changeShelfLook = async (change: Partial<NewShelfLook>) => {
  const [look] = await test.trough.shelfLooks.list()
  await test.trough.shelfLooks.change(look!.id, change)
}
const letThrough = async (group: string) => {
  const gates = await test.trough.gates.list()
  await test.trough.gates.change(gates.find(({ name }) => name === 'Members')!.id, { rule: { groups: [group] } })
}

let group: string
let guest: string | undefined
let undo: string
let gate: string
const makeGate = async (name: string) => {
  const rule = gateRuleSchema.parse({ kind: 'terms', terms: { text: 'Be kind.', file: null } })
  return (await test.trough.gates.create({ name, rule })).id
}
const CHANGES: [string, () => Promise<unknown>][] = [
  ['an entry is written', () => changeEntry(0, { title: 'Number one' }, false)],
  ['it goes live', () => test.trough.entries.publish(made.catalogue, undefined)],
  ['an entry is called otherwise', () => changeEntry(1, { title: 'Number two' })],
  ['an entry moves', () => test.trough.entries.moveTo(made.entries[0]!, 'first')],
  ['entries are put in another order', () => test.trough.entries.order(made.catalogue, [...made.entries].reverse())],
  ['an entry is taken from visitors', () => test.trough.entries.unpublish(made.catalogue, [made.entries[1]!])],
  ['an entry goes to the bin', () => test.trough.entries.remove(made.catalogue, [made.entries[2]!])],
  ['an entry comes out of the bin', () => test.trough.entries.restore(made.catalogue, [made.entries[2]!])],
  [
    'an entry is made and goes live',
    async () => {
      await test.trough.entries.create(made.catalogue, [{ title: 'Four' }])
      await test.trough.entries.publish(made.catalogue, undefined)
    },
  ],
  [
    'a catalogue is called otherwise, and its addresses move',
    () => test.trough.catalogues.change(made.catalogue, { name: 'Goods', slug: 'goods' }),
  ],
  [
    'a field goes',
    async () => {
      const { fields, revision } = await test.trough.catalogues.get(made.catalogue)
      await test.trough.catalogues.changeFields(made.catalogue, { fields: fields.slice(0, 1), revision, despite: true })
    },
  ],
  [
    'it comes out of the bin',
    async () => {
      const [kept] = await test.trough.fieldBin.binned(made.catalogue)
      await test.trough.fieldBin.restore(made.catalogue, kept!.id)
    },
  ],
  [
    'a value of the whole site stands around every page',
    async () => {
      const { id, fields, revision } = await test.trough.catalogues.ofSite()
      await test.trough.catalogues.changeFields(id, { fields: [...fields, newField('hours', 'Hours')], revision, despite: false })
      const foot = await test.trough.pages.get('foot')
      const hours = { type: 'paragraph' as const, content: [{ type: 'siteValue' as const, attrs: { field: 'hours' } }] }
      const draft = pageOf(hours, { type: 'privacy', attrs: { placement: 'keptwords1' } })
      await test.trough.pages.saveDraft('foot', { title: foot.title, draft, revision: foot.revision })
      await test.trough.pages.publish('foot')
    },
  ],
  ['it goes live', () => setHours('Nine to five')],
  ['it changes', () => setHours('Ten to four')],
  [
    'there is a gate that people pass by name',
    () => test.trough.gates.create({ name: 'Members', rule: gateRuleSchema.parse({ kind: 'people' }) }),
  ],
  ['what they leave is kept for so many days', () => test.trough.contacts.setRules({ keepDays: 77 })],
  ['what is in a folder may not be looked at', () => test.trough.library.folders.change(made.folder, { see: false })],
  ['one file of it may', () => test.trough.library.change(made.plan.id, { see: true })],
  [
    'a gate is put on a folder',
    async () => {
      gate = await makeGate('Trade')
      await test.trough.library.folders.change(made.folder, { gate })
    },
  ],
  ['a file of it is open again', () => test.trough.library.change(made.plan.id, { gate: 'open' })],
  ['a file has a gate of its own', async () => test.trough.library.change(made.list.id, { gate: await makeGate('Lists') })],
  ['what is behind a gate is hidden', () => test.trough.gates.change(gate, { rule: { hidden: true } })],
  ['a page is put behind a gate', () => test.trough.pages.change(made.page.id, { gate })],
  ['a gate is taken away', () => test.trough.gates.remove(gate, true)],
  ['a file stands behind none', () => test.trough.library.change(made.list.id, { gate: null })],
  ['all of a folder may be found', () => test.trough.library.folders.change(made.folder, { see: null, found: true })],
  ['a file comes in', () => test.putInto('new-sheet.txt', 'new', { folder: made.folder })],
  [
    'a file is renamed and described',
    () => test.trough.library.change(made.list.id, { title: 'Prices', description: 'All of them', tags: ['trade'] }),
  ],
  ['its handle changes', () => test.trough.library.change(made.list.id, { handle: 'renamed.pdf' })],
  ['the next edition comes in', () => test.putInto('price-list-2026-12.pdf', '%PDF-1.7 december', { editionOf: made.list.id })],
  ['an earlier edition is shown again', () => test.trough.library.showEdition(made.list.id, 1)],
  ['an edition is withdrawn', () => test.trough.editions.change(made.list.id, 1, { withdrawn: true })],
  ['it is given out again', () => test.trough.editions.change(made.list.id, 1, { withdrawn: false })],
  ['it gets a cover', () => test.trough.library.change(made.plan.id, { picture: made.tile.id })],
  ['a folder is renamed', () => test.trough.library.folders.change(made.folder, { name: 'Papers' })],
  ['a file is moved', () => test.trough.library.move({ files: [made.plan.id], folders: [], to: made.folder })],
  ['files are copied', () => test.trough.library.copy({ files: [made.plan.id], folders: [made.folder] }, null)],
  ['a file goes to the bin', () => test.trough.library.remove({ files: [made.plan.id], folders: [] }, { despite: true })],
  ['it comes back', () => test.trough.library.restore({ files: [made.plan.id], folders: [] })],
  [
    'the bin is emptied',
    async () => {
      const gone = await test.put('gone.txt', 'gone')
      await test.trough.library.remove({ files: [gone.id], folders: [] })
      await test.trough.cleaner.emptyBin(null)
    },
  ],
  ['a signpost is turned', () => test.trough.signposts.turn(made.signpost, made.plan.id)],
  ['a signpost is renamed', () => test.trough.signposts.change(made.signpost, { title: 'List now', name: 'list-now' })],
  ['a bundle is composed anew', () => test.trough.bundles.add(made.bundle.id, { files: [made.tile.id], folders: [] })],
  [
    'a look changes',
    () =>
      test.trough.looks.change(made.look, {
        appearance: { ...BUILT_IN_LOOKS[1]!.appearance, fill: { kind: 'picture', file: made.tile.id, veil: 40, colour: 'ink' } as never },
      }),
  ],
  [
    'a draft is written',
    () =>
      redraft(
        button({ placement: 'eeeeeeeeee', target: { kind: 'file', id: made.tile.id }, label: 'Tile' }),
        letterbox({ placement: 'keptbox01' }),
      ),
  ],
  ['a page goes live', () => test.trough.pages.publish(made.page.id, { despite: true })],
  [
    'a page is made, put live and moved',
    async () => {
      const page = await test.trough.pages.create({ title: 'Kilns' })
      await test.trough.pages.publish(page.id, { despite: true })
      await test.trough.pages.change(page.id, { slug: 'ovens' })
    },
  ],
  [
    'everything is led elsewhere',
    async () => (undo = (await test.trough.replacing.replace({ kind: 'file', id: made.list.id }, { kind: 'file', id: made.plan.id })).undo),
  ],
  ['that is taken back', () => test.trough.replacing.takeBack(undo)],
  ['a page goes to the bin', async () => test.trough.pages.remove((await test.trough.pages.at('ovens'))!.id, { despite: true })],
  ['a page comes out of the bin', async () => test.trough.pages.restore((await test.trough.pages.binned())[0]!.id)],
  ['a page is taken offline', async () => test.trough.pages.unpublish((await test.trough.pages.at('ovens'))!.id, { despite: true })],
  ['counts are told by their leading figures', () => test.trough.site.set({ counts: 'rounded' })],
  ['the site is renamed and moves', () => test.trough.site.set({ name: 'Marlpit & daughters', address: 'https://marlpit.example' })],
  [
    'its colours change',
    async () => test.trough.looks.setStyle({ ...(await test.trough.looks.style()), type: { heading: 'hanken', text: 'literata' } }),
  ],
  [
    'a file is downloaded',
    async () => {
      test.trough.tally.observe({
        file: made.list.id,
        edition: 1,
        etag: '"e"',
        placement: 'aaaaaaaaaa',
        size: 10,
        delivered: [{ start: 0, end: 10 }],
        address: '192.0.2.9',
        at: Date.now(),
        userAgent: 'Mozilla/5.0 (X11; Linux x86_64; rv:140.0) Gecko/20100101 Firefox/140.0',
      })
      await test.trough.tally.flush()
    },
  ],
  ['stored bytes are found missing', () => test.trough.verifying.start().then(() => test.trough.verifying.ended())],
  ['what was looked into is read again', () => test.trough.reading.again([made.list.sha256])],
  [
    'settings change',
    async () => {
      await test.trough.outside.switch(true)
      await test.trough.checks.set({ check: true })
      await test.trough.icon.choose(made.tile.id)
      await test.trough.shelfLooks.create({ name: 'Sheets', shown: { layout: 'table' } })
      await test.trough.siteIcons.set({ of: { kind: 'type', value: 'PDF' }, icon: { kind: 'drawn', name: 'x', path: 'M1,1' } })
    },
  ],
  [
    'a shelf wears a look of shelves, with icons',
    async () => {
      const [look] = await test.trough.shelfLooks.list()
      const source = { kind: 'folder', id: made.folder, order: 'title', below: 'no' } as const
      await redraft(shelf({ placement: 'ffffffffff', source, look: look!.id, shown: { parts: ['icon', 'title', 'look'] } }))
      await test.trough.pages.publish(made.page.id, { despite: true })
    },
  ],
  ['that look is another', () => changeShelfLook({ shown: { layout: 'cards' } })],
  [
    'an icon is a picture',
    () => test.trough.siteIcons.set({ of: { kind: 'type', value: 'PDF' }, icon: { kind: 'picture', file: made.tile.id } }),
  ],
  ['that picture has another edition', async () => test.putInto('tile-2.png', await tile('#C8A13C'), { editionOf: made.tile.id })],
  ['an icon goes', () => test.trough.siteIcons.remove({ kind: 'type', value: 'PDF' })],
  ['a look of shelves goes', async () => test.trough.shelfLooks.remove((await test.trough.shelfLooks.list())[0]!.id)],
  ['a group is let through a gate', async () => letThrough((group = (await test.trough.guests.addGroup('Members')).id))],
  [
    'somebody comes into it',
    async () => ([guest] = await test.trough.guests.add({ guests: [{ email: 'mo@clay.example', name: 'Mo' }], groups: [group] })),
  ],
  ['they leave it', () => test.trough.guests.change(guest!, { groups: [] })],
  ['the group goes', () => test.trough.guests.removeGroup(group)],
  [
    'a page is described, and left out of the menu',
    () => test.trough.pages.change(made.page.id, { description: 'All of it', inMenu: false }),
  ],
  ['nothing may be looked at first', () => test.trough.site.set({ see: false })],
  ['the site speaks another language', () => test.trough.site.set({ language: 'de' })],
  ['countries are kept, and addresses for a while', () => test.trough.site.set({ countries: true, keepAddresses: 9 })],
  ['a signpost is taken down', () => test.trough.signposts.remove(made.signpost, { way: 'off' } as never)],
  ['a look is deleted', () => test.trough.looks.remove(made.look, BUILT_IN_LOOKS[0]!.id)],
]

it.each(CHANGES)('nobody remembers what was before %s', async (_, change) => {
  await change()
  expect(await seen(test.trough)).toEqual(await seenAnew())
})
