import { randomBytes, scrypt, timingSafeEqual, type ScryptOptions } from 'node:crypto'
import { promisify } from 'node:util'

const derive = promisify<string, Buffer, number, ScryptOptions, Buffer>(scrypt)

// scrypt (RFC 7914) at OWASP's first recommendation, N=2^17, r=8, p=1: 128 MiB a guess.
const COST = { N: 2 ** 17, r: 8, p: 1, maxmem: 256 * 1024 * 1024 }
const KEY_BYTES = 32

/** A salted, memory-hard hash of a password, with its parameters in front. */
export async function hashPassword(password: string): Promise<string> {
  const salt = randomBytes(16)
  const key = await derive(password.normalize('NFKC'), salt, KEY_BYTES, COST)
  return ['scrypt', COST.N, COST.r, COST.p, salt.toString('base64'), key.toString('base64')].join('$')
}

/** Whether a password is the one that was hashed. */
export async function verifyPassword(password: string, hash: string): Promise<boolean> {
  const [scheme, N, r, p, salt, key] = hash.split('$')
  if (scheme !== 'scrypt') throw new Error(`Passwords hashed with "${scheme}" are not known here.`)
  const expected = Buffer.from(key!, 'base64')
  const cost = { N: Number(N), r: Number(r), p: Number(p), maxmem: COST.maxmem }
  const actual = await derive(password.normalize('NFKC'), Buffer.from(salt!, 'base64'), expected.length, cost)
  return timingSafeEqual(actual, expected)
}
