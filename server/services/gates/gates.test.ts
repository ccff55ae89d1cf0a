import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { CLOSED_GATE, OPEN_GATE, gateRuleSchema } from '../../../core/gate/gate'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createTakes } from './takes'
import { createSeal } from './seal'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

const TERMS = { kind: 'terms', terms: { text: 'Be kind.', file: null } } as const
const DAY = 24 * 60 * 60 * 1000
const ruleOf = (rule: object = {}) => gateRuleSchema.parse({ ...TERMS, ...rule })
const makeGate = (name: string, rule: object = {}) => test.trough.gates.create({ name, rule: ruleOf(rule) })

describe('what is let through a gate', () => {
  it('is never more than it says, however many ask at once', async () => {
    const rule = ruleOf({ most: 7 })
    const { id } = await makeGate('Seven', rule)
    const takes = createTakes(test.trough.database, async () => 'UTC')
    const granted = await Promise.all(
      Array.from({ length: 30 }, (_, index) => takes.take({ gate: id, pass: `p${index}`, file: 'f' }, rule, 'gate')),
    )
    expect(granted.filter(Boolean)).toHaveLength(7)
  })

  it('counts once what one pass has of one file within a day, and begins anew with each day of the site', async () => {
    const rule = ruleOf({ mostADay: 1, mostEach: 2 })
    const { id } = await makeGate('One a day', rule)
    // Clocks in London went back on 25 October 2026: that day had 25 hours.
    let now = Date.parse('2026-10-24T23:30:00Z')
    const takes = createTakes(
      test.trough.database,
      async () => 'Europe/London',
      () => now,
    )
    const take = (pass: string, file = 'f') => takes.take({ gate: id, pass, file }, rule, 'gate')
    expect(await take('a')).toBe(true)
    expect(await take('a')).toBe(true)
    expect(await take('b')).toBe(false)
    now = Date.parse('2026-10-25T23:59:00Z')
    expect(await take('b')).toBe(false)
    now = Date.parse('2026-10-26T00:01:00Z')
    expect(await take('b')).toBe(true)
    now += DAY
    expect(await take('a', 'g')).toBe(true)
    now += DAY
    // Two for each visitor.
    expect(await take('a', 'h')).toBe(false)
  })

  it('is nothing where the gate is gone', async () => {
    const takes = createTakes(test.trough.database, async () => 'UTC')
    expect(await takes.take({ gate: 'gone', pass: 'p', file: 'f' }, ruleOf(), 'gate')).toBe(false)
  })
})

describe('gates', () => {
  it('are told apart by their names, and keep what is not said of their rule', async () => {
    const gate = await makeGate('Trade')
    await expect(makeGate('TRADE')).rejects.toMatchObject({ status: 409 })
    const changed = await test.trough.gates.change(gate.id, { rule: { most: 5 } })
    expect(changed.rule).toMatchObject({ ...TERMS, most: 5 })
    await expect(test.trough.gates.change(gate.id, { rule: { terms: null } })).rejects.toMatchObject({ status: 422 })
    await expect(test.trough.gates.change('open', { name: 'Closed' })).rejects.toMatchObject({ status: 404 })
    await expect(test.trough.gates.remove('open', true)).rejects.toMatchObject({ status: 404 })
  })

  it('are put on what is there, and held by what stands behind them, the bin included', async () => {
    const gate = await makeGate('Held')
    const file = await test.put('held.txt', 'held')
    await expect(test.trough.library.change(file.id, { gate: 'never' })).rejects.toMatchObject({ status: 422 })
    await test.trough.library.change(file.id, { gate: gate.id })
    await expect(test.trough.gates.remove(gate.id, false)).rejects.toMatchObject({
      status: 409,
      extra: { uses: { files: [{ id: file.id }] } },
    })
    await test.trough.gates.remove(gate.id, true)
    expect((await test.trough.library.get(file.id)).gate).toBeNull()
  })

  it.each([true, false])('that are taken away open nothing that lies in the bin (those of the library opened: %s)', async open => {
    const { gates, library, pages } = test.trough
    const gate = await makeGate(`Gone ${open}`)
    const file = await test.put('shut.txt', `shut ${open}`)
    const folder = await library.folders.create({ name: `Shut ${open}`, parent: null })
    const page = await pages.create({ title: `Shut ${open}` })
    await library.change(file.id, { gate: gate.id })
    await library.folders.change(folder.id, { gate: gate.id })
    await pages.change(page.id, { gate: gate.id })
    await library.remove({ files: [file.id], folders: [folder.id] })
    await pages.remove(page.id)
    await gates.remove(gate.id, open)
    await library.restore({ files: [file.id], folders: [folder.id] })
    expect(await pages.restore(page.id)).toMatchObject({ gateGone: true })
    expect((await library.get(file.id)).gate).toBe(CLOSED_GATE)
    expect((await library.folders.list()).find(({ id }) => id === folder.id)?.gate).toBe(CLOSED_GATE)
    expect((await pages.get(page.id)).gate).toBe(CLOSED_GATE)
  })
})

it('what comes out of the bin without the folder that put it behind a gate stands behind that gate itself', async () => {
  const { library } = test.trough
  const gate = (await makeGate('Above')).id
  const top = await library.folders.create({ name: 'Above', parent: null })
  const below = await library.folders.create({ name: 'Below', parent: top.id })
  const deeper = await library.folders.create({ name: 'Deeper', parent: below.id })
  await library.folders.change(top.id, { gate })
  const file = await test.putInto('above.txt', 'above', { folder: below.id })
  const open = await test.putInto('open.txt', 'open', { folder: below.id })
  await library.change(open.id, { gate: OPEN_GATE })
  await library.remove({ files: [], folders: [deeper.id] })
  await library.remove({ files: [], folders: [top.id] })
  await library.restore({ files: [file.id, open.id], folders: [deeper.id] })
  expect(await library.get(file.id)).toMatchObject({ folder: null, gate })
  expect(await library.get(open.id)).toMatchObject({ folder: null, gate: OPEN_GATE })
  expect((await library.folders.list()).find(({ id }) => id === deeper.id)).toMatchObject({ parent: null, gate })
})

describe('what is made of something behind a gate', () => {
  it('stands behind it, too: a copy, a copied folder, an edition that becomes a file of its own', async () => {
    const { library, editions } = test.trough
    const gate = (await makeGate('Kept')).id
    const folder = await library.folders.create({ name: 'Kept', parent: null })
    await library.folders.change(folder.id, { gate, see: false })
    const file = await test.putInto('kept.txt', 'kept', { folder: folder.id })
    await library.change(file.id, { gate })
    const { files, folders } = await library.copy({ files: [file.id], folders: [folder.id] }, null)
    expect((await library.byId(files)).map(copy => copy.gate)).toEqual([gate, gate])
    expect(await library.folders.get(folders[0]!)).toMatchObject({ gate, see: false })
    await test.putInto('kept-2.txt', 'kept anew', { editionOf: file.id, waits: true })
    expect((await editions.split(file.id, 2)).gate).toBe(gate)
  })
})

describe('a seal', () => {
  it('is good for one purpose of one site, and for the text as it was', () => {
    const [seal, other, elsewhere] = [
      createSeal('a'.repeat(64), 'passes'),
      createSeal('a'.repeat(64), 'forms'),
      createSeal('b'.repeat(64), 'passes'),
    ]
    const sealed = seal.seal('some text')
    expect(seal.open(sealed)).toBe('some text')
    for (const each of [other, elsewhere]) expect(each.open(sealed)).toBeUndefined()
    for (const changed of [sealed.replace('some', 'same'), sealed.slice(0, -1), `${sealed}x`, 'some text', '~', '', '~'.repeat(9000)])
      expect(seal.open(changed)).toBeUndefined()
  })
})

describe('contacts', () => {
  const admit = (email: string, confirmed = false) =>
    test.trough.database.transaction(tx =>
      test.trough.contacts.admit(tx, { gate: { id: 'gone', name: 'Guides' }, email, confirmed, given: { answers: [], consent: 'Yes' } }),
    )

  it('are one for each address, found by a piece of it, and erased with all traces', async () => {
    const gate = await makeGate('For letters')
    const given = { answers: [{ label: 'Studio', value: '100% mud_' }], consent: '' }
    const in_ = (email: string) =>
      test.trough.database.transaction(tx => test.trough.contacts.admit(tx, { gate, email, confirmed: true, given }))
    const [first, second] = await Promise.all([in_('one@pots.example'), in_('one@pots.example')])
    expect(first.contact).toBe(second.contact)
    const { contacts } = test.trough
    expect((await contacts.list({ q: 'ONE@', from: 0, limit: 10 })).items).toMatchObject([
      { email: 'one@pots.example', last: 'For letters' },
    ])
    expect((await contacts.list({ q: '100% mud_', from: 0, limit: 10 })).total).toBe(1)
    // What a pattern takes for more than itself is taken as it is.
    expect((await contacts.list({ q: '1%m', from: 0, limit: 10 })).total).toBe(0)
    expect((await contacts.get(first.contact!)).admissions).toHaveLength(2)
    const file = await test.put('list.txt', 'list')
    const wanted = { note: 'Ada at Pots', email: 'one@pots.example', until: null, most: null, send: false }
    const { personalLinks, guests } = test.trough
    const link = await personalLinks.create(file.id, wanted, 'http://site.example')
    const ofGuest = await personalLinks.create(file.id, { ...wanted, email: 'guest@pots.example' }, 'http://site.example')
    const forgotten = { note: 'For somebody who is forgotten', email: '' }
    await contacts.erase(first.contact!)
    // Their link leads on, and says no more whose it is; so does that of a guest.
    const linksNow = async () => new Map((await personalLinks.list(file.id)).map(one => [one.id, one]))
    expect(await linksNow()).toEqual(
      new Map([
        [link.id, { ...link, ...forgotten }],
        [ofGuest.id, ofGuest],
      ]),
    )
    const [guest] = await guests.add({ guests: [{ email: 'guest@pots.example', name: '' }], groups: [] })
    await guests.remove(guest!)
    expect((await linksNow()).get(ofGuest.id)).toEqual({ ...ofGuest, ...forgotten })
    expect((await contacts.list({ q: '', from: 0, limit: 10 })).total).toBe(0)
    await expect(contacts.get(first.contact!)).rejects.toMatchObject({ status: 404 })
  })

  it('go when they were not heard of for as long as they are kept, and not before', async () => {
    const gate = await makeGate('For years')
    const given = { answers: [], consent: '' }
    await test.trough.database.transaction(tx =>
      test.trough.contacts.admit(tx, { gate, email: 'old@pots.example', confirmed: false, given }),
    )
    expect(await test.trough.contacts.eraseOld(Date.now() + 1000 * DAY)).toBe(0)
    await test.trough.contacts.setRules({ keepDays: 365 })
    expect(await test.trough.contacts.eraseOld(Date.now() + 364 * DAY)).toBe(0)
    expect(await test.trough.contacts.eraseOld(Date.now() + 366 * DAY)).toBe(1)
  })

  it('are none of a gate that is gone', async () => {
    await expect(admit('nobody@pots.example')).rejects.toMatchObject({ status: 404 })
    expect((await test.trough.contacts.list({ q: 'nobody', from: 0, limit: 10 })).total).toBe(0)
  })
})
