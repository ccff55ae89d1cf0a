import type { Editor } from '@tiptap/vue-3'
import { onMounted, onScopeDispose, ref, type Ref } from 'vue'
import { documentOf, focusEnd, selectPlacement } from '~/editor/commands'
import type { Anew } from '~/stores/page'
import { usePast } from './past'

interface OpeningOptions {
  id: string
  /** the placement to begin at */
  at: () => string | undefined
  editor: Ref<Editor | undefined>
  /** the placement that is selected */
  selected: () => string | undefined
  /** nothing of the page is selected */
  onOpen: () => void
}

/** Opening the page, its earlier versions, what another tab made of it, and leaving it. */
export function useOpening({ id, at, editor, selected, onOpen }: OpeningOptions) {
  const page = usePage()
  const rights = useRights()
  const looks = useLooks()
  const notices = useNotices()
  const asking = useAsking()
  const past = usePast(id, editor)
  const failure = ref('')

  // The page is asked for while its board is being put up.
  const mounted = new Promise<void>(resolve => onMounted(resolve))
  let loaded: Promise<void> | undefined
  const load = (placement = at()) => (loaded = loadAt(placement))
  async function loadAt(placement: string | undefined) {
    failure.value = ''
    try {
      await Promise.all([page.open(id), looks.ready(), mounted])
      document.title = `${page.current!.title} · Trough`
      const current = editor.value
      if (!current) return
      const { edge } = page.current!
      current.storage.edge.edge = edge === 'entry' ? null : edge
      past.begin(page.draft!)
      current.setEditable(rights.may('write'), false)
      if (placement && selectPlacement(current, placement)) return
      focusEnd(current)
      onOpen()
    } catch (error) {
      failure.value = wordsOf(error)
    }
  }

  /** Puts a version that was live into the draft; undo takes it out again. */
  async function bringBack(number: number) {
    try {
      const { title, document } = await readVersion(id, number)
      page.rename(title)
      editor.value!.chain().setContent(document, { emitUpdate: true }).setTextSelection(0).run()
      notices.say('That version is in the draft now. Publish puts it live.', {
        action: { label: 'Undo', run: () => void editor.value?.chain().undo().run() },
      })
    } catch (error) {
      notices.refused(error)
    }
  }

  const keepMine = () => page.keepMine().catch(notices.refused)

  /** The page was changed from elsewhere on the desk. */
  async function readAnew({ id: changed, replaced }: Anew) {
    if (changed && changed !== id) return
    await loaded
    if (!editor.value || !page.current) return
    const placement = selected()
    const unsavedTitle = page.state === 'saved' ? undefined : page.current.title
    past.beginReading()
    try {
      await Promise.all([page.open(id), looks.load(), useShelfLooks().load()])
      if (unsavedTitle !== undefined) page.rename(unsavedTitle)
      if (past.take(page.draft!, replaced)) page.change(documentOf(editor.value!))
      if (placement) selectPlacement(editor.value!, placement)
    } catch (error) {
      failure.value = wordsOf(error)
    }
  }
  onScopeDispose(page.onAnew(readAnew).off)
  watch(at, placement => placement && editor.value && selectPlacement(editor.value, placement))

  /** The browser may be closed before the last change is saved: it asks then. */
  useEventListener(window, 'beforeunload', event => {
    if (page.state !== 'saved') event.preventDefault()
  })

  /** Nobody leaves before the last change is saved, for another board or for another page. */
  async function leave() {
    await page.save()
    if (page.state !== 'saved') {
      const leaves = await asking.ask({
        question: 'Leave without saving?',
        detail: page.problem,
        yes: 'Leave without saving',
        no: 'Stay',
      })
      if (!leaves) return false
    }
    page.close()
  }
  onBeforeRouteLeave(leave)
  // Where the library stands is in the address, too: that is no other page.
  onBeforeRouteUpdate((to, from) => (to.path === from.path ? undefined : leave()))

  return { failure, load, bringBack, keepMine }
}
