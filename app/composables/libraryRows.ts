import { computed, shallowRef, watch } from 'vue'
import type { FolderItem } from '~~/core/folders/folderItem'
import { Rows, type Segment } from '~/library/rows'
import { FileWindow } from './fileWindow'

const byName = (a: FolderItem, b: FolderItem) => a.name.localeCompare(b.name, undefined, { numeric: true })

/** The lines of the library board: the open folder's, what a filter lets through, or a tree. */
export function useLibraryRows(perRow: () => number) {
  const listing = useListing()
  const folders = useFolders()
  const library = useLibrary()
  const windows = shallowRef(new Map<string, FileWindow>())

  const isTree = computed(() => listing.view === 'tree' && !listing.filtered && !listing.bin)

  /** The lists that are shown, by what they ask for; those shown before are kept. */
  const wanted = computed(() => {
    const queries = [listing.queryFor()]
    if (isTree.value) for (const id of listing.expanded) if (folders.tree.get(id)) queries.push(listing.queryFor(id))
    return queries
  })

  async function load(window: FileWindow) {
    try {
      await window.refresh()
    } catch (error) {
      useNotices().refused(error)
    }
  }

  /** The first list changes only once its files are here: no empty board between two full ones. */
  let coming = new Map<string, FileWindow>()
  watch(
    wanted,
    async queries => {
      const next = new Map(queries.map((query): [string, FileWindow] => [query, windows.value.get(query) ?? new FileWindow(query)]))
      coming = next
      await Promise.all([...next.values()].filter(window => !window.state.loaded).map(load))
      if (next === coming) windows.value = next
    },
    { immediate: true },
  )

  // A list that is still on its way was asked for before the change.
  watch(
    () => library.changes,
    () => {
      for (const window of new Set([...windows.value.values(), ...coming.values()])) void load(window)
    },
  )

  const main = computed(() => windows.value.get([...windows.value.keys()][0] ?? ''))

  function segmentsUnder(id: string | null, level: number): Segment[] {
    const inner = folders.tree
      .childrenOf(id)
      .toSorted(byName)
      .flatMap((folder): Segment[] => [{ folder, level }, ...(listing.expanded.has(folder.id) ? segmentsUnder(folder.id, level + 1) : [])])
    const window = windows.value.get(listing.queryFor(id))
    return [...inner, ...(window ? [{ window, level }] : [])]
  }

  const rows = computed(() => {
    if (isTree.value) return new Rows(segmentsUnder(listing.folder, 0))
    const inside = listing.filtered || listing.bin ? [] : folders.tree.childrenOf(listing.folder).toSorted(byName)
    const segments: Segment[] = inside.map(folder => ({ folder, level: 0 }))
    if (main.value) segments.push({ window: main.value, level: 0 })
    return new Rows(segments, listing.view === 'tiles' ? perRow() : 0)
  })

  return { rows, main, isTree }
}
