import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import { imageHtml } from '../page/picture'
import type { TargetFacts } from '../page/placeholders'

/** What is written at each file of a gallery, besides its picture. */
interface Parts {
  /** the link to the file */
  link: (file: TargetFacts) => string
  /** the box by which it is chosen; empty where none is */
  tick: (file: TargetFacts) => string
}

const TILE_SIZES = '(max-width:34rem) 45vw, 14rem'

/** A key that shows a picture, or puts it away: a popover opens and goes without script (HTML). */
const key = (id: string, words: string, className: string, inner: string, act: 'show' | 'hide' = 'show') =>
  `<button type="button" class="${className}" popovertarget="${id}"${act === 'hide' ? ' popovertargetaction="hide"' : ''} aria-label="${escapeHtml(words)}">${inner}</button>`

/**
 * Files as pictures; each is seen large when it is pressed, with its link and its facts. A file that has no picture stands there with
 * its link alone.
 *
 * @param placement identities on the page begin with it
 */
export function galleryHtml(files: TargetFacts[], placement: string, { link, tick }: Parts, speech: Speech): string {
  const idOf = (file: TargetFacts) => `see-${placement}-${file.id}`
  // No way to its neighbours: what is opened from a popover stands above it, and would have to be put away one by one.
  const large = (file: TargetFacts) =>
    `<figure class="tr-large" id="${idOf(file)}" popover>${imageHtml(file, { alt: file.description || file.title, sizes: '92vw', className: 'tr-large-picture' })}<figcaption>${link(file)}${key(idOf(file), speech.say('close'), 'tr-away', '\u00D7', 'hide')}</figcaption></figure>`
  const item = (file: TargetFacts) =>
    file.picture
      ? `${key(idOf(file), speech.say('large', { title: file.title }), 'tr-tile', imageHtml(file, { alt: '', sizes: TILE_SIZES, className: 'tr-tile-picture' }))}<span class="tr-tile-line">${tick(file)}<span>${escapeHtml(file.title)}</span></span>${large(file)}`
      : `<span class="tr-tile-line">${tick(file)}${link(file)}</span>`
  return `<ul class="tr-gallery">\n${files.map(file => `<li>${item(file)}</li>`).join('\n')}\n</ul>`
}
