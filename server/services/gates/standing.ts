import { standingIn, type Gated } from '../../../core/gate/standing'
import type { GateRule } from '../../../core/gate/gate'
import type { PassFacts } from '../../../core/gate/pass'
import type { Database } from '../../db/connection'
import { gatePasswords, gates } from '../../db/schema'
import type { Events } from '../events'
import type { KeptTree } from '../files/keptTree'
import { admittedBy, readMembership } from '../guests/membership'
import { kept } from '../kept'
import { SPENT } from './passwords'

/** A gate as it has to be known to say whether somebody may pass. */
export interface KnownGate extends PassFacts {
  name: string
  rule: GateRule
  /** of each password */
  hashes: ReadonlyMap<string, string>
}

/** What holds now: the gates there are, and what stands behind which. */
export interface Standing {
  gates: ReadonlyMap<string, KnownGate>
  /** the gates that have to be passed before something is had; none where it is open */
  of: (thing: Gated) => readonly string[]
}

/** Keeps what is known of gates in memory, until any of them or the tree of folders changes. */
export function createStanding(db: Database, tree: KeptTree, events: Events) {
  // Folders change more often than gates, and say nothing of them but where they stand.
  const known = kept(async (): Promise<ReadonlyMap<string, KnownGate>> => {
    const rows = await db.select().from(gates)
    const passwords = await db.select({ id: gatePasswords.id, gateId: gatePasswords.gateId, hash: gatePasswords.hash }).from(gatePasswords)
    const membership = await readMembership(db)
    return new Map(
      rows.map(({ id, name, rule, epoch }): [string, KnownGate] => {
        const own = passwords.filter(({ gateId }) => gateId === id)
        const hashes = new Map(own.filter(({ hash }) => hash !== SPENT).map(row => [row.id, row.hash]))
        const givers =
          rule.kind === 'password' ? new Set(own.map(row => row.id)) : rule.kind === 'people' ? admittedBy(rule, membership) : undefined
        return [id, { id, name, rule, epoch, hashes, givers }]
      }),
    )
  })
  const standing = kept(async (): Promise<Standing> => {
    const all = await known.get()
    return { gates: all, of: standingIn(await tree.get(), all.keys()) }
  })
  events.on('gates', known.forget)
  events.on('gates', standing.forget)
  events.on('folders', standing.forget)
  return standing
}
export type KeptStanding = ReturnType<typeof createStanding>
