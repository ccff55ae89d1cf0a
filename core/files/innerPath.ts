import { cleanFolderName } from '../folders/folderItem'
import { cleanFileName } from './fileName'

/** Where a thing goes below a folder, from a path that somebody else wrote. */
export type InnerPath = { folders: string[]; fileName: string } | { refused: string }

const DEEPEST = 60

/**
 * Reads the path of a file in a zip or of a dropped folder. Paths that lead out of it are refused, as the ZIP
 * note asks (APPNOTE.TXT 4.4.17: no drive, no leading slash) and every guide to unpacking since.
 */
export function innerPath(path: string): InnerPath {
  const plain = path.replaceAll('\\', '/')
  if (/^(?:\/|[a-z]:)/i.test(plain)) return { refused: 'Its name is a place on a computer, not in the zip.' }
  const parts = plain.split('/').filter(part => part !== '' && part !== '.')
  if (parts.some(part => /^\.{2,}$/.test(part.trim()))) return { refused: 'Its name leads out of the zip.' }
  const last = parts.pop()
  if (last === undefined) return { refused: 'It has no name.' }
  if (parts.length > DEEPEST) return { refused: `It lies more than ${DEEPEST} folders deep.` }
  return { folders: parts.map(cleanFolderName).filter(Boolean), fileName: cleanFileName(last) }
}
