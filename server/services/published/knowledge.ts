import { behindOf } from '../../../core/gate/asks'
import type { Gated } from '../../../core/gate/standing'
import { isOut } from '../files/items'
import type { Guard } from '../gates/guard'
import type { LibraryService } from '../library/library'

export interface KnowledgeNeeds {
  library: Pick<LibraryService, 'byId'>
  guard: Pick<Guard, 'standing'>
}

/** How whoever reads what stands behind a gate, or behind none, knows of other things. */
export async function knowledgeBehind(gate: string | null, { library, guard }: KnowledgeNeeds) {
  const { gates, of } = await guard.standing()
  // Who reads it has passed it.
  const passed = new Set(gate ? [gate] : [])
  const behind = (thing: Gated) => behindOf(of(thing), gates, passed)
  const mayBeKnown = (thing: Gated) => !behind(thing)?.hidden
  return {
    behind,
    mayBeKnown,
    async titles(ids: string[]): Promise<Map<string, string>> {
      const there = (await library.byId(ids)).filter(file => !isOut(file) && mayBeKnown(file))
      return new Map(there.map(({ id, title }) => [id, title]))
    },
  }
}
