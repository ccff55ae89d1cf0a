import { escapeHtml } from './escape'
import { PICTURE_WIDTHS, pictureHref } from './href'
import type { TargetFacts } from './placeholders'
import type { PictureAttrs } from './schema'

/** How wide each size is shown, for browsers to choose by (HTML, "sizes" of img). */
const SIZES: Record<PictureAttrs['size'], string> = {
  small: '(max-width:34rem) 60vw, 14rem',
  half: '(max-width:34rem) 100vw, 22rem',
  text: '(max-width:46rem) 100vw, 43rem',
  wide: '(max-width:67rem) 100vw, 64rem',
}

/** A file's picture in several widths, of which the browser takes the one that fits. */
export function imageHtml(file: TargetFacts, { alt, sizes, className }: { alt: string; sizes: string; className: string }): string {
  const { width, height } = file.picture!
  // Wider than it is it cannot be had.
  const widths = PICTURE_WIDTHS.filter((each, index) => !width || index === 0 || PICTURE_WIDTHS[index - 1]! < width)
  const set = widths.map(each => `${escapeHtml(pictureHref(file, each))} ${each}w`).join(', ')
  const extent = width && height ? ` width="${width}" height="${height}"` : ''
  return `<img class="${className}" src="${escapeHtml(pictureHref(file, widths.at(-1)!))}" srcset="${set}" sizes="${sizes}"${extent} alt="${escapeHtml(alt)}" loading="lazy" decoding="async">`
}

/** How high the mark of a site stands in the head, in CSS pixels. */
const MARK_HEIGHT = 48

/** The mark of a site: as high as all of them, and at once, since it is the first to be seen. */
export function markHtml(file: TargetFacts, alt: string): string {
  const { width, height } = file.picture!
  const shown = Math.round((MARK_HEIGHT * (width || MARK_HEIGHT)) / (height || MARK_HEIGHT))
  return imageHtml(file, { alt, sizes: `${shown}px`, className: 'tr-mark' }).replace(' loading="lazy"', '')
}

/** A picture with its caption. @param led puts a link around it, where it leads somewhere */
export function pictureHtml(
  { alt, decorative, caption, size, align }: PictureAttrs,
  file: TargetFacts,
  led: (image: string) => string,
): string {
  const image = imageHtml(file, { alt: decorative ? '' : alt, sizes: SIZES[size], className: 'tr-image' })
  const said = caption.trim() && `<figcaption>${escapeHtml(caption)}</figcaption>`
  return `<figure class="tr-picture tr-picture-${size} tr-picture-${align}">${led(image)}${said}</figure>`
}
