import { spawn, type ChildProcess } from 'node:child_process'
import { once } from 'node:events'
import { mkdir, mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { ROOT } from '../root'
import { lockFolder } from './lock'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-lock-'))
  await mkdir(join(folder, 'db/global'), { recursive: true })
  await writeFile(join(folder, 'db/global/pg_control'), 'control')
})
afterAll(() => rm(folder, { recursive: true }))

/** Another process that holds the lock. */
async function holder(): Promise<ChildProcess> {
  const program = `import { lockFolder } from ${JSON.stringify(join(ROOT, 'server/db/lock.ts'))}; await lockFolder(${JSON.stringify(folder)}); console.log('held'); setInterval(() => {}, 1000)`
  await writeFile(join(folder, 'holder.mts'), program)
  const child = spawn('node', ['--import', 'tsx', join(folder, 'holder.mts')], { cwd: ROOT, stdio: ['ignore', 'pipe', 'inherit'] })
  await once(child.stdout!, 'data')
  return child
}

it('refuses a second holder in the same process, and says what to do', async () => {
  const lock = await lockFolder(folder)
  await expect(lockFolder(folder)).rejects.toThrow(`in use by process ${process.pid}. Stop that one first, or set TROUGH_DATA`)
  await lock.release()
  await (await lockFolder(folder)).release()
})

it('refuses a second process, also where the file of the lock was removed by hand, and takes over as soon as it was killed', async () => {
  const child = await holder()
  await expect(lockFolder(folder)).rejects.toThrow(`in use by process ${child.pid}.`)
  await rm(join(folder, 'lock'))
  await expect(lockFolder(folder)).rejects.toThrow('in use by another process.')
  child.kill('SIGKILL')
  await once(child, 'exit')
  await (await lockFolder(folder)).release()
})

it('takes no word for it: what an earlier process, a container or somebody wrote there is no lock', async () => {
  for (const left of ['1 12345\n', '', 'nonsense', `${process.pid}\n`]) {
    await writeFile(join(folder, 'lock'), left)
    await (await lockFolder(folder)).release()
  }
})
