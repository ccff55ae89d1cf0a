import { spawn } from 'node:child_process'
import { once } from 'node:events'
import { rm } from 'node:fs/promises'
import { connect } from 'node:net'
import { createInterface } from 'node:readline'
import { setTimeout as wait } from 'node:timers/promises'
import { expect, test } from '@playwright/test'
import { makeData, startServer } from './support/server'

function isThere(process_: number): boolean {
  try {
    return process.kill(process_, 0)
  } catch {
    return false
  }
}

test('while Trough starts again, visitors wait in the socket that systemd holds, and are answered', async () => {
  const data = await makeData('demo')
  const holder = spawn('python3', ['e2e/support/heldSocket.py'], {
    env: { ...process.env, HOST: '127.0.0.1', TROUGH_DATA: data, NODE_ENV: 'production' },
    stdio: ['pipe', 'pipe', 'inherit'],
  })
  const said = createInterface(holder.stdout)[Symbol.asyncIterator]()
  const port = Number((await said.next()).value)
  const start = async () => {
    holder.stdin.write('start\n')
    return Number((await said.next()).value)
  }
  const ask = async () => (await fetch(`http://127.0.0.1:${port}/`, { signal: AbortSignal.timeout(120_000) })).status
  let server = await start()
  try {
    expect(await ask()).toBe(200)
    process.kill(server, 'SIGTERM')
    const asked = Promise.all(Array.from({ length: 20 }, ask))
    while (isThere(server)) await wait(20)
    server = await start()
    expect(await asked).toEqual(Array.from({ length: 20 }, () => 200))
  } finally {
    if (isThere(server)) process.kill(server, 'SIGKILL')
    holder.kill()
    await rm(data, { recursive: true, force: true })
  }
})

test('a connection that says nothing for a while is still there for the next request, as fronts expect', async () => {
  const server = await startServer(await makeData('demo'))
  const socket = connect(Number(new URL(server.url).port), '127.0.0.1')
  try {
    let answers = ''
    socket.on('data', some => (answers += String(some)))
    const ask = (more = '') => socket.write(`HEAD / HTTP/1.1\r\nHost: a.example\r\n${more}\r\n`)
    ask()
    await expect.poll(() => answers).toMatch(/^HTTP\/1\.1 200 /)
    // Longer than fields may take, and than unused connections are kept by Node.js.
    await wait(22_000)
    ask('Connection: close\r\n')
    await once(socket, 'close')
    expect(answers.match(/HTTP\/1\.1 200 /g)).toHaveLength(2)
  } finally {
    socket.destroy()
    await server.remove()
  }
})
