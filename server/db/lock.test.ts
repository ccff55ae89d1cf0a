import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { mkdtemp, readFile, readdir, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { lockFolder } from './lock'

let folder: string
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-lock-'))
})
afterAll(() => rm(folder, { recursive: true }))

it('refuses a second holder while the first lives, and says what to do', async () => {
  const unlock = await lockFolder(folder)
  await expect(lockFolder(folder)).rejects.toThrow(`in use by process ${process.pid}. Stop that one first, or set TROUGH_DATA`)
  await unlock()
  await (await lockFolder(folder))()
  expect(await readdir(folder)).toEqual([])
})

it('takes over from a process that died', async () => {
  const dead = spawn('true')
  await once(dead, 'exit')
  for (const left of [`${dead.pid} 12345\n`, '', 'nonsense', `${process.pid} 1\n`]) {
    await writeFile(join(folder, 'lock'), left)
    const unlock = await lockFolder(folder)
    expect(await readFile(join(folder, 'lock'), 'utf8')).toMatch(new RegExp(`^${process.pid} `))
    await unlock()
  }
})

it('takes over from a process that has ended, though its parent has not taken note', async () => {
  // The child ends after its parent has become a program that takes no note of it.
  const parent = spawn('sh', ['-c', 'sleep 0.5 & echo $!; exec sleep 30'], { stdio: ['ignore', 'pipe', 'ignore'] })
  try {
    const [pid] = await once(parent.stdout, 'data') as [Buffer]
    await expect.poll(() => readFile(`/proc/${String(pid).trim()}/stat`, 'utf8'), { timeout: 10_000 }).toMatch(/\) Z /)
    await writeFile(join(folder, 'lock'), `${String(pid).trim()} \n`)
    await (await lockFolder(folder))()
  }
  finally {
    parent.kill('SIGKILL')
  }
})
