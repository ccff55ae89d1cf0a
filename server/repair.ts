import { rename, rm } from 'node:fs/promises'
import { join } from 'node:path'
import { CannotOpen, TooNew } from './db/cannotOpen'
import { beforeMigrationOf, openDatabase } from './db/connection'
import { lockFolder } from './db/lock'
import { readSecrets, withFresh, writeSecrets } from './secrets'
import { isThere, syncFolder } from './store/safely'

const aside = (path: string) => `${path}-damaged-${new Date().toISOString().replace(/[:.]/g, '-')}`

async function repairSecrets(folder: string): Promise<string> {
  const path = join(folder, 'secrets.json')
  try {
    const known = await readSecrets(folder)
    if (known.session && known.visitors && known.control) return `${path} is whole.`
    await writeSecrets(folder, withFresh(known))
  } catch (error) {
    if (!(error instanceof CannotOpen)) throw error
    await rename(path, aside(path))
    await writeSecrets(folder, withFresh({}))
  }
  return `${path} was made anew: everybody has to sign in again.`
}

/** Puts the copy that was made before the last update in the place of the database, which is kept beside it. */
async function goBack(database: string): Promise<string> {
  const copy = beforeMigrationOf(database)
  if (!(await isThere(copy)))
    throw new CannotOpen(`There is no copy from before an update at ${copy}. Restore a backup: npm run trough restore FOLDER.`)
  const kept = aside(database)
  await rename(database, kept)
  await rename(copy, database)
  await syncFolder(join(database, '..'))
  return `The database is as it was before the last update; what was done since is missing. The other one is kept in ${kept}.`
}

async function opens(database: string): Promise<Error | undefined> {
  try {
    await (await openDatabase(database)).close()
    return undefined
  } catch (error) {
    return error as Error
  }
}

/**
 * Makes a data folder start again that does not: what can be made anew is, what cannot is never thrown away.
 *
 * @param beforeUpdate goes back to the copy of the database made before its last update, though it opens
 * @returns what was done, a sentence each
 * @throws CannotOpen where nothing but a backup helps, or the folder is in use
 */
export async function repairFolder(folder: string, { beforeUpdate }: { beforeUpdate: boolean }): Promise<string[]> {
  const database = join(folder, 'db')
  if (!(await isThere(folder))) throw new CannotOpen(`There is no data folder ${folder}. Restore a backup: npm run trough restore FOLDER.`)
  const { release } = await lockFolder(folder)
  try {
    const said = [await repairSecrets(folder)]
    // Left by a process that ended while it made the copy.
    await rm(`${beforeMigrationOf(database)}.new`, { recursive: true, force: true })
    if (beforeUpdate) return [...said, await goBack(database)]
    const trouble = await opens(database)
    if (!trouble) return [...said, `The database in ${database} opens.`]
    // Going back would lose what a newer Trough has done since: only where that is asked for.
    if (trouble instanceof TooNew || !(await isThere(beforeMigrationOf(database)))) throw trouble
    return [...said, trouble.message, await goBack(database)]
  } finally {
    await release()
  }
}
