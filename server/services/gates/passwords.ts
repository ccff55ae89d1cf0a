import { eq, sql } from 'drizzle-orm'
import type { Database } from '../../db/connection'
import { gates } from '../../db/schema'
import type { Hasher } from '../account/hasher'
import type { Guessing } from './guessing'

/** Days without a wrong password after which guessing is counted anew. */
const QUIET_DAYS = 30

/** In the place of a hash: a password that was changed, and whose passes go on. */
export const SPENT = ''

/** What is guessed at: a gate, and the hash of each of its passwords. */
interface Guarded {
  id: string
  hashes: ReadonlyMap<string, string>
}

/** Holds passwords against those of a gate, slower the more are wrong; and notes that for the owner. */
export function createPasswords(db: Database, hasher: Hasher, guessing: Guessing) {
  async function noteWrong(gate: string): Promise<void> {
    await db
      .update(gates)
      .set({
        wrong: sql`case when ${gates.wrongSince} < now() - make_interval(days => ${QUIET_DAYS}) then 1 else ${gates.wrong} + 1 end`,
        wrongSince: sql`case when ${gates.wrongSince} is null or ${gates.wrongSince} < now() - make_interval(days => ${QUIET_DAYS}) then now() else ${gates.wrongSince} end`,
      })
      .where(eq(gates.id, gate))
  }

  return {
    hash: hasher.hash,

    /**
     * The identity of the password somebody gave; undefined where it is none of the gate's.
     *
     * @throws VisitorProblem 429 where too many were wrong
     */
    async check({ id, hashes }: Guarded, password: string, address: string): Promise<string | undefined> {
      const takeBack = await guessing.begin(id, address)
      const ids = [...hashes.keys()]
      const own = ids.length ? ids[await hasher.match(password.trim(), [...hashes.values()])] : undefined
      if (own !== undefined) {
        await takeBack()
        return own
      }
      await noteWrong(id)
      return undefined
    },
  }
}
export type Passwords = ReturnType<typeof createPasswords>
