import { randomBytes } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import { CannotOpen } from './db/cannotOpen'
import { writeSafely } from './store/safely'

const secretsSchema = z.object({
  /** seals what browsers keep of a device */
  session: z.string().min(32),
  /** makes visitors' marks unreadable */
  visitors: z.string().min(32),
  /** lets commands on this machine speak to a server that runs, and programs read its measurements */
  control: z.string().min(32),
})
export type Secrets = z.infer<typeof secretsSchema>

const pathIn = (folder: string) => join(folder, 'secrets.json')

/**
 * Reads the secrets of a data folder, as far as there are some.
 *
 * @throws CannotOpen where the file is there and cannot be made sense of
 */
export async function readSecrets(folder: string): Promise<Partial<Secrets>> {
  const path = pathIn(folder)
  try {
    return secretsSchema.partial().parse(JSON.parse(await readFile(path, 'utf8')))
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') return {}
    throw new CannotOpen(
      `${path} is cut off or damaged. Put the one of a backup in its place, or let new ones be made, which signs everybody out: npm run trough repair.`,
      { cause: error },
    )
  }
}

/** Writes the secrets of a data folder, for the user of this process alone. */
export const writeSecrets = (folder: string, secrets: Secrets): Promise<void> =>
  writeSafely(pathIn(folder), JSON.stringify(secrets, null, 2), 0o600)

const secret = () => randomBytes(32).toString('hex')
/** What is known, and what is missing made anew. */
export const withFresh = (known: Partial<Secrets>): Secrets => ({
  session: known.session ?? secret(),
  visitors: known.visitors ?? secret(),
  control: known.control ?? secret(),
})

/**
 * The secrets of a data folder this process holds, made on its first start.
 *
 * @param isNew there is no database yet
 * @throws CannotOpen where the file is damaged, or gone although the folder was in use
 */
export async function loadSecrets(folder: string, isNew = true): Promise<Secrets> {
  const known = await readSecrets(folder)
  if (known.session && known.visitors && known.control) return known as Secrets
  if (!isNew && !Object.keys(known).length) {
    throw new CannotOpen(
      `${pathIn(folder)} is missing, though this data folder was in use. Put the one of a backup in its place, or let new ones be made, which signs everybody out: npm run trough repair.`,
    )
  }
  const fresh = withFresh(known)
  await writeSecrets(folder, fresh)
  return fresh
}
