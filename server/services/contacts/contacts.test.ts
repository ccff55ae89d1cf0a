import { sql } from 'drizzle-orm'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { contacts, hookMessages, hooks } from '../../db/schema'
import { openTestTrough, type TestTrough } from '../../testing/harness'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

async function table(filter: { q?: string; confirmed?: 'yes' | 'no' } = {}): Promise<Record<string, string>[]> {
  let text = ''
  for await (const piece of test.trough.contacts.csv({ q: '', ...filter })) text += piece
  return Papa.parse<Record<string, string>>(text.replace('\uFEFF', ''), { header: true, skipEmptyLines: true }).data
}

describe('everyone as a table', () => {
  it('has each once, the oldest first, however close to each other they came', async () => {
    // PostgreSQL keeps microseconds (date/time types), JavaScript milliseconds (ECMA-262, time values).
    await test.trough.database.execute(sql`insert into ${contacts} (id, email, created)
      select 'contact' || n, 'potter' || n || '@example.org', timestamptz '2026-03-01 10:00:00.000789Z' + (n / 3) * interval '1 millisecond'
      from generate_series(1, 1203) n`)
    const emails = (await table()).map(row => row['E-mail']!)
    expect(emails).toHaveLength(1203)
    expect(new Set(emails).size).toBe(1203)
    expect(emails.slice(0, 2).sort()).toEqual(['potter1@example.org', 'potter2@example.org'])
    expect(emails.at(-1)).toBe('potter1203@example.org')
  })

  it('has those alone that are asked for', async () => {
    expect((await table({ q: 'potter120' })).map(row => row['E-mail'])).toEqual(
      ['potter120', 'potter1200', 'potter1201', 'potter1202', 'potter1203'].map(name => `${name}@example.org`),
    )
    expect(await table({ confirmed: 'yes' })).toEqual([])
  })
})

describe('what is known of somebody', () => {
  it('goes with what other services were told of them, and of nobody else', async () => {
    const { database, contacts: service } = test.trough
    await database.insert(hooks).values({ id: 'hook', address: 'https://other.example/hook', events: [], secret: '' })
    // LIKE takes "_" and "%" for more than themselves (PostgreSQL 9.7.1).
    const emails = ['a_b@example.com', 'axb@example.com', '%@example.com', 'o"brien@example.com']
    for (const [at, email] of emails.entries()) {
      await database.insert(contacts).values({ id: `told${at}`, email })
      const body = JSON.stringify({ data: { email } })
      await database.insert(hookMessages).values({ id: `message${at}`, hookId: 'hook', event: 'contact', body })
    }
    const left = async () =>
      (await database.select({ id: hookMessages.id }).from(hookMessages).orderBy(hookMessages.id)).map(({ id }) => id)
    await service.erase('told0')
    expect(await left()).toEqual(['message1', 'message2', 'message3'])
    await service.erase('told2')
    expect(await left()).toEqual(['message1', 'message3'])
    await service.erase('told3')
    expect(await left()).toEqual(['message1'])
  })
})
