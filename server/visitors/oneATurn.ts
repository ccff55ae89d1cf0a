/**
 * Lets those who wait go on one after another: who asks alone at once, each other one when `rest` has called after the turn of the event
 * loop in which the one before went.
 */
function createTurns(rest: (next: () => void) => void): () => Promise<void> {
  const waiting: (() => void)[] = []
  let isTaken = false
  function go(on: () => void): void {
    isTaken = true
    on()
    setImmediate(() => {
      if (waiting.length) rest(() => go(waiting.shift()!))
      else isTaken = false
    })
  }
  return () => new Promise(resolve => void (isTaken ? waiting.push(resolve) : go(resolve)))
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
