import type { FileItem } from '../files/fileItem'
import { piecesOf } from '../find/cards'
import { fold } from '../find/fold'

/** Whether all that is looked for stands in what pages say of a file that is behind a gate: nothing is found by what is in it. */
export function isSaidOf({ title, handle, description, tags }: FileItem, q: string): boolean {
  const said = fold([title, handle, description, ...tags].join('\n'))
  return piecesOf(q).every(piece => said.includes(piece))
}
