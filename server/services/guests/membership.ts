import { count, eq, inArray, or, sql, type AnyColumn } from 'drizzle-orm'
import type { GateRule } from '../../../core/gate/gate'
import type { Queryable } from '../../db/connection'
import { groupMembers, guests } from '../../db/schema'

/** Who is in which group, and who there is. */
export interface Membership {
  there: ReadonlySet<string>
  /** identities of guests by their groups */
  members: ReadonlyMap<string, readonly string[]>
}

/** Everybody in a row for each group: tens of thousands of rows take longer to hand over than to find. */
export async function readMembership(db: Queryable): Promise<Membership> {
  const all = (column: AnyColumn) => sql<string | null>`string_agg(${column}, ' ')`
  const [everybody] = await db.select({ ids: all(guests.id) }).from(guests)
  const rows = await db
    .select({ groupId: groupMembers.groupId, ids: all(groupMembers.guestId) })
    .from(groupMembers)
    .groupBy(groupMembers.groupId)
  const idsIn = (text: string | null | undefined) => text?.split(' ') ?? []
  return { there: new Set(idsIn(everybody?.ids)), members: new Map(rows.map(({ groupId, ids }) => [groupId, idsIn(ids)])) }
}

type Admitting = Pick<GateRule, 'guests' | 'groups'>

/** Who gets through a gate by name. */
export const admittedBy = ({ guests: named, groups }: Admitting, { there, members }: Membership): Set<string> =>
  new Set([...named.filter(id => there.has(id)), ...groups.flatMap(id => members.get(id) ?? [])])

/** How many get through a gate by name. */
export async function countAdmitted(db: Queryable, { guests: named, groups }: Admitting): Promise<number> {
  if (!named.length && !groups.length) return 0
  const member = groups.length
    ? sql`exists (select 1 from ${groupMembers} where ${groupMembers.guestId} = ${guests.id} and ${inArray(groupMembers.groupId, groups)})`
    : undefined
  const [row] = await db
    .select({ count: count() })
    .from(guests)
    .where(or(named.length ? inArray(guests.id, named) : undefined, member))
  return row!.count
}

/** Whether a guest gets through a gate, as the database has it now. */
export async function isAdmitted(db: Queryable, { guests: named, groups }: Admitting, guestId: string): Promise<boolean> {
  if (named.includes(guestId)) return true
  const own = await db.select({ groupId: groupMembers.groupId }).from(groupMembers).where(eq(groupMembers.guestId, guestId))
  return own.some(({ groupId }) => groups.includes(groupId))
}
