import { imageHtml } from './picture'
import type { TargetFacts } from './placeholders'
import type { SectionAttrs } from './schema'

/** Enough veil to tell words from most pictures. */
export const FIRST_VEIL = 60

/** The classes a section wears, over a picture or not. */
export const sectionClass = ({ tone, padding, width }: SectionAttrs, pictured: boolean): string =>
  `tr-section tr-tone-${tone} tr-pad-${padding} tr-width-${width}${pictured ? ' tr-pictured' : ''}`

/** The picture behind a section with its veil. It says nothing that the words do not: it is not told to those who do not see it. */
export const behindHtml = (file: TargetFacts, veil: number): string =>
  `<div class="tr-behind" style="--veil:${veil}%">${imageHtml(file, { alt: '', sizes: '100vw', className: 'tr-behind-picture' })}</div>`
