import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { createAsker } from './workerHost'

let folder: string
beforeAll(async () => void (folder = await mkdtemp(join(tmpdir(), 'trough-worker-'))))
afterAll(() => rm(folder, { recursive: true, force: true }))

/** Asks a worker made of what it does with a task. */
async function askerOf(body: string, patience = 60_000) {
  const script = join(folder, `${body.length}.mjs`)
  await writeFile(script, `import { parentPort, threadId } from 'node:worker_threads'\nparentPort.on('message', task => {\n${body}\n})\n`)
  return createAsker<string, number>(script, patience)
}

it('keeps one worker for all tasks, and starts another where it died over one', async () => {
  const { ask, close } = await askerOf(
    `if (task === 'die') throw new Error('no room in ' + '/srv/store'); parentPort.postMessage(threadId)`,
  )
  const first = await ask('one')
  expect(await ask('two')).toBe(first)
  await expect(ask('die')).rejects.toThrow('Reading it stopped: no room')
  expect(await ask('three')).not.toBe(first)
  await close()
})

it('hears of a worker that dies between two tasks, and starts another', async () => {
  const { ask, close } = await askerOf(`parentPort.postMessage(threadId); setTimeout(() => { throw new Error('afterwards') }, 20)`)
  const first = await ask('one')
  await expect.poll(() => ask('again').catch(() => first)).not.toBe(first)
  await close()
})

it('ends one that hangs', async () => {
  const { ask, close } = await askerOf(`if (task !== 'hang') parentPort.postMessage(threadId)`, 2000)
  await expect(ask('hang')).rejects.toThrow('Reading it took too long.')
  expect(await ask('answer')).toBeGreaterThan(0)
  await close()
})
