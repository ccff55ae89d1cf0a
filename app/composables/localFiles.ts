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

/** Files and whole folders of the computer that were dropped; to be called as they are let go, since a browser tells them only then. */
export async function filesIn(items: DataTransferItem[]): Promise<LocalFile[]> {
  const entries = items.flatMap(item => item.webkitGetAsEntry?.() ?? [])
  const files = items.flatMap(item => item.getAsFile() ?? [])
  if (!entries.some(entry => entry.isDirectory)) return files.map(file => ({ file, path: file.name }))
  return (await Promise.all(entries.map(filesUnder))).flat()
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
