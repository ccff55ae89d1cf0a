import type { Family } from '../files/mediaType'
import type { WordKey } from './words/words'

/** What kinds of files are called in the words of a site. */
export const KIND_WORDS: Record<Family, WordKey> = {
  document: 'kindDocument',
  sheet: 'kindSheet',
  slides: 'kindSlides',
  picture: 'kindPicture',
  sound: 'kindSound',
  film: 'kindFilm',
  archive: 'kindArchive',
  other: 'kindOther',
}
