interface Turns {
  /** Waits for one. */
  (): Promise<void>
  /** Takes one where nobody else has or waits for it. @returns whether it was taken */
  now: () => boolean
}

/**
 * Lets those who wait go on one after another: who asks alone at once, each other one when `rest` has called after the turn of the event
 * loop in which the one before went.
 */
function createTurns(rest: (next: () => void) => void): Turns {
  const waiting: (() => void)[] = []
  let isTaken = false
  function leave(): void {
    if (waiting.length) rest(() => take(waiting.shift()!))
    else isTaken = false
  }
  function take(goOn?: () => void): void {
    isTaken = true
    goOn?.()
    setImmediate(leave)
  }
  const wait = () => new Promise<void>(resolve => void (isTaken ? waiting.push(resolve) : take(resolve)))
  return Object.assign(wait, {
    now(): boolean {
      if (isTaken) return false
      take()
      return true
    },
  })
}

/** Milliseconds in which nobody is told that something is nowhere, while others wait to be told: about 400 a second are. */
const REST = 2

/**
 * Waits for a turn of the event loop of one's own: however many ask for what can wait, whoever asks for a file meanwhile waits behind one
 * of them.
 */
export const oneATurn = createTurns(next => next())

/** The same with a rest after each: those who try address after address do not keep the machine from who asks for what is there. */
export const atLeisure = createTurns(next => setTimeout(next, REST))
