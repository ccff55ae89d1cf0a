/** First parts of addresses that are the desk's: itself, its API, and its own assets. */
const DESKS = /^\/(?:desk|api)(?:[/?]|$)|^\/_/

/** Whether an address is for visitors: a file or a page, not the desk, its API or the desk's own assets. */
export const isForVisitors = (path: string): boolean => !DESKS.test(path)
