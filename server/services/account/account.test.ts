import { afterAll, afterEach, beforeAll, describe, expect, it, vi } from 'vitest'
import { generateSync } from 'otplib'
import { openTestTrough, type TestTrough } from '../../testing/harness'
import { createHasher, type Hasher } from './hasher'
import { createLimits } from './signInLimits'
import { newRecoveryCodes, stepOf, withoutRecoveryCode } from './secondFactor'
import { deviceOf } from './sessions'

let test: TestTrough
let hasher: Hasher
beforeAll(async () => {
  test = await openTestTrough()
  hasher = createHasher()
})
afterAll(async () => {
  await hasher.close()
  await test.close()
})

describe('passwords', () => {
  it('are hashed with scrypt and a salt of their own', async () => {
    const [a, b] = await Promise.all([hasher.hash('marlpit'), hasher.hash('marlpit')])
    expect(a).toMatch(/^scrypt\$131072\$8\$1\$/)
    expect(a).not.toBe(b)
    expect(await hasher.verify('marlpit', a)).toBe(true)
    expect(await hasher.verify('Marlpit', a)).toBe(false)
  })

  it('verify against the vector of RFC 7914, section 12 (N=16384, r=8, p=1)', async () => {
    const key =
      '7023bdcb3afd7348461c06cd81fd38ebfda8fbba904f8e3ea9b543f6545da1f2d5432955613f0fcf62d49705242a9af9e61e85dc0d651e40dfcf017b45575887'
    const hash = ['scrypt', 16384, 8, 1, Buffer.from('SodiumChloride').toString('base64'), Buffer.from(key, 'hex').toString('base64')].join(
      '$',
    )
    expect(await hasher.verify('pleaseletmein', hash)).toBe(true)
  })

  it('of strangers wait in a short queue; whoever is known comes first and is never sent away', async () => {
    const begun: string[] = []
    const underWay: (() => void)[] = []
    // Hashes that take as long as the test wants: which of two ends first is nobody's business.
    const held = createHasher({
      atOnce: 2,
      start: () => ({
        ask: ({ password }) =>
          new Promise(resolve => {
            begun.push(password)
            underWay.push(() => resolve({ matches: -1 }))
          }),
        close: async () => {},
      }),
    })
    const strangers = Array.from({ length: 12 }, () => held.verify('stranger', 'hash').catch((error: { status: number }) => error.status))
    const owner = held.verify('owner', 'hash', { known: true })
    await expect.poll(() => begun).toEqual(['stranger', 'stranger'])
    underWay.shift()!()
    await expect.poll(() => begun).toEqual(['stranger', 'stranger', 'owner'])
    while (begun.length < 9 || underWay.length) {
      underWay.shift()?.()
      await new Promise(setImmediate)
    }
    expect(await owner).toBe(false)
    expect((await Promise.all(strangers)).filter(answer => answer === 429)).toHaveLength(4)
  })
})

describe('limits', () => {
  afterEach(() => vi.useRealTimers())

  it('let an address fail five times a minute, its whole IPv6 network together, and forget on success', async () => {
    const limits = createLimits()
    let giveBack = async () => undefined as void
    for (let count = 0; count < 5; count++) giveBack = await limits.begin({ place: `2001:db8:1:2::${count}` })
    await expect(limits.begin({ place: '2001:db8:1:2:ffff::' })).rejects.toMatchObject({ status: 429, extra: { retryAfter: 60 } })
    await limits.begin({ place: '2001:db8:1:3::' })
    await giveBack()
    await limits.begin({ place: '2001:db8:1:2::9' })
  })

  it('let strangers of many addresses fail twenty times at one account, and its owner on a known device go on', async () => {
    const limits = createLimits()
    for (let count = 0; count < 20; count++) await limits.on('owner@marlpit.example', { place: `203.0.113.${count}` })
    await expect(limits.on('owner@marlpit.example', { place: '198.51.100.1' })).rejects.toMatchObject({ status: 429 })
    await limits.on('other@marlpit.example', { place: '198.51.100.1' })
    await limits.on('owner@marlpit.example', { place: '198.51.100.1', device: 'own' })
  })

  it('let all strangers together fail a hundred times, and a known device ten times', async () => {
    const limits = createLimits()
    for (let count = 0; count < 100; count++) await limits.begin({ place: `203.0.${count}.1` })
    await expect(limits.begin({ place: '198.51.100.1' })).rejects.toMatchObject({ status: 429 })
    for (let count = 0; count < 10; count++) await limits.begin({ place: '203.0.113.1', device: 'own' })
    await expect(limits.begin({ place: '203.0.113.1', device: 'own' })).rejects.toMatchObject({ status: 429 })
  })
})

describe('one-time codes', () => {
  // RFC 6238, appendix B, SHA-1, the last six of its eight digits; the secret is "12345678901234567890" in Base32.
  const secret = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ'
  it.each([
    [59, '287082', 1],
    [1111111109, '081804', 37037036],
    [1111111111, '050471', 37037037],
    [1234567890, '005924', 41152263],
    [2000000000, '279037', 66666666],
    [20000000000, '353130', 666666666],
  ])('at %d the code is %s', (epoch, code, step) => {
    expect(stepOf(secret, code, null, epoch)).toBe(step)
    expect(stepOf(secret, code, step, epoch)).toBeUndefined()
    expect(stepOf(secret, code, null, epoch + 90)).toBeUndefined()
    expect(stepOf(secret, ` ${code.slice(0, 3)} ${code.slice(3)}`, null, epoch)).toBe(step)
  })

  it('on paper work once each, however they are written', () => {
    const { codes, hashes } = newRecoveryCodes()
    expect(new Set(codes).size).toBe(10)
    const left = withoutRecoveryCode(hashes, codes[3]!.toLowerCase().replace('-', ' '))!
    expect(left).toHaveLength(9)
    expect(withoutRecoveryCode(left, codes[3]!)).toBeUndefined()
  })
})

describe('the owner', () => {
  const input = { email: 'owner@marlpit.example', password: 'kiln glaze marl', siteName: 'Marlpit' }
  const here = { place: '203.0.113.1' }

  it('is made once, with the code, and signs in', async () => {
    const { account } = test.trough
    await expect(account.setUp({ ...input, code: 'AAAA-AAAA-AAAA' })).rejects.toMatchObject({ status: 403 })
    expect(await account.isSetUp()).toBe(false)
    for (const common of ['password123', 'qwertyuiop', '1234567890', 'aaaaaaaaaaaa', input.email]) {
      await expect(account.setUp({ ...input, password: common, code: account.code }), common).rejects.toMatchObject({ status: 422 })
    }
    await account.setUp({ ...input, code: account.code.toLowerCase() })
    await expect(account.setUp({ ...input, code: account.code })).rejects.toMatchObject({ status: 409 })
    expect((await account.signIn({ email: input.email, password: input.password }, here)).email).toBe(input.email)
    await expect(account.signIn({ email: input.email, password: 'wrong' }, here)).rejects.toMatchObject({ status: 401 })
    await expect(account.signIn({ email: 'nobody@marlpit.example', password: 'wrong' }, here)).rejects.toMatchObject({ status: 401 })
  })

  it('changes the password with the old one, and gets another on the machine without it', async () => {
    const { account, sessions } = test.trough
    const { id } = await account.signIn({ email: input.email, password: input.password }, here)
    await expect(account.changePassword(id, 'wrong', 'another long one')).rejects.toMatchObject({ status: 403 })
    await account.changePassword(id, input.password, 'another long one')
    await expect(account.signIn({ email: input.email, password: input.password }, here)).rejects.toMatchObject({ status: 401 })
    const token = await sessions.begin(id, '203.0.113.1', undefined)
    expect(await account.resetPassword(input.password, false)).toBe(input.email)
    expect(await sessions.find(token, '203.0.113.1')).toBeUndefined()
    await account.signIn({ email: input.email, password: input.password }, here)
  })

  it('may ask for codes: the same one never twice, and one on paper instead', async () => {
    const { account } = test.trough
    const { id } = await account.signIn({ email: input.email, password: input.password }, here)
    const { secret, address } = await account.proposeSecondFactor(id, 'Marlpit')
    expect(address).toMatch(/^otpauth:\/\/totp\/Marlpit:owner%40marlpit.example\?secret=[A-Z2-7]{32}&issuer=Marlpit/)
    await expect(account.beginSecondFactor(id, { secret, code: '000000', password: input.password })).rejects.toMatchObject({ status: 422 })
    const now = generateSync({ secret })
    const [recovery] = await account.beginSecondFactor(id, { secret, code: now, password: input.password })
    const given = { email: input.email, password: input.password }
    await expect(account.signIn(given, here)).rejects.toMatchObject({ status: 401, extra: { secondFactor: true } })
    await expect(account.signIn({ ...given, code: now }, here)).rejects.toMatchObject({ status: 401 })
    const next = generateSync({ secret, epoch: Math.floor(Date.now() / 1000) + 30 })
    const both = await Promise.allSettled([account.signIn({ ...given, code: next }, here), account.signIn({ ...given, code: next }, here)])
    expect(both.map(one => one.status).sort()).toEqual(['fulfilled', 'rejected'])
    expect((await account.signIn({ ...given, code: recovery }, here)).secondFactor).toBe(true)
    await expect(account.signIn({ ...given, code: recovery }, here)).rejects.toMatchObject({ status: 401 })
    await account.endSecondFactor(id, input.password)
    await account.signIn(given, here)
  })

  it('is signed in where a session is, until it ends', async () => {
    const { account, sessions } = test.trough
    const { id } = await account.signIn({ email: input.email, password: input.password }, here)
    const [one, other] = [
      await sessions.begin(id, '203.0.113.1', 'Mozilla/5.0 (X11; Linux x86_64; rv:128.0) Gecko/20100101 Firefox/128.0'),
      await sessions.begin(id, '203.0.113.2', undefined),
    ]
    const own = (await sessions.find(one, '203.0.113.1'))!
    expect(own.account.email).toBe(input.email)
    const listed = await sessions.list(id, own.id)
    expect(listed.find(item => item.own)).toMatchObject({ device: 'Firefox on Linux', place: '203.0.113.1' })
    await sessions.endOthers(id, own.id)
    expect(await sessions.find(other, '203.0.113.2')).toBeUndefined()
    await sessions.end(id, own.id)
    expect(await sessions.find(one, '203.0.113.1')).toBeUndefined()
    await expect(sessions.end(id, own.id)).rejects.toMatchObject({ status: 404 })
  })
})

it.each([
  [undefined, 'A program'],
  ['curl/8.5.0', 'Curl'],
  [
    'Mozilla/5.0 (iPhone; CPU iPhone OS 17_0 like Mac OS X) AppleWebKit/605.1.15 (KHTML, like Gecko) Version/17.0 Mobile/15E148 Safari/604.1',
    'Safari on iOS',
  ],
])('%s is %s', (userAgent, device) => expect(deviceOf(userAgent).toLowerCase()).toBe(device.toLowerCase()))
