import { connect } from 'node:net'
import { expect, it, vi } from 'vitest'
import type { Metrics } from './services/watch/metrics'
import { listen } from './testing/harness'
import { measureAtOnce } from './watch'

it('what is answered at once is measured, what stands behind another answer of its connection too (RFC 9112, section 9.3.2)', async () => {
  const observe = vi.fn<Metrics['observe']>()
  const server = await listen(async (request, response) => {
    const measured = measureAtOnce(request, response, { observe } as unknown as Metrics)
    response.writeHead(200, { 'Content-Length': 20_000 }).end(Buffer.alloc(20_000))
    measured()
  })
  const socket = connect(Number(new URL(server.url).port), '127.0.0.1')
  let received = 0
  socket.on('data', bytes => (received += bytes.length))
  const asked = 'GET /files/a.pdf HTTP/1.1\r\nHost: localhost\r\n\r\n'
  socket.write(asked + asked)
  await expect.poll(() => observe.mock.calls.length).toBe(2)
  await expect.poll(() => received).toBeGreaterThan(40_000)
  socket.destroy()
  await server.close()
  for (const [kind, status, bytes] of observe.mock.calls) {
    expect([kind, status]).toEqual(['file', 200])
    expect(bytes).toBeGreaterThan(20_000)
  }
})
