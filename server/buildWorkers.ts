import { readdir } from 'node:fs/promises'
import { join } from 'node:path'
import { build } from 'esbuild'

/** Builds each file of server/workers into .output/workers, where the services start them from. */
export async function buildWorkers(root: string): Promise<void> {
  const folder = join(root, 'server/workers')
  const names = (await readdir(folder)).filter(name => name.endsWith('.ts') && !name.endsWith('.test.ts') && name !== 'courtesy.ts')
  await build({
    entryPoints: names.map(name => join(folder, name)),
    outdir: join(root, '.output/workers'),
    outExtension: { '.js': '.mjs' },
    bundle: true,
    packages: 'external',
    platform: 'node',
    target: 'node20',
    format: 'esm',
  })
}
