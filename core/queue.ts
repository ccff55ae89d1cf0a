/** Runs tasks one after another, in the order they were handed in; a failed one does not stop the rest. */
export function createQueue() {
  let last: Promise<unknown> = Promise.resolve()
  return <T>(task: () => Promise<T>): Promise<T> => {
    const result = last.then(task, task)
    last = result.catch(() => undefined)
    return result
  }
}
