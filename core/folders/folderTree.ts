/** What the shape of a tree is made of. */
export interface Node {
  id: string
  parent: string | null
}

/** Folders by identity, with the way up and down. Loops and missing parents in hostile data end at the top. */
export class Tree<Folder extends Node> {
  private readonly byId: Map<string, Folder>
  private readonly byParent = new Map<string | null, Folder[]>()

  constructor(readonly all: Folder[]) {
    this.byId = new Map(all.map(folder => [folder.id, folder]))
    for (const folder of all) {
      const siblings = this.byParent.get(folder.parent)
      if (siblings) siblings.push(folder)
      else this.byParent.set(folder.parent, [folder])
    }
  }

  get(id: string): Folder | undefined {
    return this.byId.get(id)
  }

  /** Folders right in a folder, or at the top. */
  childrenOf(id: string | null): Folder[] {
    return this.byParent.get(id) ?? []
  }

  /** The folders from the top down to and with this one. */
  pathTo(id: string | null): Folder[] {
    const path: Folder[] = []
    const met = new Set<string>()
    for (let at = id; at !== null && !met.has(at);) {
      met.add(at)
      const folder = this.byId.get(at)
      if (!folder) break
      path.unshift(folder)
      at = folder.parent
    }
    return path
  }

  /** A folder and all below it, parents before their children. */
  below(id: string): Folder[] {
    const folder = this.byId.get(id)
    if (!folder) return []
    const met = new Map([[id, folder]])
    const queue = [folder]
    for (let next = queue.shift(); next; next = queue.shift()) {
      for (const child of this.childrenOf(next.id)) {
        if (met.has(child.id)) continue
        met.set(child.id, child)
        queue.push(child)
      }
    }
    return [...met.values()]
  }

  /** Whether a folder would come to lie in itself. */
  wouldLoop(id: string, into: string | null): boolean {
    return this.pathTo(into).some(folder => folder.id === id)
  }
}

/** A name no sibling has: `name`, else with a number behind it. */
export function freeName(name: string, taken: (candidate: string) => boolean): string {
  if (!taken(name)) return name
  for (let number = 2; ; number++) {
    const candidate = `${name} ${number}`
    if (!taken(candidate)) return candidate
  }
}
