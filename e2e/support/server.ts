import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { cp, mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { isFree } from '../../server/testing/ports'

/** Ports of this worker alone; four workers stay below 32768, where Linux begins to give out ports by itself. */
const PORTS = 3000
let tried = process.pid

async function freePort(): Promise<number> {
  const first = 20_000 + PORTS * Number(process.env.TEST_PARALLEL_INDEX ?? 0)
  for (;;) {
    const port = first + (tried++ % PORTS)
    if (await isFree(port)) return port
  }
}

/** A data folder: the demo's, or an empty one. */
export async function makeData(kind: 'demo' | 'empty'): Promise<string> {
  const data = await mkdtemp(join(tmpdir(), 'trough-data-'))
  if (kind === 'demo') await cp(process.env.TROUGH_DEMO_TEMPLATE!, data, { recursive: true })
  return data
}

/** A real server process on a data folder. */
export async function startServer(data: string, { port: asked }: { port?: number } = {}) {
  const port = asked ?? (await freePort())
  const flags = process.env.TROUGH_TEST_NODE_FLAGS?.split(' ') ?? []
  const child = spawn('node', [...flags, '.output/server/index.mjs'], {
    env: { TROUGH_PROGRAMS: 'none', ...process.env, PORT: String(port), HOST: '127.0.0.1', TROUGH_DATA: data, NODE_ENV: 'production' },
  })
  let output = ''
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (output += chunk))
  const exited = once(child, 'exit').then(([code]) => code as number | null)
  const url = `http://127.0.0.1:${port}`
  const ready = async () => {
    while (child.exitCode === null) {
      if (
        await fetch(`${url}/api/health`).then(
          answer => answer.ok,
          () => false,
        )
      )
        return
      await new Promise(resolve => setTimeout(resolve, 50))
    }
    throw new Error(`The server ended: ${output}`)
  }
  await ready()
  return {
    url,
    port,
    data,
    output: () => output,
    pid: child.pid!,
    exited,
    /** ends it cleanly, or at once */
    async stop(signal: 'SIGTERM' | 'SIGKILL' = 'SIGTERM') {
      child.kill(signal)
      await exited
    },
    async remove() {
      await this.stop('SIGKILL')
      await rm(data, { recursive: true, force: true })
    },
  }
}
export type RunningServer = Awaited<ReturnType<typeof startServer>>
