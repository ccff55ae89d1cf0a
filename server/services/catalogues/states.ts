import { newId } from '../../../core/id'

/** A state of a list whose things change in their places. */
export interface State {
  /** names it; no other process names one so */
  stamp: string
  /** identities of what has changed since another state; undefined where that is not known */
  changedSince: (stamp: string) => Set<string> | undefined
  /** the state after some have changed */
  next: (ids: Iterable<string>) => State
}

const RUN = newId(8)
let count = 0

function stateOf(first: number, changed: Map<string, number>): State {
  const now = ++count
  return {
    stamp: `${RUN}-${now}`,
    changedSince(stamp) {
      const [run, number] = stamp.split('-')
      const since = Number(number)
      if (run !== RUN || !(since >= first && since <= now)) return undefined
      return new Set([...changed].flatMap(([id, at]) => (at > since ? [id] : [])))
    },
    next(ids) {
      const later = new Map(changed)
      for (const id of ids) later.set(id, count + 1)
      return stateOf(first, later)
    },
  }
}

/** A state before which nothing is known. */
export const firstState = (): State => stateOf(count + 1, new Map())
