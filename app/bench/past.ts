import type { Editor } from '@tiptap/vue-3'
import { closeHistory } from '@tiptap/pm/history'
import { EditorState } from '@tiptap/pm/state'
import { Mapping } from '@tiptap/pm/transform'
import { useDebounceFn } from '@vueuse/core'
import { onBeforeUnmount, watch, type Ref } from 'vue'
import type { PageDocument } from '~~/core/page/schema'
import { become } from '~/editor/become'
import { Past, REPLACED, recall, type KeptPast, type Replaced } from '~/editor/past'

/** Letters; a window keeps some five million of all pages. */
const MOST_KEPT = 800_000
const KEEP_AFTER = 300

/** What was done on the open page in this window, kept past a reload so that it can still be undone, replacing everywhere included. */
export function usePast(id: string, editor: Ref<Editor | undefined>) {
  const page = usePage()
  const targets = useTargets()
  const notices = useNotices()
  const place = `trough-past-${id}`
  let past: Past | undefined
  let last: Editor['state'] | undefined

  function keep() {
    if (!past || !editor.value) return
    let text = JSON.stringify(past.kept)
    if (text.length > MOST_KEPT) {
      past.beginAnew(editor.value.state)
      text = JSON.stringify(past.kept)
    }
    try {
      sessionStorage.setItem(place, text)
    } catch {
      // The window's room is used up by other pages: after a reload this one begins with nothing to undo.
      sessionStorage.removeItem(place)
    }
  }
  const keepSoon = useDebounceFn(keep, KEEP_AFTER)
  useEventListener(window, 'pagehide', keep)
  onBeforeUnmount(keep)

  function kept(): KeptPast | undefined {
    const text = sessionStorage.getItem(place)
    return text ? (JSON.parse(text) as KeptPast) : undefined
  }

  /** The page comes into the editor, with what was done on it before where that is known. */
  function begin(document: PageDocument) {
    const current = editor.value!
    const { schema, state, view } = current
    const now = schema.nodeFromJSON(document)
    let known: ReturnType<typeof recall>
    try {
      const before = kept()
      known = before && recall(state, before, now)
    } catch {
      // Another version of Trough wrote it down, for pages of another kind: there is nothing to undo then.
      known = undefined
    }
    past = known?.past ?? new Past(now.toJSON() as object)
    last = known?.state ?? EditorState.create({ schema, plugins: [...state.plugins], doc: now })
    // By which the desk's own parts hear of it.
    current.emit('beforeTransaction', { editor: current, transaction: last.tr, nextState: last })
    view.updateState(last)
    allSaved()
  }

  interface Written {
    from: EditorState
    since: Mapping
  }
  /** The page as the server has it, and what was done on it since. */
  let unsaved: Written | undefined
  const allSaved = () => (unsaved = { from: editor.value!.state, since: new Mapping() })
  /** The same, of a page that is being read anew. */
  let reading: Written | undefined
  const beginReading = () => (reading = unsaved)

  /**
   * The open page was changed elsewhere on the desk, or by something that was replaced everywhere: what was done here can be undone, and
   * what was not saved when that was read stays.
   *
   * @returns whether there is something to be saved
   */
  function take(document: PageDocument, replaced: Replaced | undefined): boolean {
    const { schema, view } = editor.value!
    const { from, since } = reading!
    const done = since.maps.length > 0
    const change = view.state.tr
    for (const step of become(from, schema.nodeFromJSON(document))?.steps ?? []) {
      const mapped = step.map(since)
      if (mapped) change.maybeStep(mapped)
    }
    if (change.docChanged) {
      // It is saved already.
      change.setMeta('preventUpdate', true)
      view.dispatch(replaced ? closeHistory(change.setMeta(REPLACED, replaced)) : change.setMeta('addToHistory', false))
      if (replaced) view.dispatch(closeHistory(view.state.tr))
    }
    allSaved()
    reading = undefined
    return done
  }

  watch(editor, current =>
    current?.on('transaction', ({ transaction, appendedTransactions }) => {
      for (const written of new Set([unsaved, reading]))
        for (const each of [transaction, ...appendedTransactions]) written?.since.appendMapping(each.mapping)
      if (!past || !last) return
      const before = last
      last = current.state
      const { back, again } = past.note([transaction, ...appendedTransactions], before, last)
      if (back) targets.takeBack(back.undo).catch(notices.refused)
      if (again) targets.replaceAgain(again).then(keep, notices.refused)
      if (transaction.docChanged) void keepSoon()
    }),
  )
  watch(
    () => page.state,
    state => state === 'saved' && editor.value && allSaved(),
  )
  watch(
    () => targets.taken,
    taken => past?.forget(taken),
  )

  return { begin, beginReading, take }
}
