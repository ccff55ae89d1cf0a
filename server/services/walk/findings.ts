import { desc, eq } from 'drizzle-orm'
import { COSTS, type Cost, type Finding, type WalkSummary } from '../../../core/walk/finding'
import type { Database } from '../../db/connection'
import { leftFindings, walks } from '../../db/schema'
import type { Walked } from './walking'

const MOST_EARLIER = 60

/** What a walk of some pages came to, told the owner: what was left as it is, and how earlier walks went. */
export function createFindings(db: Database) {
  return {
    async of(walked: Iterable<Walked>): Promise<Finding[]> {
      const left = new Map((await db.select().from(leftFindings)).map(({ key, because }) => [key, because]))
      const found = new Map<string, Finding>()
      for (const { page, live, draft } of walked) {
        for (const [side, draftOnly] of [
          [live, false],
          [draft, true],
        ] as const) {
          for (const one of side) if (!found.has(one.key)) found.set(one.key, { ...one, page, draftOnly, left: left.get(one.key) ?? null })
        }
      }
      return [...found.values()].sort((one, other) => COSTS.indexOf(one.cost) - COSTS.indexOf(other.cost))
    },

    summarise(found: Finding[], walked: ReadonlyMap<string, Walked>, at: Date): WalkSummary {
      const open = found.filter(finding => finding.left === null && !finding.draftOnly)
      const counts = Object.fromEntries(COSTS.map(cost => [cost, open.filter(finding => finding.cost === cost).length])) as Record<
        Cost,
        number
      >
      return {
        at: at.toISOString(),
        pages: walked.size,
        placements: [...walked.values()].reduce((sum, page) => sum + page.placements, 0),
        counts,
      }
    },

    /** Earlier walks, the newest last. */
    async earlier(): Promise<WalkSummary[]> {
      const rows = await db.select().from(walks).orderBy(desc(walks.at)).limit(MOST_EARLIER)
      return rows.reverse().map(({ at, pages, placements, counts }) => ({ at: at.toISOString(), pages, placements, counts }))
    },

    /** When everything was walked last; undefined for never. */
    async newest(): Promise<Date | undefined> {
      const [row] = await db.select({ at: walks.at }).from(walks).orderBy(desc(walks.at)).limit(1)
      return row?.at
    },

    async note({ at, ...summary }: WalkSummary): Promise<void> {
      await db.insert(walks).values({ ...summary, at: new Date(at) })
    },

    /** Leaves a finding as it is. */
    async leave(key: string, because: string): Promise<void> {
      await db.insert(leftFindings).values({ key, because }).onConflictDoUpdate({ target: leftFindings.key, set: { because } })
    },

    /** Shows a finding again that was left. */
    async takeUp(key: string): Promise<void> {
      await db.delete(leftFindings).where(eq(leftFindings.key, key))
    },
  }
}
