export interface Kept<T> {
  get: () => Promise<T>
  forget: () => void
  /** where it is in memory: no turn of the loop is needed */
  now: () => T | undefined
}

/**
 * What was read once and is kept until it is forgotten. Who asks while it is being read waits for the same reading; what
 * was begun before something changed is not kept after it.
 */
export function kept<T>(read: () => Promise<T>): Kept<T> {
  let reading: Promise<T> | undefined
  let value: { of: Promise<T>; is: T } | undefined
  return {
    get() {
      if (reading) return reading
      const begun = read()
      reading = begun
      begun.then(
        is => (value = { of: begun, is }),
        () => {
          if (reading === begun) reading = undefined
        },
      )
      return begun
    },
    forget: () => void (reading = undefined),
    now: () => (reading && value?.of === reading ? value.is : undefined),
  }
}
