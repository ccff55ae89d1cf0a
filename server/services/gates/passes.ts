import { randomBytes } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import { LRUCache } from 'lru-cache'
import { passText, readPass, type Pass } from '../../../core/gate/pass'
import { createSeal } from './seal'

/** Cookies of a request that are looked at: browsers keep some 180 for a site (RFC 6265, section 6.1, asks for 50). */
const MOST_COOKIES = 200

const NAME = 'pass-'
const COOKIE = /(?:^|;\s*)(?:__Host-)?pass-([a-z0-9]{1,40})=([^;]*)/g

const NONE: ReadonlyMap<string, Pass> = new Map()

/** Passes as visitors keep them: sealed cookies, one for each gate. */
export function createPasses(secret: string) {
  const { seal, open } = createSeal(secret, 'passes')
  /** Opened once each: whoever downloads in many pieces shows the same one again and again. */
  const opened = new LRUCache<string, { pass: Pass | undefined }>({ max: 20_000 })
  /** The same for whole Cookie fields, which browsers send unchanged with each piece. */
  const carried = new LRUCache<string, ReadonlyMap<string, Pass>>({ maxSize: 4_000_000, sizeCalculation: (_, cookies) => cookies.length })

  function read(sealed: string): Pass | undefined {
    const known = opened.get(sealed)
    if (known) return known.pass
    const text = open(sealed)
    const pass = text === undefined ? undefined : readPass(text)
    opened.set(sealed, { pass })
    return pass
  }

  function readAll(cookies: string): ReadonlyMap<string, Pass> {
    const found = new Map<string, Pass>()
    let looked = 0
    for (const [, gate, sealed] of cookies.matchAll(COOKIE)) {
      if (++looked > MOST_COOKIES) break
      const pass = read(sealed!)
      // A cookie speaks for the gate in its name alone.
      if (pass?.gate === gate) found.set(gate!, pass!)
    }
    carried.set(cookies, found)
    return found
  }

  return {
    /** A new pass. @param id whom it counts as; a new one where nothing is said */
    give: (given: Omit<Pass, 'id'> & { id?: string }): Pass => ({ ...given, id: given.id ?? randomBytes(12).toString('base64url') }),

    sealed: (pass: Pass): string => seal(passText(pass)),

    /** The passes a request carries, by their gates. */
    of({ headers: { cookie } }: Pick<IncomingMessage, 'headers'>): ReadonlyMap<string, Pass> {
      if (!cookie?.includes(NAME)) return NONE
      return carried.get(cookie) ?? readAll(cookie)
    },

    /**
     * The field that gives a visitor a pass. By https its name holds browsers to this host alone (RFC 6265bis, section 4.1.3.2); script
     * cannot read it, and other sites' pages do not send it along with what they load.
     */
    cookie(pass: Pass, secure: boolean, now: number): string {
      const age = Math.max(0, Math.floor((pass.until - now) / 1000))
      return `${secure ? '__Host-' : ''}${NAME}${pass.gate}=${seal(passText(pass))}; Path=/; Max-Age=${age}; HttpOnly; SameSite=Lax${secure ? '; Secure' : ''}`
    },
  }
}
export type Passes = ReturnType<typeof createPasses>
