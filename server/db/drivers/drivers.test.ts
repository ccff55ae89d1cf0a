import { afterAll, beforeAll, expect, it } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { gatePasswords, settings } from '../schema'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

it('says what was wrong with a question, and goes on', async () => {
  const { database } = test.trough
  const twice = database.insert(settings).values([
    { key: 'twice', value: 1 },
    { key: 'twice', value: 2 },
  ])
  await expect(twice).rejects.toMatchObject({ cause: { code: '23505' } })
  const orphan = database.transaction(tx => tx.insert(gatePasswords).values({ id: 'a', gateId: 'gone', label: '', hash: '' }))
  await expect(orphan).rejects.toMatchObject({ cause: { code: '23503' } })
  await database.insert(settings).values({ key: 'after', value: true })
  expect(await database.select().from(settings)).toContainEqual({ key: 'after', value: true })
})
