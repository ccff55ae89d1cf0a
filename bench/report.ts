let missed = 0

/** Prints one figure against what it should be at least (or at most). */
export function report(what: string, figure: number, unit: string, bound?: { least?: number; most?: number }): void {
  const holds = bound && (bound.least === undefined || figure >= bound.least) && (bound.most === undefined || figure <= bound.most)
  if (bound && !holds) missed++
  const limit = bound
    ? `   ${bound.least === undefined ? `at most ${bound.most}` : `at least ${bound.least}`}: ${holds ? 'holds' : 'MISSED'}`
    : ''
  console.log(`  ${what.padEnd(58)} ${figure.toFixed(figure < 100 ? 2 : 0).padStart(8)} ${unit}${limit}`)
}

/** Says whether every bound held; gives the exit code. */
export function sayEnd(): number {
  console.log(missed ? `\n${missed} missed.` : '\nEvery bound holds.')
  return missed ? 1 : 0
}
