import type { TargetFacts } from './placeholders'
import type { Action } from './schema'

/** The root-relative address of a file by a placement; it holds on any domain and scheme. */
export function fileHref(facts: TargetFacts, action: Action, placement: string): string {
  return `/files/${facts.handle}?${action === 'save' ? 'save' : 'open'}&at=${placement}`
}

/** Widths, in pixels, that pictures are served in. */
export const PICTURE_WIDTHS = [320, 640, 960, 1440, 1920] as const

/** The root-relative address of what shows a file, some pixels wide. */
export const pictureHref = ({ handle, picture }: TargetFacts, width: number): string =>
  `/pictures/${handle}?width=${width}${picture?.version ? `&v=${picture.version}` : ''}`

/** The root-relative address of a page. */
export const pageHref = (slug: string): string => `/${slug}`
