/**
 * Whether `word` was meant by `typed`: equal but for one slip of typing in 4 to 7 letters, two in 8 and more;
 * a slip is a letter too many, too few, wrong, or two that changed places (optimal string alignment distance).
 * Words shorter than 4 letters have to be right. What follows after the typed letters does not matter.
 */
export function isSlipOf(typed: string, word: string): boolean {
  const slips = typed.length < 4 ? 0 : typed.length < 8 ? 1 : 2
  if (!slips || word.length < typed.length - slips) return false
  // First letters are seldom wrong, and comparing them first leaves out most words.
  if (word[0] !== typed[0] && word[0] !== typed[1] && word[1] !== typed[0]) return false
  return distanceToBeginning(typed, word, slips) <= slips
}

/** The least distance between `typed` and any beginning of `word`; counted no further than `most` + 1. */
function distanceToBeginning(typed: string, word: string, most: number): number {
  const width = Math.min(word.length, typed.length + most)
  let beforeLast: number[] = []
  let last = Array.from({ length: width + 1 }, (_, column) => column)
  for (let row = 1; row <= typed.length; row++) {
    const current = [row]
    let least = row
    for (let column = 1; column <= width; column++) {
      const same = typed[row - 1] === word[column - 1]
      let cost = Math.min(last[column]! + 1, current[column - 1]! + 1, last[column - 1]! + (same ? 0 : 1))
      const swapped = row > 1 && column > 1 && typed[row - 1] === word[column - 2] && typed[row - 2] === word[column - 1]
      if (swapped) cost = Math.min(cost, beforeLast[column - 2]! + 1)
      current.push(cost)
      least = Math.min(least, cost)
    }
    if (least > most) return most + 1
    beforeLast = last
    last = current
  }
  return Math.min(...last)
}
