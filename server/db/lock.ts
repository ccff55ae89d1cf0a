import { open, type FileHandle } from 'node:fs/promises'
import { join } from 'node:path'
import { tryLock } from 'fs-native-extensions'
import { isThere } from '../store/safely'
import { CannotOpen } from './cannotOpen'

/** Opens a file for writing; said in words where that is not allowed. */
async function openToWrite(path: string, folder: string): Promise<FileHandle> {
  return open(path, 'a+', 0o600).catch((error: NodeJS.ErrnoException) => {
    if (!['EACCES', 'EPERM', 'EROFS'].includes(error.code ?? '')) throw error
    throw new CannotOpen(
      `The data folder ${folder} cannot be written (${path}). Give the user Trough runs as the right to write there, or mount that disk for writing.`,
    )
  })
}

/** Who wrote that it holds the lock: for words alone, since what counts is the system's. */
async function holderIn(file: FileHandle): Promise<string> {
  const { bytesRead, buffer } = await file.read(Buffer.alloc(40), 0, 40, 0)
  const pid = /^\d+/.exec(buffer.subarray(0, bytesRead).toString('latin1'))?.[0]
  return pid ? `process ${pid}` : 'another process'
}

export interface FolderLock {
  /** Locks the database's own file too, once there is one. */
  holdDatabase: () => Promise<void>
  /** Gives the folder back. */
  release: () => Promise<void>
}

/**
 * Takes the data folder for this process alone; PGlite would let a second one in and lose data. The lock is one that the
 * system holds (fcntl(2), open file description locks): it ends with the process, however that ends, and no file that
 * is deleted by hand lets a second one in, since a file the database cannot do without is locked, too.
 *
 * @throws CannotOpen with a message for the console where another process has it
 */
export async function lockFolder(folder: string): Promise<FolderLock> {
  const held: FileHandle[] = []
  const release = async () => {
    for (const file of held.splice(0)) await file.close()
  }
  try {
    const own = await openToWrite(join(folder, 'lock'), folder)
    held.push(own)
    const refuse = async () => {
      throw new CannotOpen(
        `The data folder ${folder} is in use by ${await holderIn(own)}. Stop that one first, or set TROUGH_DATA to another folder.`,
      )
    }
    if (!tryLock(own.fd)) await refuse()
    const holdDatabase = async () => {
      const control = join(folder, 'db/global/pg_control')
      if (held.length > 1 || !(await isThere(control))) return
      const file = await openToWrite(control, folder)
      held.push(file)
      if (!tryLock(file.fd)) await refuse()
    }
    await holdDatabase()
    await own.truncate(0)
    await own.write(`${process.pid}\n`, 0)
    return { holdDatabase, release }
  } catch (error) {
    await release()
    throw error
  }
}
