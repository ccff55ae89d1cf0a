/** Milliseconds for which what is told of a change may be of one's own act. */
const ECHO = 1500
let under = 0
let last = -Infinity

/** Notes that this window changes something. */
export async function asOwnAct<T>(act: Promise<T>): Promise<T> {
  under++
  try {
    return await act
  } finally {
    under--
    last = performance.now()
  }
}

/** Whether this window has just changed something, and shows it already. */
export const justActed = () => under > 0 || performance.now() - last < ECHO
