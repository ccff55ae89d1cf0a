import { once } from 'node:events'
import { createServer } from 'node:http'
import { connect, type AddressInfo, type Socket } from 'node:net'
import { setTimeout as wait } from 'node:timers/promises'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { watchStanding } from './standing'

/** Milliseconds; long enough that a busy machine's own pauses are none of a client's. */
const STANDS = 1500
/** A pause that a slow client makes. */
const PAUSE = STANDS / 3
const LARGE = Buffer.alloc(120_000_000)
const server = createServer()
const under = watchStanding(server, STANDS)
server.on('request', (request, response) => {
  under(request, response)
  if (request.url === '/slow') return void setTimeout(() => response.end('at last'), 2 * STANDS)
  if (request.method === 'POST')
    return void request
      .resume()
      .on('end', () => response.end('taken'))
      .on('error', () => undefined)
  response.end(LARGE)
})
let port: number
beforeAll(async () => {
  server.listen(0, '127.0.0.1')
  await once(server, 'listening')
  port = (server.address() as AddressInfo).port
})
afterAll(() => {
  server.closeAllConnections()
  server.close()
})

async function client(text: string): Promise<{ socket: Socket; said: () => string; bytes: () => number; closed: Promise<unknown> }> {
  const socket = connect(port, '127.0.0.1')
  socket.on('error', () => undefined)
  let [said, bytes] = ['', 0]
  socket.on('data', chunk => {
    bytes += chunk.length
    if (said.length < 1000) said += chunk.toString('latin1')
  })
  await once(socket, 'connect')
  socket.write(text)
  return { socket, said: () => said, bytes: () => bytes, closed: once(socket, 'close') }
}

describe('connections that stand still', () => {
  it('are ended where nothing of an answer is taken', async () => {
    const { socket, bytes } = await client('GET / HTTP/1.1\r\nHost: a\r\n\r\n')
    socket.pause()
    await wait(5 * STANDS)
    socket.resume()
    await once(socket, 'close')
    expect(bytes()).toBeLessThan(LARGE.length)
  })

  it('are left where an answer is taken slowly', async () => {
    const { socket, bytes } = await client('GET / HTTP/1.1\r\nHost: a\r\n\r\n')
    // Some megabytes in each of many spells, more than the system's own buffers hold: together longer than a standing one would be left.
    for (let spell = 0; spell < 6; spell++) {
      socket.pause()
      await wait(PAUSE)
      const before = bytes()
      socket.resume()
      while (bytes() < before + 16_000_000 && bytes() < LARGE.length) await once(socket, 'data')
    }
    while (bytes() < LARGE.length) await once(socket, 'data')
    socket.destroy()
  })

  it('are told that the rest of a body did not come', async () => {
    const { said, closed } = await client('POST / HTTP/1.1\r\nHost: a\r\nContent-Length: 100\r\n\r\nthe beginning')
    await closed
    expect(said()).toMatch(/^HTTP\/1\.1 408 /)
  })

  it('are left where a body comes slowly, and where this side is slow', async () => {
    const slowBody = await client('POST / HTTP/1.1\r\nHost: a\r\nContent-Length: 12\r\nConnection: close\r\n\r\n')
    const slowAnswer = await client('GET /slow HTTP/1.1\r\nHost: a\r\nConnection: close\r\n\r\n')
    for (const part of ['a ', 'slo', 'w b', 'ody', '.']) {
      await wait(PAUSE)
      slowBody.socket.write(part)
    }
    await Promise.all([slowBody.closed, slowAnswer.closed])
    expect(slowBody.said()).toMatch(/^HTTP\/1\.1 200 [^]*taken/)
    expect(slowAnswer.said()).toMatch(/^HTTP\/1\.1 200 [^]*at last$/)
  })
})
