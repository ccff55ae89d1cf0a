import { newId } from '../../../core/id'
import { Problem } from '../../../core/problem'
import type { TakeBack } from './holders'

const MOST_KEPT = 20

/** Changes of many places that can be taken back: the newest ones, for as long as this process lives. */
export function createTakeBacks() {
  const kept = new Map<string, TakeBack>()
  return {
    /** @returns by what it is found again */
    keep(takeBack: TakeBack): string {
      const id = newId()
      kept.set(id, takeBack)
      for (const oldest of [...kept.keys()].slice(0, -MOST_KEPT)) kept.delete(oldest)
      return id
    },

    /** @throws Problem 404 where that was long ago, or was taken back */
    find(id: string): TakeBack {
      const takeBack = kept.get(id)
      if (!takeBack) throw new Problem(404, 'That can no longer be taken back here.', 'Put the former one in its place instead.')
      return takeBack
    },

    forget: (id: string): void => void kept.delete(id),
  }
}
