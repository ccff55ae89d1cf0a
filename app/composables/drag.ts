import { shallowRef } from 'vue'
import type { Selection } from '~~/core/files/selection'

/** The type under which the desk drags its own things. */
export const LIBRARY_DRAG = 'application/x-trough-library'

/** What is being dragged now: a browser tells no more than its kind until it is let go. */
export const dragged = shallowRef<Selection>()

/** Starts dragging files and folders of the library. */
export function dragThings(event: DragEvent, things: Selection, words: string): void {
  const transfer = event.dataTransfer
  if (!transfer) return
  dragged.value = things
  transfer.setData(LIBRARY_DRAG, JSON.stringify(things))
  transfer.effectAllowed = 'all'
  if (things.files.length + things.folders.length < 2) return
  const label = document.createElement('div')
  label.className = 'drag-label'
  label.textContent = words
  document.body.append(label)
  transfer.setDragImage(label, -12, -6)
  setTimeout(() => label.remove())
}

export function endDrag(): void {
  dragged.value = undefined
}

/** Whether something is dragged that can be taken in: files of the computer, or, if asked, things of the library. */
export function carriesFiles(event: DragEvent, { ours }: { ours: boolean }): boolean {
  const types = event.dataTransfer?.types ?? []
  return types.includes('Files') || (ours && types.includes(LIBRARY_DRAG))
}

/** The library's files and folders that were dropped; nothing where something else was. */
export function droppedThings(event: DragEvent): Selection | undefined {
  const text = event.dataTransfer?.getData(LIBRARY_DRAG)
  return text ? (JSON.parse(text) as Selection) : undefined
}

/** A file of the computer with its place in the folder it was dropped or chosen with: "manuals/K60.pdf". */
export interface LocalFile {
  file: File
  path: string
}

async function filesUnder(entry: FileSystemEntry): Promise<LocalFile[]> {
  if (entry.isFile) {
    const file = await new Promise<File>((resolve, reject) => (entry as FileSystemFileEntry).file(resolve, reject))
    return [{ file, path: entry.fullPath.replace(/^\//, '') }]
  }
  const reader = (entry as FileSystemDirectoryEntry).createReader()
  const found: LocalFile[] = []
  // A reader gives at most a hundred entries at a time.
  for (;;) {
    const entries = await new Promise<FileSystemEntry[]>((resolve, reject) => reader.readEntries(resolve, reject))
    if (!entries.length) return found
    for (const inner of entries) found.push(...(await filesUnder(inner)))
  }
}

/** Files and whole folders of the computer that were dropped. */
export async function droppedFiles(event: DragEvent): Promise<LocalFile[]> {
  const transfer = event.dataTransfer
  // What was dropped can be asked for only now, before anything is waited for.
  const entries = [...(transfer?.items ?? [])].map(item => item.webkitGetAsEntry?.())
  const files = [...(transfer?.files ?? [])]
  if (!entries.some(entry => entry?.isDirectory)) return files.map(file => ({ file, path: file.name }))
  return (await Promise.all(entries.filter(entry => !!entry).map(filesUnder))).flat()
}

/** Lets the owner choose files of the computer, or a folder; nothing where the choice is cancelled. */
export function chooseFiles({ multiple, folder = false }: { multiple: boolean; folder?: boolean }): Promise<File[]> {
  return new Promise(resolve => {
    const input = document.createElement('input')
    input.type = 'file'
    input.multiple = multiple
    input.webkitdirectory = folder
    input.addEventListener('change', () => resolve([...(input.files ?? [])]))
    input.addEventListener('cancel', () => resolve([]))
    input.click()
  })
}

/** Lets the owner choose a folder of the computer, with all that is in it. */
export async function chooseFolder(): Promise<LocalFile[]> {
  return (await chooseFiles({ multiple: true, folder: true })).map(file => ({ file, path: file.webkitRelativePath || file.name }))
}
