import type { KeptTree } from '../services/files/keptTree'
import { createBasicPasses } from '../services/gates/basic'
import { createGates } from '../services/gates/gates'
import { createGuard } from '../services/gates/guard'
import { createGuessing } from '../services/gates/guessing'
import { createKnownLinks, forgetSentTo } from '../services/gates/links'
import { createPasses } from '../services/gates/passes'
import { createPasswords } from '../services/gates/passwords'
import { createStanding } from '../services/gates/standing'
import { createTakes } from '../services/gates/takes'
import { createGuests } from '../services/guests/guests'
import type { Visitors } from '../services/visitorAddress'
import type { DataFolder } from './dataFolder'
import type { Owner } from './owner'

interface GatesOptions {
  visitors: Visitors
  tree: KeptTree
  /** the time zone in which days are counted */
  zone: () => Promise<string>
  now?: () => number
}

/** Who may have what. */
export function openGates(
  { connection: { db }, secrets, events }: DataFolder,
  { hasher }: Pick<Owner, 'hasher'>,
  { visitors, tree, zone, now }: GatesOptions,
) {
  const standing = createStanding(db, tree, events)
  const passes = createPasses(secrets.session)
  const passwords = createPasswords(db, hasher, createGuessing())
  const guard = createGuard({
    standing,
    passes,
    links: createKnownLinks(db, events),
    takes: createTakes(db, zone, now),
    basic: createBasicPasses(passwords, visitors, now),
    now,
  })
  return { standing, passes, passwords, guard, gates: createGates(db, passwords), guests: createGuests(db, forgetSentTo) }
}
export type OpenGates = ReturnType<typeof openGates>
