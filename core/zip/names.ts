import { splitExtension } from '../files/fileName'

/** Gives each member a path nobody else has, whatever the case: `a.pdf`, `a 2.pdf`. */
export function distinctPaths(paths: string[]): string[] {
  const taken = new Set<string>()
  return paths.map((path) => {
    const [stem, extension] = splitExtension(path)
    let free = path
    for (let number = 2; taken.has(free.toLowerCase()); number++) free = `${stem} ${number}${extension}`
    taken.add(free.toLowerCase())
    return free
  })
}
