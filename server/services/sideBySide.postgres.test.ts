import { sql } from 'drizzle-orm'
import { afterEach, beforeEach, describe, expect, it } from 'vitest'
import { BUILT_IN_LOOKS } from '../../core/look/builtin'
import type { PageDocument } from '../../core/page/schema'
import { placementsOf } from '../../core/page/targets'
import { Problem } from '../../core/problem'
import { button, pageOf } from '../../core/testing/pages'
import { openPostgres, type PostgresAddress } from '../db/drivers/postgres'
import { openTestTrough, putFile, type TestTrough } from '../testing/harness'
import { interleave, type Outcome } from '../testing/interleave'
import { openServices, type Services } from '../trough'
import { createEvents, passOn } from './events'

/** Two processes as far as the database can tell: services of their own, connections of their own, the same data folder. */
let test: TestTrough
let one: TestTrough['trough']
let other: Services
let address: PostgresAddress
let closeOther: () => Promise<void>

beforeEach(async () => {
  test = await openTestTrough()
  one = test.trough
  address = test.address!
  const events = createEvents()
  const connection = await openPostgres({ ...address, application_name: 'other' }, touched => passOn(events, touched))
  const services = await openServices({ ...test.trough.dataFolder, connection, events })
  other = services
  closeOther = async () => {
    await services.close()
    await connection.close()
  }
})
afterEach(async () => {
  await closeOther()
  await test.close()
})

/** What must hold whatever happened beside what. */
async function expectWhole(): Promise<void> {
  const ask = async (question: ReturnType<typeof sql>) => (await one.database.execute(question)).rows
  expect(
    await ask(sql`with recursive reached as (select id from folders where parent is null union select folders.id from folders join reached on folders.parent = reached.id)
    select name from folders where id not in (select id from reached)`),
    'folders that lie in themselves',
  ).toEqual([])
  expect(
    await ask(sql`select lower(name) from folders where deleted is null group by parent, lower(name) having count(*) > 1`),
    'folders of one name in one place',
  ).toEqual([])
  expect(
    await ask(
      sql`select title from files where not exists (select 1 from editions where file_id = files.id and number = edition) and not exists (select 1 from bundles where file_id = files.id)`,
    ),
    'files without their edition',
  ).toEqual([])
  expect(
    await ask(
      sql`select title from pages where live is not null and not exists (select 1 from page_versions where page_id = pages.id and number = live)`,
    ),
    'live pages without their version',
  ).toEqual([])
  const documents = (await ask(
    sql`select pages.id, draft, document as live from pages left join page_versions on page_id = pages.id and number = pages.live`,
  )) as { id: string; draft: PageDocument; live: PageDocument | null }[]
  const stands = documents.flatMap(({ id, draft, live }) =>
    [['draft', draft] as const, ['live', live] as const].flatMap(([side, document]) =>
      document ? placementsOf(document).map(placement => `${id} ${side} ${placement.id}`) : [],
    ),
  )
  expect(
    (await ask(sql`select distinct page_id, side, placement from uses`))
      .map(row => `${row.page_id as string} ${row.side as string} ${row.placement as string}`)
      .sort(),
    'what is written down of where pages lead',
  ).toEqual([...new Set(stands)].sort())
}

/** Whatever the order, each change happens whole, or is refused in words. */
async function inEveryOrder<A, B>(
  begin: () => Promise<[() => Promise<A>, () => Promise<B>]>,
  look: (first: Outcome<A>, second: Outcome<B>) => unknown,
): Promise<void> {
  const orders = await interleave(address, ['trough', 'other'], begin, async (first, second) => {
    for (const outcome of [first, second]) if (outcome.status === 'rejected') expect(outcome.reason).toBeInstanceOf(Problem)
    await look(first, second)
    await expectWhole()
  })
  expect(orders).toBeGreaterThan(1)
}

const expectOne = (first: Outcome<unknown>, second: Outcome<unknown>, status: number) => {
  const refused = [first, second].flatMap(outcome => (outcome.status === 'rejected' ? [(outcome.reason as Problem).status] : []))
  expect(refused).toEqual([status])
}
const valueOf = <T>(outcome: Outcome<T>): T => {
  if (outcome.status === 'rejected') throw outcome.reason
  return outcome.value
}
let named = 0
const fresh = (name: string) => `${name} ${++named}`
const folder = async () => (await one.library.folders.create({ name: fresh('Folder'), parent: null })).id
const putBy = (services: Services, name: string, bytes: string, more: Parameters<typeof putFile>[4] = {}) =>
  putFile(services, test.folder, name, Buffer.from(bytes), more)
const to = (id: string) => button({ target: { kind: 'file', id } })

describe('files that come in', () => {
  it('two of one name get addresses and places of their own', () => {
    let name: string
    return inEveryOrder(
      async () => {
        name = `${fresh('twin')}.txt`
        return [() => test.put(name, `${name} a`), () => putBy(other, name, `${name} b`)]
      },
      (first, second) => expect(new Set([valueOf(first).handle, valueOf(second).handle]).size).toBe(2),
    )
  })

  it('two next editions of one file get numbers of their own', () =>
    inEveryOrder(
      async () => {
        const { id } = await test.put(`${fresh('list')}.txt`, fresh('first'))
        return [() => test.putInto('a.txt', fresh('a'), { editionOf: id }), () => putBy(other, 'b.txt', fresh('b'), { editionOf: id })]
      },
      async first => expect((await one.library.editions(valueOf(first).id)).map(edition => edition.number)).toEqual([1, 2, 3]),
    ))

  it('bytes that come again while they are collected are there', () =>
    inEveryOrder(
      async () => {
        const bytes = fresh('bytes')
        const { id } = await test.put('a.txt', bytes)
        await one.library.remove({ files: [id], folders: [] })
        return [() => test.put('again.txt', bytes), () => other.cleaner.emptyBin(null)]
      },
      async first => expect(await one.dataFolder.store.has(valueOf(first).sha256)).toBe(true),
    ))

  it('bytes are collected while they come again', () =>
    inEveryOrder(
      async () => {
        const bytes = fresh('bytes')
        const { id } = await test.put('a.txt', bytes)
        await one.library.remove({ files: [id], folders: [] })
        return [() => one.cleaner.emptyBin(null), () => putBy(other, 'again.txt', bytes)]
      },
      async (_first, second) => expect(await one.dataFolder.store.has(valueOf(second).sha256)).toBe(true),
    ))
})

describe('the library', () => {
  it('of two folders moved into each other, one stays', () =>
    inEveryOrder(
      async () => {
        const [a, b] = [await folder(), await folder()]
        return [() => one.library.move({ files: [], folders: [a], to: b }), () => other.library.move({ files: [], folders: [b], to: a })]
      },
      (first, second) => expectOne(first, second, 409),
    ))

  it('of two folders of one name in one place, one is made', () =>
    inEveryOrder(
      async () => {
        const name = fresh('Folder')
        return [
          () => one.library.folders.create({ name, parent: null }),
          () => other.library.folders.create({ name: name.toUpperCase(), parent: null }),
        ]
      },
      (first, second) => expectOne(first, second, 409),
    ))

  it('a folder that moves to where another of its name moves, too, gets a number', () =>
    inEveryOrder(
      async () => {
        const [a, b, place, name] = [await folder(), await folder(), await folder(), fresh('Same')]
        const [x, y] = [await one.library.folders.create({ name, parent: a }), await one.library.folders.create({ name, parent: b })]
        return [
          () => one.library.move({ files: [], folders: [x.id], to: place }),
          () => other.library.move({ files: [], folders: [y.id], to: place }),
        ]
      },
      (first, second) => expect([valueOf(first), valueOf(second)].flatMap(moved => moved.renamed)).toHaveLength(1),
    ))

  it('one address goes to one of two files', () =>
    inEveryOrder(
      async () => {
        const [a, b, handle] = [
          await test.put('a.txt', fresh('a')),
          await test.put('b.txt', fresh('b')),
          `${fresh('wanted').replace(' ', '-')}.txt`,
        ]
        return [() => one.library.change(a.id, { handle }), () => other.library.change(b.id, { handle })]
      },
      (first, second) => expectOne(first, second, 409),
    ))

  it('tags that two add are both there', () =>
    inEveryOrder(
      async () => {
        const { id } = await test.put('a.txt', fresh('a'))
        const add = (services: Services, tag: string) =>
          services.library.describe({ files: [id], addTags: [tag], removeTags: [], each: [] }).then(() => id)
        return [() => add(one, 'kiln'), () => add(other, 'clay')]
      },
      async first => expect((await one.library.get(valueOf(first))).tags.sort()).toEqual(['clay', 'kiln']),
    ))

  it('what is taken out of the bin while it is emptied is there whole, or gone', () => {
    let id: string
    return inEveryOrder(
      async () => {
        id = (await test.put('a.txt', fresh('a'))).id
        await one.library.remove({ files: [id], folders: [] })
        return [() => one.library.restore({ files: [id], folders: [] }), () => other.cleaner.emptyBin([id])]
      },
      async () => {
        const file = await one.library.get(id).catch(() => undefined)
        if (file) expect([file.deleted, await one.dataFolder.store.has(file.sha256)]).toEqual([null, true])
      },
    )
  })

  it('of two who compose a bundle from the same state, one is told', () =>
    inEveryOrder(
      async () => {
        const bundle = await one.bundles.create({
          title: fresh('Pack'),
          folder: null,
          files: [(await test.put('a.txt', fresh('a'))).id],
          folders: [],
        })
        const { entries, revision } = await one.bundles.details(bundle.id)
        return [
          () => one.bundles.change(bundle.id, { entries: [], revision }),
          () => other.bundles.change(bundle.id, { entries: entries.slice(0, 1), revision }),
        ]
      },
      (first, second) => expectOne(first, second, 409),
    ))

  it('what two put into a bundle is in it', () =>
    inEveryOrder(
      async () => {
        const [a, b] = [await test.put('a.txt', fresh('a')), await test.put('b.txt', fresh('b'))]
        const bundle = await one.bundles.create({ title: fresh('Pack'), folder: null, files: [], folders: [] })
        return [
          () => one.bundles.add(bundle.id, { files: [a.id], folders: [] }),
          () => other.bundles.add(bundle.id, { files: [b.id], folders: [] }),
        ]
      },
      async first => expect((await one.bundles.details(valueOf(first).file.id)).entries).toHaveLength(2),
    ))
})

describe('pages', () => {
  it('of two drafts written on the same state, one is told', () =>
    inEveryOrder(
      async () => {
        const page = await one.pages.create({ title: fresh('Page') })
        const save = (services: Services) =>
          services.pages.saveDraft(page.id, { title: page.title, draft: pageOf(button()), revision: page.revision })
        return [() => save(one), () => save(other)]
      },
      (first, second) => expectOne(first, second, 409),
    ))

  it('a page that goes live while its draft is written is known to wait, or not to', () => {
    let id: string
    return inEveryOrder(
      async () => {
        const page = await one.pages.create({ title: fresh('Page') })
        id = page.id
        return [
          () => one.pages.publish(id, { despite: true }),
          () => other.pages.saveDraft(id, { title: page.title, draft: pageOf(button({ label: 'New' })), revision: page.revision }),
        ]
      },
      async () => {
        const { waiting, draft, live } = await one.pages.get(id)
        expect(waiting).toBe(JSON.stringify(live!.document) !== JSON.stringify(draft))
      },
    )
  })

  it('one address goes to one of two pages', () =>
    inEveryOrder(
      async () => {
        const slug = fresh('address').replace(' ', '-')
        return [() => one.pages.create({ title: 'A', slug }), () => other.pages.create({ title: 'B', slug })]
      },
      (first, second) => expectOne(first, second, 409),
    ))

  it('two pages of one address that come out of the bin at once stand beside each other', () => {
    let slug: string
    return inEveryOrder(
      async () => {
        slug = fresh('back').replace(' ', '-')
        const binned = async () => {
          const { id } = await one.pages.create({ title: 'Back', slug })
          await one.pages.remove(id)
          return id
        }
        const [first, second] = [await binned(), await binned()]
        return [() => one.pages.restore(first), () => other.pages.restore(second)]
      },
      (first, second) => expect([valueOf(first).slug, valueOf(second).slug].sort()).toEqual([slug, `${slug}-2`]),
    )
  })

  it('a page comes out of the bin once', () => {
    let id: string
    return inEveryOrder(
      async () => {
        id = (await one.pages.create({ title: fresh('Once') })).id
        await one.pages.remove(id)
        return [() => one.pages.restore(id), () => other.pages.restore(id)]
      },
      (first, second) => expectOne(first, second, 404),
    )
  })

  it('nothing leads to a file that was taken off while a page with it went live', () => {
    let file: string
    return inEveryOrder(
      async () => {
        file = (await test.put('a.txt', fresh('a'))).id
        const page = await one.pages.create({ title: fresh('Page') }, { draft: pageOf(to(file)) })
        return [() => one.pages.publish(page.id), () => other.library.remove({ files: [file], folders: [] }, { takeOff: true })]
      },
      async () => expect((await one.replacing.places({ kind: 'file', id: file })).uses).toEqual([]),
    )
  })

  it('a file is led elsewhere while a page that leads to it is written: none is left behind', () => {
    let from: string
    return inEveryOrder(
      async () => {
        const next = await test.put('b.txt', fresh('b'))
        from = (await test.put('a.txt', fresh('a'))).id
        const page = await one.pages.create({ title: fresh('Page') }, { draft: pageOf(to(from)) })
        return [
          () => one.replacing.replace({ kind: 'file', id: from }, { kind: 'file', id: next.id }),
          () =>
            other.pages.saveDraft(page.id, {
              title: page.title,
              draft: pageOf(to(from), button({ placement: 'bbbbbbbbbb', target: { kind: 'file', id: from } })),
              revision: page.revision,
            }),
        ]
      },
      async () => expect((await one.replacing.places({ kind: 'file', id: from })).uses).toEqual([]),
    )
  })

  it('of two who lead a file elsewhere, one leads everything', () => {
    let page: string
    return inEveryOrder(
      async () => {
        const [from, a, b] = [await test.put('a.txt', fresh('a')), await test.put('b.txt', fresh('b')), await test.put('c.txt', fresh('c'))]
        page = (
          await one.pages.create(
            { title: fresh('Page') },
            { draft: pageOf(to(from.id), button({ placement: 'bbbbbbbbbb', target: { kind: 'file', id: from.id } })) },
          )
        ).id
        await one.pages.publish(page)
        const lead = (services: Services, id: string) => services.replacing.replace({ kind: 'file', id: from.id }, { kind: 'file', id })
        return [() => lead(one, a.id), () => lead(other, b.id)]
      },
      async () => {
        const { draft, live } = await one.pages.get(page)
        expect(
          new Set(
            [draft, live!.document].flatMap(document =>
              placementsOf(document).flatMap(placement => placement.targets.map(target => JSON.stringify(target))),
            ),
          ).size,
        ).toBe(1)
      },
    )
  })

  it('a page is not removed unasked while another begins to lead to it', () => {
    let led: string, leading: string
    return inEveryOrder(
      async () => {
        led = (await one.pages.create({ title: fresh('Led') })).id
        const page = await one.pages.create({ title: fresh('Leading') })
        leading = page.id
        return [
          () => one.pages.remove(led),
          () =>
            other.pages.saveDraft(leading, {
              title: page.title,
              draft: pageOf(button({ target: { kind: 'page', id: led } })),
              revision: page.revision,
            }),
        ]
      },
      async first => expect(first.status === 'rejected').toBe((await one.pages.list()).some(page => page.id === led)),
    )
  })
})

describe('the rest', () => {
  it('nothing is written while the database stands still, and what waited is written then', async () => {
    let made: Promise<unknown> | undefined
    const counted = async () => (await one.library.folders.list()).length
    const before = await counted()
    await test.trough.dataFolder.connection.standStill(async () => {
      made = other.library.folders.create({ name: fresh('Waits'), parent: null })
      const waiting = sql`select 1 from pg_stat_activity where application_name = 'other' and wait_event_type = 'Lock'`
      await expect.poll(async () => (await one.database.execute(waiting)).rows.length).toBe(1)
      expect(await counted()).toBe(before)
    })
    await made
    expect(await counted()).toBe(before + 1)
  })

  it('two signposts of one title get addresses of their own', () =>
    inEveryOrder(
      async () => {
        const title = fresh('Current list')
        return [() => one.signposts.create({ title, file: null }), () => other.signposts.create({ title, file: null })]
      },
      (first, second) => expect(valueOf(first).name).not.toBe(valueOf(second).name),
    ))

  it('of two looks of one name, one is made', () =>
    inEveryOrder(
      async () => {
        const look = { name: fresh('Kiln'), appearance: BUILT_IN_LOOKS[0]!.appearance }
        return [() => one.looks.create(look), () => other.looks.create(look)]
      },
      (first, second) => expectOne(first, second, 409),
    ))

  it('what is set for a time happens once, whoever sees the clock first', () => {
    let file: string
    return inEveryOrder(
      async () => {
        file = (await test.put('a.txt', fresh('a'))).id
        await test.putInto('b.txt', fresh('b'), { editionOf: file, waits: true })
        await one.timetable.set({ kind: 'edition', file, number: 2 }, '2099-01-01T08:00')
        await one.database.execute(sql`update timetable set at = now() - interval '1 hour'`)
        return [() => one.timetable.run(), () => other.timetable.run()]
      },
      async () => expect([(await one.library.get(file)).edition, await one.timetable.list()]).toEqual([2, []]),
    )
  })

  it('a site gets one owner', async () => {
    const setUp = (services: Services) =>
      services.account.setUp({
        email: 'owner@marlpit.example',
        password: 'a long word or two',
        siteName: 'Marlpit',
        code: services.account.code,
      })
    await inEveryOrder(
      async () => {
        await one.database.execute(sql`delete from accounts`)
        return [() => setUp(one), () => setUp(other)]
      },
      (first, second) => expectOne(first, second, 409),
    )
  })
})

describe('the site', () => {
  it('keeps its name and its words, set at once in two windows', () => {
    let name: string
    return inEveryOrder(
      async () => {
        name = fresh('Marlpit')
        await one.site.set({ name: 'Before', words: {} })
        return [() => one.site.set({ name }), () => other.site.set({ words: { home: name } })]
      },
      async () => {
        const [row] = (await one.database.execute(sql`select value from settings where key = 'site'`)).rows
        expect(row!.value).toMatchObject({ name, words: { home: name } })
      },
    )
  })
})
