import { parseFile } from 'music-metadata'
import { Unreadable, type Reader } from './reader'

/** Length, title and author of sound and film. */
export const readMedia: Reader = async (path, { facts }) => {
  const known = await parseFile(path, { duration: true, skipCovers: true }).catch((error: Error) => {
    // A kind that the library does not know is no fault of the recording.
    if (error.name === 'UnsupportedFileTypeError' || /not supported/.test(error.message)) return undefined
    throw new Unreadable(`The recording cannot be read (${error.message}). Play it before you offer it.`)
  })
  if (!known) return
  const { format, common } = known
  if (format.duration !== undefined) facts.seconds = Math.round(format.duration * 10) / 10
  if (common.title) facts.documentTitle = common.title.slice(0, 500)
  if (common.artist) facts.author = common.artist.slice(0, 500)
}
