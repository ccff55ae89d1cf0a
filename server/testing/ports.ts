import { randomInt } from 'node:crypto'
import { createSocket } from 'node:dgram'
import { once, type EventEmitter } from 'node:events'
import { createServer } from 'node:net'

/** Whether what was asked to listen does; then it stops. */
async function listens(probe: EventEmitter & { close: () => unknown }): Promise<boolean> {
  // An error that comes first rejects what waits for another event (Node.js, events.once).
  if (!(await once(probe, 'listening').catch(() => undefined))) return false
  probe.close()
  await once(probe, 'close')
  return true
}

/** A port nobody listens on, by TCP or UDP; below those that browser tests take, and that Linux gives out by itself. */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = randomInt(10_000, 20_000)
    if ((await listens(createServer().listen(port, '127.0.0.1'))) && (await listens(createSocket('udp4').bind(port, '127.0.0.1'))))
      return port
  }
}
