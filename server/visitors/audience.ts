/** First parts of addresses that are the desk's: itself, its API, and its own assets; the site's own fonts are not. */
const DESKS = /^\/(?:desk|api)(?:[/?]|$)|^\/_(?!typefaces\/)/

/** Whether an address is for visitors: a file or a page, not the desk, its API or the desk's own assets. */
export const isForVisitors = (path: string): boolean => !DESKS.test(path)
