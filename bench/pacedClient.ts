import { setPriority } from 'node:os'
import { setTimeout as wait } from 'node:timers/promises'
import { BROWSER } from './measure'

/** Begins requests of one address at a steady pace, and tells its parent the 99th percentile of what they took, in milliseconds. */
const [url, perSecond, seconds] = [process.argv[2]!, Number(process.argv[3]), Number(process.argv[4])]
/** Requests before anything is measured: a process that has just started is slow itself. */
const WARM_UP = 50

async function timeOfOne(): Promise<number> {
  const start = performance.now()
  await (await fetch(url, { headers: { 'User-Agent': BROWSER } })).arrayBuffer()
  return performance.now() - start
}

try {
  // On one machine with the server and those who attack it, a client that has to wait for its own turn measures itself.
  setPriority(-10)
} catch {
  console.warn('  (the measuring client may not come first here: only root may say so)')
}
for (let count = 0; count < WARM_UP; count++) await timeOfOne()
const times: Promise<number>[] = []
const begin = performance.now()
for (let sent = 0; sent < perSecond * seconds; sent++) {
  await wait(begin + (sent * 1000) / perSecond - performance.now())
  times.push(timeOfOne())
}
const sorted = (await Promise.all(times)).sort((a, b) => a - b)
process.send!(sorted[Math.floor(sorted.length * 0.99)]!)
process.disconnect()
