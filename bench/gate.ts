import { randomBytes } from 'node:crypto'
import { mkdtemp, rm } from 'node:fs/promises'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { buildDemo } from '../demo/build'
import { makeGate, visitor } from '../e2e/support/gates'
import { ownerApi } from '../e2e/support/owner'
import { startServer } from '../e2e/support/server'
import { upload } from '../e2e/support/upload'
import { inTurn, load, medianRatio } from './measure'
import { report, sayEnd } from './report'

/** Delivery behind a gate against delivery without: the same bytes, over 200 connections, asked in turn. */
const folder = await mkdtemp(join(tmpdir(), 'trough-bench-'))
const data = join(folder, 'data')
await buildDemo(data)
const server = await startServer(data)
try {
  const api = await ownerApi(server.url)
  const put = async (name: string) => api<{ id: string; handle: string }>(`/files/${await upload(server.url, name, randomBytes(20_000))}`)
  const [open, closed, limited] = [await put('open.bin'), await put('closed.bin'), await put('limited.bin')]
  await makeGate(server.url, { kind: 'password' }, { name: 'Bench', password: 'bench-word-1', files: [closed.id] })
  await makeGate(server.url, { kind: 'password', most: 1_000_000 }, { name: 'Limited', password: 'bench-word-2', files: [limited.id] })
  const comer = visitor(server.url)
  await comer.enter(`/files/${closed.handle}`, { password: 'bench-word-1' })
  await comer.enter(`/files/${limited.handle}`, { password: 'bench-word-2' })
  await (await comer.ask(`/files/${limited.handle}`)).arrayBuffer()
  const headers = { Cookie: comer.cookie() }
  const at =
    (handle: string, more: Record<string, string> = {}) =>
    async () =>
      (await load(`${server.url}/files/${handle}`, 1, 200, more)).rate
  const rounds = await inTurn(15, { open: at(open.handle), closed: at(closed.handle, headers), limited: at(limited.handle, headers) })
  report('behind a gate / without', medianRatio(rounds.closed, rounds.open), '', { least: 0.9 })
  report('behind a gate with a limit / without', medianRatio(rounds.limited, rounds.open), '', { least: 0.9 })
} finally {
  await server.remove()
  await rm(folder, { recursive: true, force: true })
}
process.exitCode = sayEnd()
