import { chmod, mkdir } from 'node:fs/promises'
import { join, resolve } from 'node:path'
import { openDatabase, type Connection } from '../db/connection'
import { lockFolder } from '../db/lock'
import { loadSecrets, type Secrets } from '../secrets'
import { createEvents, passOn, type Events } from '../services/events'
import { localStore, type LocalStore } from '../store/local'
import { createReserve, type Reserve } from '../store/reserve'
import { isThere } from '../store/safely'

/** What all services stand on: a data folder that is this process's alone, opened. */
export interface DataFolder {
  folder: string
  databaseFolder: string
  /** half of what comes in */
  incomingFolder: string
  /** what can be made again */
  derivedFolder: string
  secrets: Secrets
  connection: Connection
  /** says what each commit touched */
  events: Events
  store: LocalStore
  reserve: Reserve
  close: () => Promise<void>
}

/** How the database of a data folder is opened. */
export type Connect = (folder: string, onTouched: (touched: string) => void) => Promise<Connection>

/**
 * Opens a data folder, which is made if missing.
 *
 * @throws Error with a message for the console where the folder is in use
 */
export async function openDataFolder(data: string, connect: Connect = openDatabase): Promise<DataFolder> {
  const folder = resolve(data)
  const [storeFolder, incomingFolder, databaseFolder] = ['store', 'incoming', 'db'].map(name => join(folder, name)) as [
    string,
    string,
    string,
  ]
  await mkdir(folder, { recursive: true, mode: 0o700 })
  // Whatever made it, and whatever the files in it are allowed: nobody else of this machine reaches them.
  await chmod(folder, 0o700)
  const reserve = createReserve(folder)
  await reserve.release()
  const lock = await lockFolder(folder)
  try {
    await mkdir(storeFolder, { recursive: true })
    await mkdir(incomingFolder, { recursive: true })
    const secrets = await loadSecrets(folder, !(await isThere(databaseFolder)))
    const events = createEvents()
    const connection = await connect(databaseFolder, touched => passOn(events, touched))
    await lock.holdDatabase()
    return {
      folder,
      databaseFolder,
      incomingFolder,
      derivedFolder: join(folder, 'derived'),
      secrets,
      connection,
      events,
      store: localStore(storeFolder),
      reserve,
      async close() {
        await connection.close()
        await lock.release()
      },
    }
  } catch (error) {
    await lock.release()
    throw error
  }
}
