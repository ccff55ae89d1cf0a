import type { Tree } from '../../../core/folders/folderTree'
import type { Database } from '../../db/connection'
import type { Events } from '../events'
import { kept } from '../kept'
import { readTree, type FolderRow } from './readTree'

/** The tree of the folders outside the bin, kept in memory until any of them changes: visitors' pages and gates ask for it all the time. */
export function createKeptTree(db: Database, events: Events) {
  const { get, forget } = kept((): Promise<Tree<FolderRow>> => readTree(db))
  events.on('folders', forget)
  return { get }
}
export type KeptTree = ReturnType<typeof createKeptTree>
