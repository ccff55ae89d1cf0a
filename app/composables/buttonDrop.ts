import type { Editor } from '@tiptap/vue-3'
import type { FileItem } from '~~/core/files/fileItem'
import type { Target } from '~~/core/page/schema'
import { targetAt } from '~/editor/commands'

/** What a file of the computer means to the button it is dropped on: the next edition of what that leads to, where it leads to a file. */
export function useButtonDrop(editor: () => Editor | undefined, give: (placement: string, file: FileItem) => void) {
  const editions = useEditions()
  const library = useLibrary()
  const signposts = useSignposts()

  function fileOf(target: Target | null): FileItem | undefined {
    const id = target?.kind === 'file' ? target.id : target?.kind === 'signpost' ? signposts.byId.get(target.id)?.file : undefined
    const file = id ? library.known.get(id) : undefined
    return file?.bundle || file?.deleted ? undefined : file
  }

  /** The file that a file dropped on a button would be the next edition of. */
  const followed = (placement: string): FileItem | undefined => {
    const current = editor()
    return current && fileOf(targetAt(current, placement))
  }

  /** Takes a dropped file as the next edition; false where the button leads to no file. */
  function asNext(placement: string, file: File): boolean {
    const old = followed(placement)
    if (old) editions.bring(old, { file, path: file.name }, made => give(placement, made))
    return !!old
  }

  return { followed, asNext }
}
