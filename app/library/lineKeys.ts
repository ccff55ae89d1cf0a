import { ref, type Ref } from 'vue'
import type { FoundFile } from '~~/core/files/fileItem'
import type { useLineChoice } from './lineChoice'
import type { useLineFocus } from './lineFocus'
import type { Rows } from './rows'

interface LineKeysOptions {
  rows: Ref<Rows>
  isTree: Ref<boolean>
  focus: ReturnType<typeof useLineFocus>
  choice: ReturnType<typeof useLineChoice>
  moveBy: (step: -1 | 1) => Promise<void>
  onMove: () => void
  onRemove: () => void
}

const STEPS: Record<string, (at: number, last: number) => number> = {
  ArrowDown: at => at + 1,
  ArrowUp: at => at - 1,
  PageDown: at => at + 15,
  PageUp: at => at - 15,
  Home: () => 0,
  End: (_, last) => last,
}

/** The keys of the library's lines. */
export function useLineKeys({ rows, isTree, focus, choice, moveBy, onMove, onRemove }: LineKeysOptions) {
  const listing = useListing()
  const selection = useSelection()
  const library = useLibrary()
  const editions = useEditions()
  const router = useRouter()
  const { active, anchor, tile, within, focusLine } = focus

  /** the folder whose name is being written */
  const renaming = ref<string>()
  async function showRenaming(folder: string, index: number, on: boolean) {
    renaming.value = on ? folder : undefined
    // It has been written: the keyboard goes on where it stands.
    if (!on) await focusLine(index)
  }

  function fileHere(): FoundFile | undefined {
    const row = rows.value.at(active.value)
    return row?.kind === 'tiles' ? row.window.at(row.index + Math.min(tile.value, row.count - 1)) : rows.value.fileAt(active.value)
  }

  function currentThing(): { kind: 'files' | 'folders'; id: string } | undefined {
    const row = rows.value.at(active.value)
    if (row?.kind === 'folder') return { kind: 'folders', id: row.folder.id }
    const file = fileHere()
    return file && { kind: 'files', id: file.id }
  }

  /** What an act of the keyboard means: the selection, or else the line it stands on. */
  function acted() {
    const thing = currentThing()
    if (!selection.count && thing) selection.choose({ files: [], folders: [], [thing.kind]: [thing.id] })
    return selection.count > 0
  }

  /** The file the keyboard stands on, where a next edition of it may come. */
  function editedHere() {
    const file = fileHere()
    return file?.bundle || file?.deleted ? undefined : file
  }

  async function bringEdition() {
    const file = editedHere()
    const [chosen] = file ? await chooseFiles({ multiple: false }) : []
    if (file && chosen) editions.bring(file, { file: chosen, path: chosen.name })
  }

  /** Lets the edition that waits take over. */
  const putLive = () =>
    selection.attempt(async () => {
      const id = editedHere()?.id
      if (!id) return
      const file = await library.details(id)
      const newest = Math.max(...file.editions.map(({ number }) => number))
      if (newest > file.edition) await editions.show({ file, number: newest })
      else useNotices().say(`No newer edition of “${file.title}” waits.`, {})
    })

  function turnBranch(open: boolean) {
    const row = rows.value.at(active.value)
    if (row?.kind !== 'folder' || !isTree.value) return false
    const next = new Set(listing.expanded)
    if (open) next.add(row.folder.id)
    else next.delete(row.folder.id)
    listing.expanded = next
    return true
  }

  /** In tiles: to the neighbour beside. */
  function step(by: 1 | -1): boolean {
    const row = rows.value.at(active.value)
    if (row?.kind !== 'tiles') return false
    tile.value += by
    if (tile.value >= row.count && active.value < rows.value.count - 1) {
      tile.value = 0
      void focusLine(active.value + 1)
    } else if (tile.value < 0 && active.value > 0) {
      tile.value = rows.value.perRow - 1
      void focusLine(active.value - 1)
    } else {
      tile.value = Math.max(0, Math.min(row.count - 1, tile.value))
      void focusLine(active.value)
    }
    return true
  }

  function onCommand(event: KeyboardEvent): boolean {
    const thing = currentThing()
    switch (event.key) {
      case ' ':
        if (thing) selection.toggle(thing.kind, thing.id)
        anchor.value = active.value
        return true
      case 'Escape':
        selection.clear()
        return true
      case 'Delete':
        if (acted()) onRemove()
        return true
      case 'm':
        if (acted()) onMove()
        return true
      case 't':
        if (acted()) void selection.attempt(() => selection.pickUp(selection.chosen))
        return true
      case 'p':
        if (acted()) void selection.attempt(() => selection.placeAll(selection.chosen))
        return true
      case 'e':
        void bringEdition()
        return true
      case 'l':
        void putLive()
        return true
      case 'F2':
        if (thing?.kind === 'folders') renaming.value = thing.id
        else if (thing) void router.push({ path: `/desk/files/${thing.id}`, hash: '#title' })
        return true
      case 'Backspace':
        if (listing.openFolder) listing.open(listing.openFolder.parent)
        return true
      case 'ArrowRight':
        return listing.view === 'tiles' ? step(1) : turnBranch(true)
      case 'ArrowLeft':
        return listing.view === 'tiles' ? step(-1) : turnBranch(false)
      default:
        return false
    }
  }

  function onKey(event: KeyboardEvent) {
    if (event.target instanceof HTMLInputElement && event.target.type === 'text') return
    const control = event.ctrlKey || event.metaKey
    const to = STEPS[event.key]
    if (control && event.key.toLowerCase() === 'a') {
      void choice.chooseAll()
    } else if (event.altKey && (event.key === 'ArrowUp' || event.key === 'ArrowDown')) {
      void moveBy(event.key === 'ArrowUp' ? -1 : 1)
    } else if (to && !control && !event.altKey) {
      const index = within(to(active.value, rows.value.count - 1))
      if (event.shiftKey) void choice.chooseTo(index, false)
      else anchor.value = index
      void focusLine(index)
    } else if (control || event.altKey || !onCommand(event)) {
      return
    }
    event.preventDefault()
    event.stopPropagation()
  }

  return { onKey, renaming, showRenaming }
}
