import { webcrypto } from 'node:crypto'
import { setTimeout } from 'node:timers/promises'

/** A quarter of a megabyte is hashed this many times, one after another: some ten milliseconds, by way of another thread as with Trough. */
const PIECES = 8
const piece = new Uint8Array(256 * 1024)
/** Pieces of work before the first figure, so that some of them find the machine at its best. */
const FIRST = 60
/** Milliseconds before each, so that what is left to do of what was measured is no excuse for it. */
const PAUSE = 20

async function beat(): Promise<number> {
  await setTimeout(PAUSE)
  const start = performance.now()
  for (let round = 0; round < PIECES; round++) await webcrypto.subtle.digest('SHA-256', piece)
  return performance.now() - start
}

let best = Infinity

/**
 * Milliseconds of something done again and again, and of a fixed piece of work done in turn with it: what others take away of a machine
 * falls on both, and need not count against a bound in milliseconds.
 */
export class PacedTimes {
  readonly times: number[] = []
  private readonly beats: number[] = []

  /** Does something, and the fixed piece of work after it. @param once gives the milliseconds it took */
  async add(once: () => Promise<number>): Promise<void> {
    if (best === Infinity) for (let round = 0; round < FIRST; round++) best = Math.min(best, await beat())
    this.times.push(await once())
    const took = await beat()
    best = Math.min(best, took)
    this.beats.push(took)
  }

  /** How many times as long as at its best the fixed piece of work took, by the same measure as the times, such as their median. */
  heldUp(of: (values: number[]) => number): number {
    return of(this.beats) / best
  }
}

/** Does something so many times {@link PacedTimes in pace}. @param once gives the milliseconds it took */
export async function inPace(rounds: number, once: (round: number) => Promise<number>): Promise<PacedTimes> {
  const paced = new PacedTimes()
  for (let round = 0; round < rounds; round++) await paced.add(() => once(round))
  return paced
}
