import type { PacedTimes } from './pace'

let missed = 0

function say(what: string, figure: number, unit: string, against?: string): void {
  console.log(`  ${what.padEnd(58)} ${figure.toFixed(figure < 100 ? 2 : 0).padStart(8)} ${unit}${against ? `   ${against}` : ''}`)
}

/** Prints one figure against what it should be at least (or at most). */
export function report(what: string, figure: number, unit: string, bound?: { least?: number; most?: number }): void {
  const holds = bound && (bound.least === undefined || figure >= bound.least) && (bound.most === undefined || figure <= bound.most)
  if (bound && !holds) missed++
  const limit = bound?.least === undefined ? `at most ${bound?.most}` : `at least ${bound.least}`
  say(what, figure, unit, bound && `${limit}: ${holds ? 'holds' : 'MISSED'}`)
}

/**
 * Prints milliseconds against what they should be at most on a machine that is there for this alone: as much longer as a fixed piece of
 * work took meanwhile, they may take.
 */
export function reportPaced(what: string, of: (values: number[]) => number, paced: PacedTimes, most: number): void {
  const [figure, heldUp] = [of(paced.times), paced.heldUp(of)]
  const holds = figure <= most * heldUp
  if (!holds) missed++
  say(what, figure, 'ms', `at most ${most} x ${heldUp.toFixed(2)}: ${figure <= most ? 'holds' : holds ? 'holds at this pace' : 'MISSED'}`)
}

/** Says whether every bound held; gives the exit code. */
export function sayEnd(): number {
  console.log(missed ? `\n${missed} missed.` : '\nEvery bound holds.')
  return missed ? 1 : 0
}
