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

/** Whether nobody listens on a port of this machine, by TCP or UDP. */
export const isFree = async (port: number): Promise<boolean> =>
  (await listens(createServer().listen(port, '127.0.0.1'))) && (await listens(createSocket('udp4').bind(port, '127.0.0.1')))

/** A port nobody listens on; below those that browser tests take, and that Linux gives out by itself. */
export async function freePort(): Promise<number> {
  for (;;) {
    const port = randomInt(10_000, 20_000)
    if (await isFree(port)) return port
  }
}
