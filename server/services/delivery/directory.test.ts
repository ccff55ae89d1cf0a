import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createEvents } from '../events'
import { createDirectory } from './directory'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

it('keeps what a file is while another changes, and forgets it when it changes itself', async () => {
  const events = createEvents()
  const directory = createDirectory(test.trough.database, events)
  const [list, other] = [await test.put('list.txt', 'eight to five'), await test.put('other.txt', 'nine to noon')]
  await directory.find('list.txt', false)
  events.emit('library', [other.id])
  expect(directory.known('list.txt', false)).toMatchObject({ id: list.id })
  events.emit('library', [other.id, list.id])
  expect(directory.known('list.txt', false)).toBeUndefined()
})

it('does not keep what it read before a change', async () => {
  const events = createEvents()
  const { database } = test.trough
  const directory = createDirectory(database, events)
  const file = await test.put('changing.txt', 'closed')
  // From here on the names are known, and the next question is about the file itself.
  await directory.find('nowhere.txt', false)
  const select = database.select.bind(database)
  vi.spyOn(database, 'select').mockImplementationOnce(((...fields: Parameters<typeof select>) => {
    events.emit('library', [file.id])
    return select(...fields)
  }) as typeof database.select)
  expect(await directory.find('changing.txt', false)).toMatchObject({ id: file.id })
  expect(directory.known('changing.txt', false)).toBeUndefined()
  await directory.find('changing.txt', false)
  expect(directory.known('changing.txt', false)).toMatchObject({ id: file.id })
})

it('asks again where a signpost leads with any change, and where an address moved to', async () => {
  const events = createEvents()
  const directory = createDirectory(test.trough.database, events)
  const moved = await test.put('moved.txt', 'ten to two')
  await test.trough.library.change(moved.id, { handle: 'gone-on.txt' })
  const post = await test.trough.signposts.create({ title: 'Hours', file: moved.id })
  await directory.find('moved.txt', false)
  await directory.find(post.name, true)
  expect(directory.known('moved.txt', false)).toMatchObject({ kind: 'moved' })
  events.emit('signposts', [post.id])
  expect([directory.known('moved.txt', false), directory.known(post.name, true)]).toEqual([undefined, undefined])
})
