import type { Editor } from '@tiptap/vue-3'
import { shallowRef, type Ref } from 'vue'
import type { ClashWay } from '~~/core/files/clash'
import type { FileItem } from '~~/core/files/fileItem'
import { titleFromFileName } from '~~/core/files/fileName'
import { MOST_ON_SHELF, type ShelfSource } from '~~/core/shelf/shelfSource'
import { insertButton, insertSeveral, insertShelf } from '~/editor/commands'
import { targetOf } from './arriving'

/** Several things that were dropped at once, and where. */
export interface Arranged {
  /** of the library */
  ours: FileItem[]
  /** of the computer */
  files: LocalFile[]
  /** the one folder of the computer that they are */
  name?: string
  position: number
  /** where folders of the computer come in, and what becomes of files whose names are taken there */
  to?: { folder: string | null; ways: Map<string, ClashWay> }
}

/** Asks how several files that are dropped at once should stand, and places them so. */
export function useArranging(pageId: string, editor: Ref<Editor | undefined>) {
  const page = usePage()
  const notices = useNotices()
  const uploads = useUploads()
  const placer = usePlacer()
  const folders = useFolders()
  /** until it is known how they should stand */
  const open = shallowRef<Arranged>()

  /** Sends files that all go to one placement; what it is given may change with each that arrives, one after the other. */
  function sendTogether(
    what: Arranged,
    placement: string,
    give: (items: FileItem[], last: { item: FileItem; local: LocalFile }) => unknown,
  ) {
    const arrived = new Map<LocalFile, FileItem>()
    let turn: Promise<unknown> = Promise.resolve()
    uploads.add(what.files, {
      ...what.to,
      placements: what.files.map(() => placement),
      done(item, local) {
        arrived.set(local, item)
        const items = [...what.ours, ...what.files.flatMap(file => arrived.get(file) ?? [])]
        turn = turn.then(() => give(items, { item, local })).catch(notices.refused)
        return turn
      },
    })
  }

  async function arrangeShelf(what: Arranged) {
    const placement = insertShelf(editor.value!, sourceOf(what.ours), what.position)
    sendTogether(what, placement, async (items, { item, local }) => {
      const folder = what.name === undefined ? undefined : await folderAbove(item, local)
      await placer.give(pageId, placement, folder ? shelfOfFolder(folder) : sourceOf(items))
    })
  }

  /** The folder of the library that a folder of the computer became: as many levels above a file as it lay deep in that. */
  async function folderAbove(item: FileItem, { path }: LocalFile): Promise<string | undefined> {
    await folders.load()
    return folders.tree.pathTo(item.folder).at(1 - path.split('/').length)?.id
  }

  async function arrangeBundle(what: Arranged) {
    const title = what.name ?? `Files of “${page.current!.title}”`
    if (!what.files.length) return void insertButton(editor.value!, targetOf(await bundleOf(what.ours, title)), title, what.position)
    const { placement } = insertButton(editor.value!, null, title, what.position)
    let bundle: FileItem | undefined
    sendTogether(what, placement, async (items, { item }) => {
      if (bundle) return addToBundle(bundle.id, { files: [item.id], folders: [] })
      bundle = await bundleOf(items, title)
      await placer.give(pageId, placement, targetOf(bundle))
    })
  }

  async function arrange(way: Arrangement) {
    const what = open.value!
    const { ours, files, position } = what
    open.value = undefined
    try {
      if (way === 'bundle') await arrangeBundle(what)
      else if (way === 'shelf') await arrangeShelf(what)
      else if (way === 'library') uploads.add(files, what.to)
      else {
        const placed = insertSeveral(
          editor.value!,
          [
            ...ours.map(file => ({ target: targetOf(file), label: file.title })),
            ...files.map(({ file }) => ({ target: null, label: titleFromFileName(file.name) })),
          ],
          way,
          position,
        )
        const waiting = new Map(files.map((file, index) => [file, placed[ours.length + index]!]))
        uploads.add(files, {
          ...what.to,
          placements: [...waiting.values()],
          done: (item, local) => placer.give(pageId, waiting.get(local)!, targetOf(item)),
        })
      }
    } catch (error) {
      notices.refused(error)
    }
    editor.value?.view.focus()
  }

  return { open, arrange }
}

const sourceOf = (files: FileItem[]): ShelfSource => ({ kind: 'files', ids: files.slice(0, MOST_ON_SHELF).map(file => file.id) })
