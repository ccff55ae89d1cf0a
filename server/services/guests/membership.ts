import { eq, sql, type AnyColumn } from 'drizzle-orm'
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
  // One text for each list: hundreds of parameters take longer to read than the rows to count.
  const among = (ids: readonly string[]) => sql`any(string_to_array(${ids.join(' ')}, ' '))`
  const { rows } = await db.execute<{ count: number }>(sql`select count(*)::int as count from (
    select ${groupMembers.guestId} from ${groupMembers} where ${groupMembers.groupId} = ${among(groups)}
    union select ${guests.id} from ${guests} where ${guests.id} = ${among(named)}
  ) as admitted`)
  return rows[0]!.count
}

/** Whether a guest gets through a gate, as the database has it now. */
export async function isAdmitted(db: Queryable, { guests: named, groups }: Admitting, guestId: string): Promise<boolean> {
  if (named.includes(guestId)) return true
  const own = await db.select({ groupId: groupMembers.groupId }).from(groupMembers).where(eq(groupMembers.guestId, guestId))
  return own.some(({ groupId }) => groups.includes(groupId))
}
