import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { FileItem } from '../../../core/files/fileItem'
import type { Narrowing } from '../../../core/tally/columns'
import { wallTimeAt } from '../../../core/timetable/wallTime'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createMarks } from '../downloads/marks'

const ZONE = 'Europe/London'
let test: TestTrough
beforeEach(() => (now = Date.now()))
beforeAll(async () => {
  test = await openTestTrough({ now: () => now })
  await test.trough.site.set({ name: 'Marlpit', address: '', timeZone: ZONE })
})
afterAll(() => test.close())

const MINUTE = 60_000
/** A clock that can be put on and back. */
let now = Date.now()
const inMinutes = (minutes: number) => wallTimeAt(new Date(now + minutes * MINUTE), ZONE)
let count = 0
/** A file with an edition that waits. */
async function waiting(trough = test): Promise<FileItem> {
  const file = await trough.put(`list-${++count}.txt`, `one ${count}`)
  return trough.putInto(`list-${count}.txt`, `two ${count}`, { editionOf: file.id, waits: true })
}
const editionOf = async (id: string) => (await test.trough.library.get(id)).edition

describe('the timetable', () => {
  it('takes a time as clocks show it where the site is, summer time and all', async () => {
    const file = await waiting()
    const { at } = await test.trough.timetable.set({ kind: 'edition', file: file.id, number: 2 }, '2099-07-01T08:00')
    // British summer time is an hour ahead (IANA time zone database).
    expect(at).toBe('2099-07-01T07:00:00.000Z')
    expect(await editionOf(file.id)).toBe(1)
    // Another time for the same file takes the place of the one before.
    await test.trough.timetable.set({ kind: 'edition', file: file.id, number: 2 }, '2099-12-01T08:00')
    expect(
      (await test.trough.timetable.list()).filter(({ act }) => act.kind === 'edition' && act.file === file.id).map(item => item.at),
    ).toEqual(['2099-12-01T08:00:00.000Z'])
  })

  it.each([
    ['2020-01-01T08:00', 'That time has passed.'],
    ['2099-02-30T08:00', 'There is no such day or time.'],
  ])('refuses %s', async (at, why) => {
    const file = await waiting()
    await expect(test.trough.timetable.set({ kind: 'edition', file: file.id, number: 2 }, at)).rejects.toThrow(why)
  })

  it('refuses what could not be done', async () => {
    await expect(test.trough.timetable.set({ kind: 'edition', file: (await waiting()).id, number: 9 }, inMinutes(5))).rejects.toThrow(
      'There is no such edition',
    )
    await expect(
      test.trough.timetable.set({ kind: 'signpost', signpost: 'gone', file: (await waiting()).id }, inMinutes(5)),
    ).rejects.toThrow('There is no such signpost')
  })

  it('does what is due, in its order and once, whatever happens to the clock then', async () => {
    const [file, other] = [await waiting(), await waiting()]
    const post = await test.trough.signposts.create({ title: 'List', file: file.id })
    const { timetable } = test.trough
    await timetable.set({ kind: 'edition', file: file.id, number: 2 }, inMinutes(10))
    await timetable.set({ kind: 'signpost', signpost: post.id, file: other.id }, inMinutes(20))
    await timetable.run()
    expect(await editionOf(file.id)).toBe(1)
    now += 11 * MINUTE
    await timetable.run()
    expect([await editionOf(file.id), (await test.trough.signposts.get(post.id)).file]).toEqual([2, file.id])
    // The owner goes back, and the clock, too: what has happened does not happen again.
    await test.trough.library.showEdition(file.id, 1)
    now -= 11 * MINUTE
    await timetable.run()
    now += 60 * MINUTE
    await timetable.run()
    expect([await editionOf(file.id), (await test.trough.signposts.get(post.id)).file]).toEqual([1, other.id])

    // What happened is told beside the bars of downloads, in whose stretch of time it lies.
    const marks = createMarks(test.trough.dataFolder.connection.db)
    const until = now / 1000 + 1
    const told = (narrowing: Narrowing, to = until) =>
      marks({ from: until - 7200, to }, narrowing, []).then(all =>
        all.map(({ words }) => words).filter(words => words.startsWith('At its')),
      )
    expect(await told({ file: file.id })).toEqual(['At its set time: edition 2 went live'])
    expect(await told({ file: other.id })).toEqual([`At its set time: signpost “List” was turned to “${other.title}”`])
    expect(await told({})).toHaveLength(2)
    expect(await told({}, until - 7100)).toEqual([])
  })

  it('tells what could not be done, and does not try it again', async () => {
    const file = await waiting()
    const { timetable } = test.trough
    const { id } = await timetable.set({ kind: 'edition', file: file.id, number: 2 }, inMinutes(10))
    await test.trough.library.remove({ files: [file.id], folders: [] })
    now += 11 * MINUTE
    await timetable.run()
    expect((await timetable.list()).find(item => item.id === id)!.failed).toBe(`“${file.title}” is in the bin.`)
    await test.trough.library.restore({ files: [file.id], folders: [] })
    await timetable.run()
    expect(await editionOf(file.id)).toBe(1)
    await timetable.drop(id)
  })

  it('forgets what was set for an edition that is shown, thrown away, withdrawn or made a file of its own', async () => {
    const { library, editions, timetable } = test.trough
    const ways = [
      (id: string) => library.showEdition(id, 2),
      (id: string) => editions.discard(id, 2),
      (id: string) => editions.change(id, 2, { withdrawn: true }),
      (id: string) => editions.split(id, 2),
    ]
    for (const way of ways) {
      const file = await waiting()
      const { id } = await timetable.set({ kind: 'edition', file: file.id, number: 2 }, inMinutes(10))
      await way(file.id)
      expect((await timetable.list()).some(item => item.id === id)).toBe(false)
    }
  })
})

it('what a process slept through happens when the next one is there; what is due while it runs happens by itself', async () => {
  const own = await openTestTrough()
  const [slept, due] = [await waiting(own), await waiting(own)]
  await own.trough.site.set({ name: 'Marlpit', address: '', timeZone: ZONE })
  for (const file of [slept, due]) await own.trough.timetable.set({ kind: 'edition', file: file.id, number: 2 }, '2099-01-01T08:00')
  await own.trough.close()
  // As if the time had come meanwhile.
  const { db, close } = await own.connect()
  await db.execute(`update timetable set at = now() - interval '1 hour' where act->>'file' = '${slept.id}'`)
  await db.execute(`update timetable set at = now() + interval '2 seconds' where act->>'file' = '${due.id}'`)
  await close()
  const trough = await own.openAgain()
  await trough.resume()
  expect((await trough.library.get(slept.id)).edition).toBe(2)
  await expect.poll(async () => (await trough.library.get(due.id)).edition).toBe(2)
  await trough.close()
})
