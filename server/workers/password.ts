import { randomBytes, scryptSync, timingSafeEqual } from 'node:crypto'
import { parentPort } from 'node:worker_threads'
import { comeAfterVisitors } from './courtesy'

/** A password to be hashed, or to be held against a hash. */
export interface PasswordTask {
  password: string
  hash?: string
}
export type PasswordMessage = { hash: string } | { matches: boolean } | { error: string }

// scrypt (RFC 7914) at OWASP's first recommendation, N=2^17, r=8, p=1: 128 MiB a guess.
const COST = { N: 2 ** 17, r: 8, p: 1 }
const MEMORY = 256 * 1024 * 1024
const KEY_BYTES = 32

function hashOf(password: string): string {
  const salt = randomBytes(16)
  const key = scryptSync(password.normalize('NFKC'), salt, KEY_BYTES, { ...COST, maxmem: MEMORY })
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join('$')
}

function matches(password: string, hash: string): boolean {
  const [scheme, N, r, p, salt, key] = hash.split('$')
  if (scheme !== 'scrypt') throw new Error(`Passwords hashed with "${scheme}" are not known here.`)
  const expected = Buffer.from(key!, 'base64')
  const actual = scryptSync(password.normalize('NFKC'), Buffer.from(salt!, 'base64'), expected.length, {
    N: Number(N),
    r: Number(r),
    p: Number(p),
    maxmem: MEMORY,
  })
  return timingSafeEqual(actual, expected)
}

comeAfterVisitors()
parentPort!.on('message', ({ password, hash }: PasswordTask) => {
  const say = (message: PasswordMessage) => parentPort!.postMessage(message)
  try {
    // In this thread itself: asynchronously it would take the threads that read files for visitors.
    say(hash === undefined ? { hash: hashOf(password) } : { matches: matches(password, hash) })
  } catch (error) {
    say({ error: (error as Error).message })
  }
})
