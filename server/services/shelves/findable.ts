import type { FileItem } from '../../../core/files/fileItem'
import { Tree, type Node } from '../../../core/folders/folderTree'
import { nearestSaid } from '../../../core/see/mayBeSeen'
import { filesListed } from '../../../core/shelf/listing'
import { isWholeFolder } from '../../../core/shelf/shelfSource'
import type { Events } from '../events'
import { isOut } from '../files/items'
import { kept } from '../kept'
import { behindOf } from '../../../core/gate/asks'
import type { Guard } from '../gates/guard'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'
import type { Signposts } from '../signposts/signposts'
import type { Shelves } from './shelves'

interface Needs {
  pages: PageService
  library: LibraryService
  signposts: Signposts
  shelves: Shelves
  /** files that entries of catalogues give visitors */
  entryFiles: () => Promise<string[]>
  guard: Pick<Guard, 'standing'>
  events: Events
}

const HOUR = 3_600_000

/** Says which files visitors may find: those that a live page gives them, and those in folders that are marked for it. */
export function createFindable({ pages, library, signposts, shelves: { listed }, entryFiles, guard, events }: Needs) {
  const offered = kept(async () => {
    const { files, signposts: posts, shelves } = await pages.liveOffers()
    const pointed = [...(await signposts.some(posts)).values()].flatMap(({ file }) => file ?? [])
    return { files: new Set([...files, ...pointed, ...(await entryFiles())]), shelves }
  })
  /** What live shelves ask for and no folder says by itself; of what was added or changed of late, not for long. */
  const asked = kept(async () => {
    const shelves = (await offered.get()).shelves.filter(source => !isWholeFolder(source))
    const ids = new Set<string>()
    for (const source of shelves) for (const file of filesListed(await listed(source, true))) ids.add(file.id)
    return { ids, until: shelves.some(({ within }) => within) ? Date.now() + HOUR : Infinity }
  })
  async function askedNow(): Promise<Set<string>> {
    if ((await asked.get()).until < Date.now()) asked.forget()
    return (await asked.get()).ids
  }
  for (const event of ['live', 'uses', 'signposts'] as const) events.on(event, offered.forget)
  for (const event of ['live', 'uses', 'library', 'folders', 'read'] as const) events.on(event, asked.forget)

  /** Whether all that lies in a folder is for visitors: a live shelf lists it, or it is marked for that. */
  async function folderTest(): Promise<(folder: string | null) => boolean> {
    const [{ shelves }, folders] = [await offered.get(), await library.folders.tree()]
    const whole = new Set(
      shelves.filter(isWholeFolder).flatMap(({ id, below }) => (below === 'no' ? [id] : folders.below(id).map(folder => folder.id))),
    )
    const marked = new Map<string | null, boolean>()
    /** One question a folder, however many files lie in it. */
    const isMarked = (folder: string | null) => {
      const known = marked.get(folder) ?? nearestSaid(null, folder, folders, ({ found }) => found, false)
      marked.set(folder, known)
      return known
    }
    return folder => (folder !== null && whole.has(folder)) || isMarked(folder)
  }

  return {
    /**
     * Whether visitors may find a file, as things are now.
     *
     * @param passed the gates they have passed: nobody else finds what is hidden behind them
     */
    async test(passed: ReadonlySet<string> = new Set()): Promise<(file: FileItem) => boolean> {
      const [{ files }, ids, isOpen] = [await offered.get(), await askedNow(), await folderTest()]
      const { gates, of } = await guard.standing()
      const mayBeKnown = (file: FileItem) => !behindOf(of(file), gates, passed)?.hidden
      return file => !isOut(file) && mayBeKnown(file) && (files.has(file.id) || ids.has(file.id) || isOpen(file.folder))
    },

    /** The folders whose names visitors may read, each below the nearest such one: what others are called is nobody's business. */
    async folders(passed: ReadonlySet<string> = new Set()): Promise<Tree<Node & { name: string }>> {
      const [all, isOpen] = [await library.folders.tree(), await folderTest()]
      const { gates, of } = await guard.standing()
      const named = new Set(
        all.all
          .filter(({ id, gate, parent }) => isOpen(id) && !behindOf(of({ gate, folder: parent }), gates, passed)?.hidden)
          .map(({ id }) => id),
      )
      const open = all.all.filter(({ id }) => named.has(id))
      const above = (parent: string | null) => all.pathTo(parent).findLast(({ id }) => named.has(id))?.id ?? null
      return new Tree(open.map(({ id, name, parent }) => ({ id, name, parent: above(parent) })))
    },
  }
}
export type Findable = ReturnType<typeof createFindable>
