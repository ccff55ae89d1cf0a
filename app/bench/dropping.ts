import type { Editor } from '@tiptap/vue-3'
import { ref, type Ref } from 'vue'
import { familyOf } from '~~/core/files/mediaType'
import { titleFromFileName } from '~~/core/files/fileName'
import type { FileItem } from '~~/core/files/fileItem'
import { bringsFiles, type Carried, type DropPoint, type DropTarget } from '~/composables/carried'
import { changePlacement, insertButton, insertPicture, insertShelf, linkWords, pictureToButton } from '~/editor/commands'
import { moveBlockTo } from '~/editor/parts'
import { spotAt, type Spot } from '~/editor/spot'
import type { useArranging } from './arranging'
import { targetOf, type useArriving } from './arriving'

interface DroppingOptions {
  editor: Ref<Editor | undefined>
  arriving: ReturnType<typeof useArriving>
  arranging: ReturnType<typeof useArranging>
}

export const arePictures = (ours: FileItem[], files: File[]) =>
  ours.every(file => file.family === 'picture') && files.every(file => familyOf(file.type) === 'picture')

/** Dropping on the open page: files and folders, of the library and of the computer, and blocks of the page itself. */
export function useDropping({ editor, arriving, arranging }: DroppingOptions) {
  const library = useLibrary()
  const uploads = useUploads()
  const listing = useListing()
  const notices = useNotices()

  /** where something held over the page would go */
  const spot = ref<Spot>()
  /** what letting it go there would do */
  const words = ref('')
  const spotFor = ({ block }: Carried, { x, y }: DropPoint) => spotAt(editor.value!.view, x, y, { between: block !== undefined })

  /** A file dropped on a button is what it leads to from then on. */
  function retarget(placement: string, file: FileItem) {
    changePlacement(editor.value!, placement, { target: targetOf(file) })
    editor.value!.view.focus()
    notices.say(`That button leads to “${file.title}” now.`, {
      action: { label: 'Undo', run: () => void editor.value?.chain().undo().run() },
    })
  }
  const { followed, asNext } = useButtonDrop(() => editor.value, retarget)

  /** A picture is shown; who wanted a button for it says so. */
  function showPicture(picture: FileItem | File, position: number) {
    const current = editor.value!
    const label = picture instanceof File ? titleFromFileName(picture.name) : picture.title
    const placement = insertPicture(current, picture instanceof File ? null : picture.id, position)
    if (picture instanceof File) arriving.send(placement, picture)
    current.view.focus()
    notices.say('Placed as a picture.', { action: { label: 'As a button instead', run: () => pictureToButton(current, placement, label) } })
  }

  /** What comes from the computer as a folder is asked about in the library's way first. */
  async function dropFolder(all: LocalFile[], position: number) {
    const { folder } = listing
    const { files, ways } = await uploads.sift(all, folder)
    const [name, ...others] = new Set(files.map(({ path }) => path.split('/')[0]!))
    if (files.length) arranging.open.value = { ours: [], files, name: others.length ? undefined : name, position, to: { folder, ways } }
  }

  function place(ours: FileItem[], folders: string[], local: LocalFile[], start: number) {
    const current = editor.value!
    folders.forEach((id, index) => insertShelf(current, shelfOfFolder(id), start + index))
    const position = start + folders.length
    const files = local.map(({ file }) => file)
    if (local.some(({ file, path }) => path !== file.name)) return void dropFolder(local, position)
    const inRow = current.state.doc.resolve(position).parent.type.name === 'buttonRow'
    if (!inRow && ours.length + files.length > 1) {
      arranging.open.value = { ours, files: local, position }
      return
    }
    if (!inRow && ours.length + files.length && arePictures(ours, files)) return showPicture(ours[0] ?? files[0]!, position)
    ours.forEach((file, index) => insertButton(current, targetOf(file), file.title, position + index))
    arriving.buttons(files, position + ours.length)
  }

  async function drop(carried: Carried, point: DropPoint) {
    const current = editor.value!
    const at = spotFor(carried, point)
    if (carried.block !== undefined) {
      if (at.kind === 'between') moveBlockTo(current, carried.block, at.position)
      current.view.focus()
      return
    }
    const local = (await carried.files) ?? []
    const ours = await library.meet(carried.things?.files ?? [])
    const [file] = ours
    const whole = local.some(({ file: each, path }) => path !== each.name)
    if (at.kind === 'button' && !whole) {
      if (file) retarget(at.placement, file)
      else if (local[0] && !asNext(at.placement, local[0].file)) arriving.send(at.placement, local[0].file)
    } else if (at.kind === 'words' && !whole) {
      if (file) linkWords(current, targetOf(file), at.from, at.to)
      else arriving.link(local[0]?.file, at.from, at.to)
    } else {
      place(ours, carried.things?.folders ?? [], local, at.kind === 'between' ? at.position : current.state.selection.to)
      current.view.focus()
    }
  }

  const target: DropTarget = {
    takes: carried => !!editor.value && (carried.block !== undefined || bringsFiles(carried)),
    moves: ({ block }) => block !== undefined,
    over(carried, point) {
      const at = spotFor(carried, point)
      const old = at.kind === 'button' && carried.outside === 'files' ? followed(at.placement) : undefined
      spot.value = at
      words.value = at.kind !== 'button' ? 'Goes here' : old ? `The next edition of “${old.title}”` : 'This button leads there instead'
    },
    out: () => (spot.value = undefined),
    drop: (carried, point) => drop(carried, point).catch(notices.refused),
  }

  return { spot, words, target, showPicture }
}
