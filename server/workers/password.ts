import { randomBytes, scryptSync, timingSafeEqual } from 'node:crypto'
import { parentPort } from 'node:worker_threads'
import { comeAfterVisitors } from './courtesy'

/** A password to be hashed, or to be held against hashes. */
export interface PasswordTask {
  password: string
  hashes?: string[]
  /** a hash with whose salt it is hashed: what is held against both is hashed once */
  like?: string
}
/** `matches` says which of the hashes it is; -1 for none. */
export type PasswordMessage = { hash: string } | { matches: number } | { error: string }

// scrypt (RFC 7914) at OWASP's first recommendation, N=2^17, r=8, p=1: 128 MiB a guess.
const COST = { N: 2 ** 17, r: 8, p: 1 }
const MEMORY = 256 * 1024 * 1024
const KEY_BYTES = 32

type Derived = { N: number; r: number; p: number; salt: string; key: Buffer }

function partsOf(hash: string): Derived {
  const [scheme, N, r, p, salt, key] = hash.split('$')
  if (scheme !== 'scrypt') throw new Error(`Passwords hashed with "${scheme}" are not known here.`)
  return { N: Number(N), r: Number(r), p: Number(p), salt: salt!, key: Buffer.from(key!, 'base64') }
}

const derive = (password: string, { N, r, p, salt }: Omit<Derived, 'key'>, bytes = KEY_BYTES): Buffer =>
  scryptSync(password.normalize('NFKC'), Buffer.from(salt, 'base64'), bytes, { N, r, p, maxmem: MEMORY })

function hashOf(password: string, like: string | undefined): string {
  const salt = like === undefined ? randomBytes(16).toString('base64') : partsOf(like).salt
  return ['scrypt', COST.N, COST.r, COST.p, salt, derive(password, { ...COST, salt }).toString('base64')].join('$')
}

function matchOf(password: string, hashes: string[]): number {
  const derived = new Map<string, Buffer>()
  return hashes.findIndex(hash => {
    const parts = partsOf(hash)
    const { N, r, p, salt, key } = parts
    const way = [N, r, p, salt, key.length].join('$')
    const own = derived.get(way) ?? derive(password, parts, key.length)
    derived.set(way, own)
    return timingSafeEqual(own, key)
  })
}

// A little only: somebody waits for it.
comeAfterVisitors(3)
parentPort!.on('message', ({ password, hashes, like }: PasswordTask) => {
  const say = (message: PasswordMessage) => parentPort!.postMessage(message)
  try {
    // In this thread itself: asynchronously it would take the threads that read files for visitors.
    say(hashes ? { matches: matchOf(password, hashes) } : { hash: hashOf(password, like) })
  } catch (error) {
    say({ error: (error as Error).message })
  }
})
