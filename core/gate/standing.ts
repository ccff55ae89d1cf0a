import type { Node, Tree } from '../folders/folderTree'
import { OPEN_GATE } from './gate'

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

const NONE: readonly string[] = []

/** All the gates that have to be passed before something is had; several where it is a bundle of things behind gates. */
export function gatesOf<Folder extends Node & { gate: string | null }>(
  thing: Gated,
  tree: Pick<Tree<Folder>, 'pathTo'>,
): readonly string[] {
  const own = gateOf(thing, tree)
  if (own === null) return thing.gates ?? NONE
  return thing.gates?.length ? [...new Set([own, ...thing.gates])] : [own]
}
