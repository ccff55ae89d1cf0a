const waiting: (() => void)[] = []

function next(): void {
  waiting.shift()!()
  if (waiting.length) setImmediate(next)
}

/** Waits for a turn of the event loop of one's own: however many ask for what can wait, whoever asks for a file meanwhile waits behind one of them. */
export const oneATurn = (): Promise<void> => new Promise((resolve) => {
  waiting.push(resolve)
  if (waiting.length === 1) setImmediate(next)
})
