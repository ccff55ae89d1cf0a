import type { ServerResponse } from 'node:http'
import { Buffers } from './buffers'
import type { Filler } from './filler'

/** Buffers on their way to one client: one is filled while the other is sent. */
const UNDER_WAY = 2
/** A client that has taken this much, more than the system's own buffers hold, is quick enough for large buffers. */
const PROVEN = 12 * 1024 * 1024

const buffers = new Buffers()

/**
 * Sends all that a filler gives, reading no faster than the client takes.
 *
 * @param taken is told how many bytes the system has taken: what waits in our own buffers may never leave
 * @param handed is told how many bytes were handed over to be sent
 */
export async function pour(
  response: ServerResponse,
  filler: Filler,
  taken: (bytes: number) => void,
  handed: (bytes: number) => void,
): Promise<void> {
  let underWay = 0
  let sent = 0
  let wake: (() => void) | undefined
  const onClose = () => wake?.()
  response.once('close', onClose)
  try {
    while (!response.destroyed) {
      const buffer = buffers.take(sent < PROVEN ? 'small' : 'large')
      const count = await filler.fill(buffer).catch((error: unknown) => {
        buffers.give(buffer)
        throw error
      })
      if (!count || response.destroyed) {
        buffers.give(buffer)
        return
      }
      handed(count)
      underWay++
      response.write(count === buffer.length ? buffer : buffer.subarray(0, count), error => {
        underWay--
        buffers.give(buffer)
        if (!error) {
          sent += count
          taken(count)
        }
        wake?.()
      })
      while (underWay >= UNDER_WAY && !response.destroyed) await new Promise<void>(resolve => (wake = resolve))
    }
  } finally {
    response.off('close', onClose)
    await filler.close()
  }
}
