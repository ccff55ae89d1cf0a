import { constants, copyFileSync, linkSync, mkdirSync, statSync, utimesSync } from 'node:fs'
import { join } from 'node:path'
import { parentPort } from 'node:worker_threads'
import { listTree } from '../store/trees'
import { comeAfterVisitors } from './courtesy'

/** A tree and where its copy goes; files unchanged since an earlier copy are linked to it instead. */
export interface CopyTask {
  from: string
  to: string
  earlier?: string
}

/** `copied`: files so far; `code`: the system's word for what went wrong */
export type CopyMessage = { copied: number } | { done: true } | { error: string; code?: string }

/** Milliseconds after which a file that was not written to is taken to be as it was. */
const SETTLED = 2000
/** It says that it goes on after this many files. */
const SAY_AFTER = 200

function copyFile(source: string, target: string, before: string | undefined): void {
  const { size, mtimeMs, atime, mtime } = statSync(source)
  const old = before && statSync(before, { throwIfNoEntry: false })
  // What had just been written when the earlier copy was made may have been written again within the same tick of the clock.
  if (old && old.size === size && Math.trunc(old.mtimeMs) === Math.trunc(mtimeMs) && old.birthtimeMs - mtimeMs > SETTLED) {
    linkSync(before!, target)
    return
  }
  copyFileSync(source, target, constants.COPYFILE_FICLONE)
  utimesSync(target, atime, mtime)
}

comeAfterVisitors()

const port = parentPort!
const say = (message: CopyMessage) => port.postMessage(message)

// One after another in this thread: the threads that read files for visitors are left to them.
async function copyTree({ from, to, earlier }: CopyTask): Promise<void> {
  const { files, folders } = await listTree(from)
  for (const folder of folders) mkdirSync(join(to, folder), { recursive: true })
  for (const [index, path] of files.entries()) {
    copyFile(join(from, path), join(to, path), earlier && join(earlier, path))
    if (index % SAY_AFTER === 0) say({ copied: index })
  }
}

port.on('message', (task: CopyTask) => {
  copyTree(task).then(
    () => say({ done: true }),
    (error: NodeJS.ErrnoException) => say({ error: error.message, code: error.code }),
  )
})
