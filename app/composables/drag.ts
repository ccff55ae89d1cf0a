/** The type under which the desk drags its own files. */
export const FILE_DRAG = 'application/x-trough-files'

/** Starts dragging files of the library. */
export function dragFiles(event: DragEvent, ids: string[]): void {
  event.dataTransfer?.setData(FILE_DRAG, JSON.stringify(ids))
  if (event.dataTransfer) event.dataTransfer.effectAllowed = 'copyLink'
}

/** Whether something is dragged that can be taken in: files of the computer, or, if asked, of the library. */
export function carriesFiles(event: DragEvent, { ours }: { ours: boolean }): boolean {
  const types = event.dataTransfer?.types ?? []
  return types.includes('Files') || (ours && types.includes(FILE_DRAG))
}

/** The library's files that were dropped. */
export function droppedIds(event: DragEvent): string[] {
  const text = event.dataTransfer?.getData(FILE_DRAG)
  return text ? JSON.parse(text) as string[] : []
}

/** Lets the owner choose files of the computer; nothing where the choice is cancelled. */
export function chooseFiles({ multiple }: { multiple: boolean }): Promise<File[]> {
  return new Promise((resolve) => {
    const input = document.createElement('input')
    input.type = 'file'
    input.multiple = multiple
    input.addEventListener('change', () => resolve([...input.files ?? []]))
    input.addEventListener('cancel', () => resolve([]))
    input.click()
  })
}
