import { randomBytes } from 'node:crypto'
import { readFile, rename, writeFile } from 'node:fs/promises'
import { join } from 'node:path'
import { z } from 'zod'

const secretsSchema = z.object({
  /** seals session cookies */
  session: z.string().min(32),
  /** makes visitors' marks unreadable */
  visitors: z.string().min(32),
})
export type Secrets = z.infer<typeof secretsSchema>

/** The secrets of a data folder this process holds, made on its first start and readable by its user alone. */
export async function loadSecrets(folder: string): Promise<Secrets> {
  const path = join(folder, 'secrets.json')
  try {
    return secretsSchema.parse(JSON.parse(await readFile(path, 'utf8')))
  }
  catch (error) {
    if ((error as NodeJS.ErrnoException).code !== 'ENOENT') throw error
  }
  const fresh: Secrets = { session: randomBytes(32).toString('hex'), visitors: randomBytes(32).toString('hex') }
  await writeFile(`${path}.new`, JSON.stringify(fresh, null, 2), { mode: 0o600, flush: true })
  await rename(`${path}.new`, path)
  return fresh
}
