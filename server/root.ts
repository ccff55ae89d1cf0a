import { existsSync, readFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

function findRoot(): string {
  for (let folder = dirname(fileURLToPath(import.meta.url)); folder !== dirname(folder); folder = dirname(folder)) {
    const manifest = join(folder, 'package.json')
    if (existsSync(manifest) && JSON.parse(readFileSync(manifest, 'utf8')).name === 'trough') return folder
  }
  throw new Error('Trough was moved out of its own folder: no package.json of its name lies above it.')
}

/** The project's folder. The build writes it in, since built code does not know its own place. */
export const ROOT = process.env.TROUGH_ROOT ?? findRoot()
