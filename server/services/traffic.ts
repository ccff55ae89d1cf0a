/** Milliseconds after a visitor's request in which another is expected. */
const RECENT = 250

/** Whether visitors come just now: work that can wait makes room for them. */
export function createTraffic() {
  let last = -Infinity
  return {
    /** A visitor asked for something. */
    note(): void {
      last = performance.now()
    },
    get comes(): boolean {
      return performance.now() - last < RECENT
    },
  }
}
export type Traffic = ReturnType<typeof createTraffic>
