import { access, open, rename } from 'node:fs/promises'
import { dirname } from 'node:path'

/** Whether something lies at a path. */
export const isThere = (path: string): Promise<boolean> =>
  access(path).then(
    () => true,
    () => false,
  )

async function sync(path: string): Promise<void> {
  const handle = await open(path, 'r')
  try {
    await handle.sync()
  } finally {
    await handle.close()
  }
}

/** Makes sure the names in a folder are on disk (POSIX fsync of the directory). */
export const syncFolder = sync

/** Makes sure a file's bytes are on disk. */
export const syncFile = sync

/** Writes a small file whole or not at all: under another name first, then renamed; safe on disk when this returns. */
export async function writeSafely(path: string, text: string, mode = 0o666): Promise<void> {
  const handle = await open(`${path}.new`, 'w', mode)
  try {
    await handle.writeFile(text)
    await handle.sync()
  } finally {
    await handle.close()
  }
  await rename(`${path}.new`, path)
  await syncFolder(dirname(path))
}
