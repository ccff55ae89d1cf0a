import { closeHistory, isHistoryTransaction, redo, undo, undoDepth } from '@tiptap/pm/history'
import { Node } from '@tiptap/pm/model'
import { EditorState, type Transaction } from '@tiptap/pm/state'
import { Step } from '@tiptap/pm/transform'
import type { Named } from '~/stores/targets'

/** One target that took the place of another everywhere, on pages that are not open as well. */
export interface Replaced {
  from: Named
  /** null where what led there was taken off */
  to: Named | null
  /** by what the server takes it back */
  undo: string
}

/** One thing that was done on a page. */
type Deed =
  | 'undo'
  | 'redo'
  | {
      steps: object[]
      /** milliseconds since 1970: what follows soon is undone together */
      time: number
      /** a step of its own for undo, more of the one before, or nothing to undo */
      kind: 'own' | 'more' | 'quiet'
      replaced?: Replaced
    }

/** As it is kept past a reload. */
export interface KeptPast {
  base: object
  deeds: Deed[]
}

/** Marks a transaction as the part of a replacement that concerns the open page. */
export const REPLACED = 'replaced'

/** What undoing, or doing once more, asks for beyond the page. */
export interface Beyond {
  back?: Replaced
  again?: Replaced
}

/** What was done on a page since it was opened first in this window, in the order of the editor's own history. */
export class Past {
  /** what each step that can be undone has done everywhere, and each that can be done once more */
  readonly #done: (Replaced | undefined)[] = []
  #undone: (Replaced | undefined)[] = []

  constructor(
    private base: object,
    private deeds: Deed[] = [],
  ) {}

  get kept(): KeptPast {
    return { base: this.base, deeds: this.deeds }
  }

  /** Writes down what has just been applied, with what the editor's rules appended to it. */
  note(transactions: readonly Transaction[], before: EditorState, after: EditorState): Beyond {
    const [root] = transactions
    if (!root || before.doc.eq(after.doc)) return {}
    const depth = undoDepth(after) - undoDepth(before)
    if (isHistoryTransaction(root)) {
      this.deeds.push(depth < 0 ? 'undo' : 'redo')
      const [from, to] = depth < 0 ? [this.#done, this.#undone] : [this.#undone, this.#done]
      const replaced = from.pop()
      to.push(replaced)
      return depth < 0 ? { back: replaced } : { again: replaced }
    }
    const replaced = root.getMeta(REPLACED) as Replaced | undefined
    const kind = root.getMeta('addToHistory') === false ? 'quiet' : depth === 0 ? 'more' : 'own'
    const steps = transactions.flatMap(transaction => transaction.steps.map(step => step.toJSON() as object))
    this.deeds.push({ steps, time: root.time, kind, ...(replaced && { replaced }) })
    if (kind === 'quiet') return {}
    this.#undone = []
    // The oldest go where there are too many.
    if (depth < 0) this.#done.splice(0, 1 - depth)
    if (kind === 'own') this.#done.push(replaced)
    return {}
  }

  /** A replacement was taken back otherwise than by undoing it here; one that is undone can be done once more. */
  forget(taken: string): void {
    const index = this.#done.findIndex(each => each?.undo === taken)
    if (index < 0) return
    this.#done[index] = undefined
    for (const deed of this.deeds) if (typeof deed === 'object' && deed.replaced?.undo === taken) delete deed.replaced
  }

  /** What was done up to now is not kept any longer: a reload finds the page as it is here. */
  beginAnew(state: EditorState): void {
    this.base = state.doc.toJSON() as object
    this.deeds = []
  }
}

function done(state: EditorState, deed: Deed, past: Past): EditorState {
  let next = state
  const apply = (transaction: Transaction) => {
    const applied = next.applyTransaction(transaction)
    past.note(applied.transactions, next, applied.state)
    next = applied.state
  }
  if (deed === 'undo') undo(state, apply)
  else if (deed === 'redo') redo(state, apply)
  else {
    const transaction = state.tr.setTime(deed.time)
    for (const step of deed.steps) transaction.step(Step.fromJSON(state.schema, step))
    if (deed.kind === 'quiet') transaction.setMeta('addToHistory', false)
    if (deed.kind === 'own') closeHistory(transaction)
    if (deed.replaced) transaction.setMeta(REPLACED, deed.replaced)
    apply(transaction)
  }
  return next
}

/**
 * The editor as it was when what is kept of a page had been done, so that it can be undone.
 *
 * @param now the page as it is; what was done and never saved is left out
 * @returns undefined where what is kept does not lead to that
 */
export function recall(
  editor: Pick<EditorState, 'schema' | 'plugins'>,
  { base, deeds }: KeptPast,
  now: Node,
): { state: EditorState; past: Past } | undefined {
  const { schema, plugins } = editor
  const begin = () => ({
    state: EditorState.create({ schema, plugins: [...plugins], doc: Node.fromJSON(schema, base) }),
    past: new Past(base),
  })
  let { state, past } = begin()
  let upTo = state.doc.eq(now) ? 0 : undefined
  for (const [index, deed] of deeds.entries()) {
    state = done(state, deed, past)
    if (state.doc.eq(now)) upTo = index + 1
  }
  if (upTo === undefined || upTo === deeds.length) return upTo === undefined ? undefined : { state, past }
  ;({ state, past } = begin())
  for (const deed of deeds.slice(0, upTo)) state = done(state, deed, past)
  return { state, past }
}
