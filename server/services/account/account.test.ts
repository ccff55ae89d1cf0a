import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { Attempts } from './attempts'
import { hashPassword, verifyPassword } from './password'

let test: TestTrough
beforeAll(async () => {
  test = await openTestTrough()
})
afterAll(() => test.close())

describe('passwords', () => {
  it('are hashed with scrypt and a salt of their own', async () => {
    const [a, b] = await Promise.all([hashPassword('marlpit'), hashPassword('marlpit')])
    expect(a).toMatch(/^scrypt\$131072\$8\$1\$/)
    expect(a).not.toBe(b)
    expect(await verifyPassword('marlpit', a)).toBe(true)
    expect(await verifyPassword('Marlpit', a)).toBe(false)
  })

  it('verify against the vector of RFC 7914, section 12 (N=16384, r=8, p=1)', async () => {
    const key = '7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2d5432955613f0fcf62d49705242a9af9e61e85dc0d651e40dfcf017b45575887'
    const hash = ['scrypt', 16384, 8, 1, Buffer.from('SodiumChloride').toString('base64'), Buffer.from(key, 'hex').toString('base64')].join('$')
    expect(await verifyPassword('pleaseletmein', hash)).toBe(true)
  })
})

describe('attempts', () => {
  it('slow down after five failures and forget on success', () => {
    let now = 0
    const attempts = new Attempts(() => now)
    for (let count = 0; count < 5; count++) {
      attempts.check('here')
      attempts.failed('here')
    }
    expect(() => attempts.check('here')).toThrow(/Wait 15 seconds/)
    attempts.check('elsewhere')
    now = 15_000
    attempts.check('here')
    attempts.failed('here')
    expect(() => attempts.check('here')).toThrow(/Wait 30 seconds/)
    attempts.succeeded('here')
    attempts.check('here')
  })
})

describe('the owner', () => {
  const input = { email: 'owner@marlpit.example', password: 'a long one', siteName: 'Marlpit' }

  it('is made once, with the code, and signs in', async () => {
    const { account } = test.trough
    await expect(account.setUp({ ...input, code: 'AAAA-AAAA-AAAA' }, 'here')).rejects.toMatchObject({ status: 403 })
    expect(await account.isSetUp()).toBe(false)
    await account.setUp({ ...input, code: account.code.toLowerCase() }, 'here')
    await expect(account.setUp({ ...input, code: account.code }, 'here')).rejects.toMatchObject({ status: 409 })
    expect((await account.signIn({ email: input.email, password: input.password }, 'here')).email).toBe(input.email)
    await expect(account.signIn({ email: input.email, password: 'wrong' }, 'there')).rejects.toMatchObject({ status: 401 })
    await expect(account.signIn({ email: 'nobody@marlpit.example', password: 'wrong' }, 'there')).rejects.toMatchObject({ status: 401 })
  })

  it('cannot be guessed by many attempts at once', async () => {
    const all = await Promise.allSettled(Array.from({ length: 12 }, () => test.trough.account.signIn({ email: input.email, password: 'wrong' }, 'flood')))
    expect(all.filter(one => one.status === 'rejected' && (one.reason as { status: number }).status === 429).length).toBeGreaterThanOrEqual(7)
  })
})
