import { randomBytes } from 'node:crypto'
import { readFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'
import { writeSafely } from './store/safely'

const secretsSchema = z.object({
  /** seals session cookies */
  session: z.string().min(32),
  /** makes visitors' marks unreadable */
  visitors: z.string().min(32),
  /** lets commands on this machine speak to a server that runs, and programs read its measurements */
  control: z.string().min(32),
})
export type Secrets = z.infer<typeof secretsSchema>

/** The secrets of a data folder this process holds, made on its first start and readable by its user alone. */
export async function loadSecrets(folder: string): Promise<Secrets> {
  const path = join(folder, 'secrets.json')
  const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return '{}'
    throw error
  })
  const known = secretsSchema.partial().parse(JSON.parse(text))
  const secret = () => randomBytes(32).toString('hex')
  const fresh: Secrets = { session: known.session ?? secret(), visitors: known.visitors ?? secret(), control: known.control ?? secret() }
  if (known.session && known.visitors && known.control) return fresh
  await writeSafely(path, JSON.stringify(fresh, null, 2), 0o600)
  return fresh
}
