import type { FileItem } from '../../../core/files/fileItem'
import { Tree, type Node } from '../../../core/folders/folderTree'
import { nearestSaid } from '../../../core/see/said'
import type { Events } from '../events'
import { isOut } from '../files/items'
import { kept } from '../kept'
import type { LibraryService } from '../library/library'
import type { PageService } from '../pages/pages'
import type { Signposts } from '../signposts/signposts'

/** Says which files visitors may find: those that a live page gives them, and those in folders that are marked for it. */
export function createFindable(pages: PageService, library: LibraryService, signposts: Signposts, events: Events) {
  const offered = kept(async () => {
    const { files, signposts: posts, shelves } = await pages.liveOffers()
    const pointed = [...(await signposts.some(posts)).values()].flatMap(({ file }) => file ?? [])
    return { files: new Set([...files, ...pointed]), shelves }
  })
  const tree = kept(() => library.folders.tree())
  for (const event of ['live', 'uses', 'signposts'] as const) events.on(event, offered.forget)
  events.on('folders', tree.forget)

  /** Whether all that lies in a folder is for visitors: a live shelf lists it, or it is marked for that. */
  async function folderTest(): Promise<(folder: string | null) => boolean> {
    const [{ shelves }, folders] = [await offered.get(), await tree.get()]
    const listed = new Set(shelves.flatMap(({ id, below }) => (below === 'no' ? [id] : folders.below(id).map(folder => folder.id))))
    const marked = new Map<string | null, boolean>()
    /** One question a folder, however many files lie in it. */
    const isMarked = (folder: string | null) => {
      const known = marked.get(folder) ?? nearestSaid(null, folder, folders, ({ found }) => found, false)
      marked.set(folder, known)
      return known
    }
    return folder => (folder !== null && listed.has(folder)) || isMarked(folder)
  }

  return {
    /** Whether visitors may find a file, as things are now. */
    async test(): Promise<(file: FileItem) => boolean> {
      const [{ files }, isOpen] = [await offered.get(), await folderTest()]
      return file => !isOut(file) && (files.has(file.id) || isOpen(file.folder))
    },

    /** The folders whose names visitors may read, each below the nearest such one: what others are called is nobody's business. */
    async folders(): Promise<Tree<Node & { name: string }>> {
      const [all, isOpen] = [await tree.get(), await folderTest()]
      const open = all.all.filter(({ id }) => isOpen(id))
      const above = (parent: string | null) => all.pathTo(parent).findLast(({ id }) => isOpen(id))?.id ?? null
      return new Tree(open.map(({ id, name, parent }) => ({ id, name, parent: above(parent) })))
    },
  }
}
export type Findable = ReturnType<typeof createFindable>
