import { readdirSync, readlinkSync } from 'node:fs'
import { mkdtemp, rm, writeFile } from 'node:fs/promises'
import { connect } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { represent, respond } from '../../../core/http/respond'
import { localStore } from '../../store/local'
import { listen, sha256 } from '../../testing/harness'
import { Filler } from './filler'
import { send, type Sent } from './send'

let folder: string
const bytes = Buffer.alloc(20_000_000, 'clay ')
const hash = sha256(bytes)
beforeAll(async () => {
  folder = await mkdtemp(join(tmpdir(), 'trough-send-'))
  await writeFile(join(folder, 'arriving'), bytes)
  await localStore(folder).adopt(hash, join(folder, 'arriving'))
})
afterAll(() => rm(folder, { recursive: true }))

/** How often this process has the blob open. */
const openBlobs = () =>
  readdirSync('/proc/self/fd').filter(fd => {
    try {
      return readlinkSync(`/proc/self/fd/${fd}`).endsWith(hash)
    } catch {
      // Closed between listing and looking.
      return false
    }
  }).length

it('a thousand clients that go away mid-way or at once leave no file open, and no answer hanging', async () => {
  const store = localStore(folder)
  const representation = represent({ size: bytes.length, contentType: 'text/plain', etag: '"x"', lastModified: undefined, extra: {} })
  const answers: Promise<Sent>[] = []
  const server = await listen(async (request, response) => {
    // Some leave while their file is still being looked up.
    await wait(Math.random() * 5)
    const answer = send(
      response,
      respond('GET', request.headers, representation, () => 'b'),
      range => new Filler(store, [{ source: hash, ...range }]),
    )
    answers.push(answer)
    await answer
  })
  const { port } = new URL(server.url)
  await Promise.all(
    Array.from(
      { length: 1000 },
      (_, index) =>
        new Promise<void>(resolve => {
          const socket = connect(Number(port), '127.0.0.1', () => {
            socket.write(`GET / HTTP/1.1\r\nHost: x\r\n${index % 3 ? '' : 'Range: bytes=0-9999999,15000000-19000000\r\n'}\r\n`)
            if (index % 4 === 0) setTimeout(() => socket.destroy(), Math.random() * 5)
            else socket.once('data', () => socket.destroy())
          })
          socket.on('close', () => resolve())
          socket.on('error', () => undefined)
        }),
    ),
  )
  await wait(100)
  const sent = await Promise.all(answers)
  await wait(50)
  await server.close()
  expect(sent.length).toBeGreaterThan(700)
  // Nobody read on, so nobody can have been sent everything.
  for (const { delivered } of sent) expect(delivered.reduce((sum, { start, end }) => sum + end - start, 0)).toBeLessThan(bytes.length)
  expect(openBlobs()).toBe(0)
})
