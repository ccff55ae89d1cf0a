/** Lets those who wait go on one after another: the first at the next turn of the event loop, each other one when `rest` has called. */
function createTurns(rest: (next: () => void) => void): () => Promise<void> {
  const waiting: (() => void)[] = []
  function next(): void {
    waiting.shift()!()
    if (waiting.length) rest(next)
  }
  return () =>
    new Promise(resolve => {
      waiting.push(resolve)
      if (waiting.length === 1) setImmediate(next)
    })
}

/** Milliseconds in which nobody is told that something is nowhere, while others wait to be told: about 400 a second are. */
const REST = 2

/**
 * Waits for a turn of the event loop of one's own: however many ask for what can wait, whoever asks for a file meanwhile waits behind one
 * of them.
 */
export const oneATurn = createTurns(setImmediate)

/** The same with a rest after each: those who try address after address do not keep the machine from who asks for what is there. */
export const atLeisure = createTurns(next => setTimeout(next, REST))
