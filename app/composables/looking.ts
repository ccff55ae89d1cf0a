import type { FileItem } from '~~/core/files/fileItem'
import { mayBeSeen } from '~~/core/see/mayBeSeen'

/** Whether visitors may look at a file before they take it. */
export const useLooking = () => {
  const [folders, session] = [useFolders(), useSession()]
  return (file: Pick<FileItem, 'see' | 'folder'>): boolean => mayBeSeen(file, folders.tree, session.site)
}
