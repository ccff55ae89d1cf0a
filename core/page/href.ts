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

/** Pixels across of a picture behind the words of a button: few buttons are wider, on screens of twice as many pixels. */
const FILL_WIDTH = 960

/** Where a file's picture is had to fill a button; undefined where it is not there. */
export const fillHref = (facts: TargetFacts | undefined): string | undefined => facts?.picture ? pictureHref(facts, FILL_WIDTH) : undefined

/** The root-relative address of a page. */
export const pageHref = (slug: string): string => `/${slug}`
