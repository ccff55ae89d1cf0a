import { eq } from 'drizzle-orm'
import type { GateRule } from '../../../core/gate/gate'
import type { Queryable } from '../../db/connection'
import { groupMembers, guests } from '../../db/schema'

/** Who is in which group, and who there is. */
export interface Membership {
  there: ReadonlySet<string>
  /** identities of guests by their groups */
  members: ReadonlyMap<string, readonly string[]>
}

export async function readMembership(db: Queryable): Promise<Membership> {
  const there = new Set((await db.select({ id: guests.id }).from(guests)).map(({ id }) => id))
  const members = new Map<string, string[]>()
  for (const { groupId, guestId } of await db.select().from(groupMembers)) {
    const group = members.get(groupId)
    if (group) group.push(guestId)
    else members.set(groupId, [guestId])
  }
  return { there, members }
}

type Admitting = Pick<GateRule, 'guests' | 'groups'>

/** Who gets through a gate by name. */
export const admittedBy = ({ guests: named, groups }: Admitting, { there, members }: Membership): Set<string> =>
  new Set([...named.filter(id => there.has(id)), ...groups.flatMap(id => members.get(id) ?? [])])

/** Whether a guest gets through a gate, as the database has it now. */
export async function isAdmitted(db: Queryable, { guests: named, groups }: Admitting, guestId: string): Promise<boolean> {
  if (named.includes(guestId)) return true
  const own = await db.select({ groupId: groupMembers.groupId }).from(groupMembers).where(eq(groupMembers.guestId, guestId))
  return own.some(({ groupId }) => groups.includes(groupId))
}
