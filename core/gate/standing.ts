import type { Node, Tree } from '../folders/folderTree'
import { OPEN_GATE } from './gate'

const NONE: readonly string[] = []

/** What is said of a thing and of where it lies. */
export interface Gated {
  /** its own gate, {@link OPEN_GATE}, or null where what is said further up holds */
  gate: string | null
  folder: string | null
  /** of a bundle: the gates its contents stand behind */
  gates?: readonly string[]
}

/** The gate that holds for something: its own, else that of the nearest folder above it that has one; null where it is open. */
export function gateOf<Folder extends Node & { gate: string | null }>(
  { gate, folder }: Pick<Gated, 'gate' | 'folder'>,
  tree: Pick<Tree<Folder>, 'pathTo'>,
): string | null {
  const said = gate ?? tree.pathTo(folder).findLast(each => each.gate !== null)?.gate ?? null
  return said === OPEN_GATE ? null : said
}

/** All the gates that have to be passed before something is had; several where it is a bundle of things behind gates. */
export function gatesOf<Folder extends Node & { gate: string | null }>(
  thing: Gated,
  tree: Pick<Tree<Folder>, 'pathTo'>,
): readonly string[] {
  const own = gateOf(thing, tree)
  if (own === null) return thing.gates ?? NONE
  return thing.gates?.length ? [...new Set([own, ...thing.gates])] : [own]
}

/**
 * The same for many things of one tree: what holds in each folder is worked out once, and what is said of a thing itself is one look away.
 *
 * @param gates identities of all there are
 */
export function standingIn<Folder extends Node & { gate: string | null }>(
  tree: Pick<Tree<Folder>, 'pathTo' | 'all'>,
  gates: Iterable<string>,
): (thing: Gated) => readonly string[] {
  const alone = new Map<string | null, readonly string[]>([...gates].map(id => [id, id === OPEN_GATE ? NONE : [id]]))
  const inFolder = new Map<string | null, readonly string[]>(
    tree.all.flatMap(({ id }) => {
      const gate = gateOf({ gate: null, folder: id }, tree)
      return gate === null ? [] : [[id, alone.get(gate) ?? [gate]] as const]
    }),
  )
  return thing => {
    if (thing.gates?.length) return gatesOf(thing, tree)
    return (thing.gate === null ? inFolder.get(thing.folder) : alone.get(thing.gate)) ?? NONE
  }
}
