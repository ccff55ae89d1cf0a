import { splitExtension } from '../files/fileName'

/**
 * A path that leads out of where a zip is unpacked, or to a place of the computer (APPNOTE.TXT 4.4.17.1: no drive, no leading slash,
 * forward slashes).
 */
const LEADS_OUT = /^(?:\/|[a-z]:)|\\|\0|(?:^|\/)\.{1,2}(?:\/|$)|\/\/|^$/i

/** Whether a path may stand in a zip. */
export const isSafePath = (path: string): boolean => !LEADS_OUT.test(path)

/** The same path without what would lead out of the folder it is unpacked into. */
function withinFolder(path: string): string {
  if (isSafePath(path)) return path
  const parts = path
    .replaceAll('\0', '')
    .split(/[/\\]/)
    .map(part => part.replace(/^([a-z]):/i, '$1'))
    .filter(part => !/^\.*$/.test(part.trim()))
  return parts.join('/') || 'file'
}

/** Gives each member a path nobody else has, whatever the case, and that leads nowhere else: `a.pdf`, `a 2.pdf`. */
export function distinctPaths(paths: string[]): string[] {
  const taken = new Set<string>()
  /** where counting goes on for those of one name: all numbers before are taken */
  const next = new Map<string, number>()
  return paths.map(withinFolder).map(path => {
    const name = path.toLowerCase()
    if (!taken.has(name)) {
      taken.add(name)
      return path
    }
    const [stem, extension] = splitExtension(path)
    for (let number = next.get(name) ?? 2; ; number++) {
      const free = `${stem} ${number}${extension}`
      if (taken.has(free.toLowerCase())) continue
      taken.add(free.toLowerCase())
      next.set(name, number + 1)
      return free
    }
  })
}
