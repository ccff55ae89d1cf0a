import {
  closeSync,
  constants,
  copyFileSync,
  existsSync,
  fsyncSync,
  linkSync,
  mkdirSync,
  openSync,
  readdirSync,
  rmSync,
  statSync,
  utimesSync,
} from 'node:fs'
import { join } from 'node:path'
import { parentPort } from 'node:worker_threads'
import { listTree } from '../store/trees'
import { comeAfterVisitors } from './courtesy'

/** What is done with a tree of files, one after another in this thread: the threads that read files for visitors are left to them. */
export type TreeTask =
  /** unchanged files become links to an earlier copy */
  | { work: 'copy'; from: string; to: string; earlier?: string }
  /** files and folders are made safe on the disk */
  | { work: 'sync'; folder: string }
  | { work: 'remove'; folder: string }
  /** the names of all files are told */
  | { work: 'list'; folder: string }

/** `code`: the system's word for what went wrong */
export type TreeMessage = { goesOn: true } | { names: string[] } | { done: true } | { error: string; code?: string }

/** Milliseconds after which a file that was not written to is taken to be as it was. */
const SETTLED = 2000
/** Milliseconds after which it says that it goes on: a slow disk is not a stuck one. */
const SAY_AFTER = 1000
/** Names told together. */
const NAMES = 10_000

const say = (message: TreeMessage) => parentPort!.postMessage(message)
let said = performance.now()
function goOn(): void {
  if (performance.now() - said < SAY_AFTER) return
  said = performance.now()
  say({ goesOn: true })
}

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

function sync(path: string): void {
  const file = openSync(path, 'r')
  try {
    fsyncSync(file)
  } finally {
    closeSync(file)
  }
}

function* namesIn(folder: string): Generator<string> {
  goOn()
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    if (entry.isDirectory()) yield* namesIn(join(folder, entry.name))
    else yield entry.name
  }
}

function withEach(files: string[], work: (path: string) => void): void {
  for (const path of files) {
    work(path)
    goOn()
  }
}

async function run(task: TreeTask): Promise<void> {
  switch (task.work) {
    case 'copy': {
      const { from, to, earlier } = task
      const { files, folders } = await listTree(from)
      for (const folder of folders) mkdirSync(join(to, folder), { recursive: true })
      return withEach(files, path => copyFile(join(from, path), join(to, path), earlier && join(earlier, path)))
    }
    case 'sync': {
      const { files, folders } = await listTree(task.folder)
      return withEach([...files, ...folders], path => sync(join(task.folder, path)))
    }
    case 'remove': {
      if (!existsSync(task.folder)) return
      withEach((await listTree(task.folder)).files, path => rmSync(join(task.folder, path), { force: true }))
      return rmSync(task.folder, { recursive: true, force: true })
    }
    case 'list': {
      let names: string[] = []
      for (const name of namesIn(task.folder)) {
        if (names.push(name) < NAMES) continue
        say({ names })
        names = []
      }
      return say({ names })
    }
  }
}

comeAfterVisitors()

parentPort!.on('message', (task: TreeTask) => {
  run(task).then(
    () => say({ done: true }),
    (error: NodeJS.ErrnoException) => say({ error: error.message, code: error.code }),
  )
})
