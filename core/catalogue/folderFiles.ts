import type { EntryToMatch, FileToMatch, Matched } from './match'
import type { Value } from './entry'
import { isMany, type Field } from './field'
import { filesIn } from './values'

/** A file of a folder that a field takes its files from. */
export interface FolderFile extends FileToMatch {
  /** when it came, in milliseconds since 1970: of two that fit an entry the newer one is meant */
  created: number
}

/** Where the files of a folder go. */
export interface Placing {
  /** what entries hold from now on, by their identities */
  values: Map<string, Value>
  /** files that fit no entry beyond doubt */
  strays: Matched[]
}

const inFolder = (files: FolderFile[], value: Value | undefined) => files.find(({ id }) => id === value)

/**
 * Where the files of a folder go that no entry holds yet: next year's file takes the place of this year's. What somebody put into an
 * entry from elsewhere stays.
 *
 * @param files of the folder
 * @param matched of those among them that no entry holds
 */
export function placeFiles(field: Field, files: FolderFile[], entries: EntryToMatch[], matched: Matched[]): Placing {
  const values = new Map<string, Value>()
  const strays: Matched[] = []
  const byId = new Map(entries.map(entry => [entry.id, entry]))
  const came = new Map(files.map(({ id, created }) => [id, created]))
  for (const match of matched.toSorted((a, b) => came.get(a.file)! - came.get(b.file)!)) {
    const entry = match.entry === null || !match.sure ? undefined : byId.get(match.entry)
    if (!entry) {
      strays.push(match)
      continue
    }
    const current = values.get(entry.id) ?? entry.values[field.id]
    if (isMany(field.kind)) {
      values.set(entry.id, [...(Array.isArray(current) ? current : []), match.file])
      continue
    }
    const holder = inFolder(files, current)
    if (current === undefined || (holder && holder.created < came.get(match.file)!)) values.set(entry.id, match.file)
  }
  return { values, strays }
}

/** Files of a folder that no entry holds in a field. */
export function looseFiles(field: Field, files: FolderFile[], entries: EntryToMatch[]): FolderFile[] {
  const held = new Set(entries.flatMap(({ values }) => filesIn([field], values)))
  return files.filter(({ id }) => !held.has(id))
}
