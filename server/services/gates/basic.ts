import { createHash } from 'node:crypto'
import type { IncomingMessage } from 'node:http'
import { LRUCache } from 'lru-cache'
import { passHolds, type Pass } from '../../../core/gate/pass'
import { networkOf } from '../../../core/http/forwarded'
import type { Visitors } from '../visitorAddress'
import type { Passwords } from './passwords'
import type { KnownGate } from './standing'

type Asker = Pick<IncomingMessage, 'headers'> & { socket?: IncomingMessage['socket'] }

/** How long a password that was found right is not held against its hash again, in milliseconds. */
const KEPT = 10 * 60 * 1000

/** The password of a Basic field (RFC 7617, section 2: UTF-8, behind the first colon); undefined where there is none. */
function passwordIn(authorization: string): string | undefined {
  const [, token] = /^basic +([\w+/=-]+)$/i.exec(authorization) ?? []
  if (token === undefined) return undefined
  const text = Buffer.from(token, 'base64').toString('utf8')
  const colon = text.indexOf(':')
  return colon < 0 ? undefined : text.slice(colon + 1)
}

/** Programs show the password of a gate with every request (RFC 7617). */
export function createBasicPasses(passwords: Passwords, visitors: Pick<Visitors, 'addressOf'>, now: () => number = Date.now) {
  const right = new LRUCache<string, Pass>({ max: 1000, ttl: KEPT })
  // What is kept says nothing of the password.
  const keyOf = (authorization: string, gate: KnownGate) => createHash('sha256').update(`${gate.id} ${authorization}`).digest('base64')

  function known({ headers: { authorization } }: Asker, gate: KnownGate): Pass | undefined {
    if (authorization === undefined || gate.rule.kind !== 'password') return undefined
    const pass = right.get(keyOf(authorization, gate))
    return pass && passHolds(pass, gate, now()) ? pass : undefined
  }

  return {
    /** The pass a request shows, where that was found out before. */
    known,

    /**
     * The same, held against the gate's passwords where it has to be.
     *
     * @throws VisitorProblem 429 where there were too many wrong ones
     */
    async find(request: Asker, gate: KnownGate): Promise<Pass | undefined> {
      const { authorization } = request.headers
      if (authorization === undefined || gate.rule.kind !== 'password' || gate.rule.terms) return undefined
      const before = known(request, gate)
      if (before) return before
      const password = passwordIn(authorization)
      if (password === undefined) return undefined
      const address = visitors.addressOf(request as IncomingMessage)
      const by = await passwords.check(gate, password, address)
      if (by === undefined) return undefined
      const pass: Pass = {
        gate: gate.id,
        epoch: gate.epoch,
        // One who shows a password from one network counts as one.
        id: createHash('sha256')
          .update(`${by} ${networkOf(address)}`)
          .digest('base64url')
          .slice(0, 16),
        by,
        until: now() + KEPT,
      }
      right.set(keyOf(authorization, gate), pass)
      return pass
    },
  }
}
export type BasicPasses = ReturnType<typeof createBasicPasses>
