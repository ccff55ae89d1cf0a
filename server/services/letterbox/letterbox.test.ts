import { Readable } from 'node:stream'
import type { IncomingMessage } from 'node:http'
import { readdir } from 'node:fs/promises'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { CLOSED_GATE, CLOSED_RULE } from '../../../core/gate/gate'
import { letterbox, pageOf } from '../../../core/testing/pages'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
let network = 0
beforeAll(async () => {
  test = await openTestTrough()
  const { account, site, pages } = test.trough
  await account.create('owner@marlpit.example', 'six wheels and a kiln')
  await site.set({ name: 'Marlpit', address: 'https://www.marlpit.example' })
  const { id, revision } = await pages.create({ title: 'Forms' })
  await pages.saveDraft(id, { title: 'Forms', draft: pageOf(letterbox({ placement: 'testbox1' })), revision })
  await pages.publish(id)
})
afterAll(() => test.close())

/** A request as node gives it, with a form as browsers send it. */
async function handIn(fields: Record<string, string>, ...files: [name: string, text: string][]) {
  const form = new FormData()
  for (const [name, value] of Object.entries({ name: 'Ada', email: 'ada@b.example', ...fields })) form.append(name, value)
  for (const [name, text] of files) form.append('files', new Blob([text]), name)
  const sent = new Response(form)
  const bytes = Buffer.from(await sent.arrayBuffer())
  const headers = { 'content-type': sent.headers.get('content-type')!, 'content-length': String(bytes.length) }
  const request = Object.assign(Readable.from([bytes]), { headers, setTimeout: () => undefined }) as unknown as IncomingMessage
  return test.trough.letterbox.handIn('testbox1', request, { address: `203.0.113.${++network}`, secure: true, origin: '' })
}
const arrived = async (q: string) => (await test.trough.arrivals.list({ q, from: 0, limit: 100 })).items

it('gives a number of its own to each of many that come at once, with all that belongs to it', async () => {
  const sent = await Promise.all(
    [1, 2, 3, 4, 5].map(who => handIn({ email: `w${who}@b.example`, words: 'together' }, [`${who}.txt`, `file ${who}`])),
  )
  expect(sent.every(entered => 'to' in entered)).toBe(true)
  const items = await arrived('together')
  expect(new Set(items.map(({ number }) => number)).size).toBe(5)
  for (const { files, email } of items) {
    const file = await test.trough.library.get(files[0]!.id!)
    expect([file.gate, file.sha256, file.fileName]).toEqual([CLOSED_GATE, files[0]!.sha256, `${email[1]}.txt`])
  }
  const { items: messages } = await test.trough.outbox.list({ from: 0, limit: 100 })
  expect(messages.filter(({ to }) => /^w\d@/.test(to))).toHaveLength(5)
  expect(messages.filter(({ to }) => to === 'owner@marlpit.example')).toHaveLength(5)
  expect((await test.trough.contacts.list({ q: '@b.example', from: 0, limit: 100 })).total).toBe(5)
})

it('keeps the order of the files, however long each takes to be written', async () => {
  const names = ['long.txt', 'b.txt', 'c.txt', 'd.txt', 'e.txt']
  const form = names.map((name, index): [string, string] => [name, index ? name : 'x'.repeat(3_000_000)])
  await handIn({ words: 'in their order' }, ...form)
  const [arrival] = await arrived('in their order')
  expect(arrival!.files.map(({ fileName, size }) => [fileName, size])).toEqual(form.map(([name, text]) => [name, text.length]))
})

it('the gate of what came in is as the code knows it', async () => {
  expect((await test.trough.standing.get()).gates.get(CLOSED_GATE)!.rule).toEqual(CLOSED_RULE)
})

it('the same bytes twice are two files of one store', async () => {
  await handIn({ words: 'twins' }, ['one.txt', 'the same'], ['two.txt', 'the same'])
  const [{ files }] = (await arrived('twins')) as [Awaited<ReturnType<typeof arrived>>[number]]
  expect(new Set(files.map(({ sha256 }) => sha256)).size).toBe(1)
  expect(new Set(files.map(({ id }) => id)).size).toBe(2)
  expect((await readdir(join(test.folder, 'incoming'))).filter(name => name.endsWith('.part'))).toEqual([])
})

it('is found by a piece of a name, an address, the words, a file, or its number; put away once, and taken back', async () => {
  await handIn({ name: 'Di Slip', email: 'di@slip.example', words: '100% signed_off' }, ['contract-17.txt', 'x'])
  const [arrival] = await arrived('Di Sl')
  for (const q of ['slip.example', '100% sig', 'signed_', 'contract-17', String(arrival!.number)])
    expect(
      (await arrived(q)).map(({ id }) => id),
      q,
    ).toContain(arrival!.id)
  expect(await arrived('100_ sig')).toEqual([])
  const { arrivals } = test.trough
  const waits = async () => (await arrivals.list({ q: 'Di Slip', waiting: 'yes', from: 0, limit: 10 })).total
  expect(await waits()).toBe(1)
  await arrivals.putAway(arrival!.id, true, 'first@marlpit.example')
  // Who did it first did it.
  expect((await arrivals.putAway(arrival!.id, true, 'second@marlpit.example')).awayBy).toBe('first@marlpit.example')
  expect(await waits()).toBe(0)
  await arrivals.putAway(arrival!.id, false, '')
  expect(await waits()).toBe(1)
  await arrivals.remove(arrival!.id)
  await expect(arrivals.get(arrival!.id)).rejects.toMatchObject({ status: 404 })
  // Its files stay, for the desk alone.
  expect((await test.trough.library.get(arrival!.files[0]!.id!)).gate).toBe(CLOSED_GATE)
})

it('who wants no messages gets no receipt, and a folder that went is no reason to lose anything', async () => {
  const { contacts, library, pages, outbox } = test.trough
  await contacts.unsubscribe('quiet@b.example')
  const folder = (await library.folders.create({ name: 'Going', parent: null })).id
  const [page] = await pages.list()
  const { id, revision } = await pages.get(page!.id)
  await pages.saveDraft(id, { title: 'Forms', draft: pageOf(letterbox({ placement: 'testbox1', folder })), revision })
  await pages.publish(id)
  await library.remove({ files: [], folders: [folder] })
  await handIn({ email: 'quiet@b.example', words: 'quietly' }, ['a.txt', 'a'])
  const [arrival] = await arrived('quietly')
  expect((await library.get(arrival!.files[0]!.id!)).folder).toBeNull()
  expect((await outbox.list({ from: 0, limit: 200 })).items.filter(({ to }) => to === 'quiet@b.example')).toEqual([])
})
