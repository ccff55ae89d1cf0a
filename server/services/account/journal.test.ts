import papa from 'papaparse'
import { afterAll, beforeAll, expect, it, vi } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { journalQuerySchema } from './journal'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
  const { journal } = test.trough
  const file = await test.put('firing-chart.pdf', '%PDF-1.4')
  await test.trough.library.change(file.id, { title: 'Firing chart' })
  journal.note('PATCH /files/:id', { who: 'yard@marlpit.example', about: file.id, place: '192.0.2.1' })
  journal.note('signed-in', { who: 'owner@marlpit.example', place: '192.0.2.2' })
  journal.note('POST /bundles', { who: '=cmd@marlpit.example' })
  await vi.waitFor(async () => expect((await list({})).total).toBe(3), { timeout: 200_000 })
})
afterAll(() => test.close())

const list = (query: object) => test.trough.journal.list(journalQuerySchema.parse(query))
const whoOf = async (query: object) => (await list(query)).items.map(({ who }) => who.split('@')[0])

it.each([
  [{ q: 'firing' }, ['yard']],
  [{ q: 'CHANGED A FILE' }, ['yard']],
  [{ q: 'owner@' }, ['owner']],
  [{ who: 'OWNER@marlpit.example' }, ['owner']],
  [{ q: '%' }, []],
  [{ q: 'signed', who: 'yard@marlpit.example' }, []],
])('is searched by %j', async (query, who) => expect(await whoOf(query)).toEqual(who))

it('is a table of what was searched for, in which nothing is a formula (RFC 4180; OWASP, CSV Injection)', async () => {
  const lines: string[] = []
  for await (const piece of test.trough.journal.csv({ q: 'bundle', who: '' })) lines.push(piece)
  const { data } = papa.parse<string[]>(lines.join('').replace('\uFEFF', '').trimEnd())
  expect(data.map(row => row.slice(1, 3))).toEqual([
    ['Who', 'What'],
    ["'=cmd@marlpit.example", 'made a bundle'],
  ])
})
