import { parseFile } from 'music-metadata'
import { Unreadable, type Reader } from './reader'

/** Length, title and author of sound and film. */
export const readMedia: Reader = async (path, { facts }) => {
  const { format, common } = await parseFile(path, { duration: true, skipCovers: true }).catch((error: Error) => {
    throw new Unreadable(`The recording cannot be read (${error.message}). Play it before you offer it.`)
  })
  if (format.duration !== undefined) facts.seconds = Math.round(format.duration * 10) / 10
  if (common.title) facts.documentTitle = common.title.slice(0, 500)
  if (common.artist) facts.author = common.artist.slice(0, 500)
}
