import type { TargetFacts } from './placeholders'
import type { Action } from './schema'

/** @param placement empty where it is none that is counted by itself */
const byPlacement = (path: string, action: Action, placement: string): string =>
  `${path}?${action === 'save' ? 'save' : 'open'}${placement && `&at=${placement}`}`

/** The path of a file: letters of other scripts are percent-encoded on the wire (RFC 3987, section 3.1). */
export const filePath = (handle: string): string => `/files/${encodeURI(handle)}`

/** The root-relative address of a file by a placement; it holds on any domain and scheme. */
export const fileHref = ({ handle }: TargetFacts, action: Action, placement: string): string =>
  byPlacement(filePath(handle), action, placement)

/** The root-relative address of whatever a signpost points at, by a placement. */
export const signpostHref = (name: string, action: Action, placement: string): string => byPlacement(`/to/${name}`, action, placement)

/** Widths, in pixels, that pictures are served in. */
export const PICTURE_WIDTHS = [320, 640, 960, 1440, 1920] as const

/**
 * The root-relative address of what shows a file, some pixels wide.
 *
 * @param page one of its pages, counted from 1, instead of what stands for it
 */
export const pictureHref = ({ handle, picture }: Pick<TargetFacts, 'handle' | 'picture'>, width: number, page?: number): string =>
  `/pictures/${encodeURI(handle)}?width=${width}${page ? `&page=${page}` : ''}${picture?.version ? `&v=${picture.version}` : ''}`

/** Pixels across of a picture behind the words of a button: few buttons are wider, on screens of twice as many pixels. */
const FILL_WIDTH = 960

/** Where a file's picture is had to fill a button; undefined where it is not there. */
export const fillHref = (facts: TargetFacts | undefined): string | undefined =>
  facts?.picture ? pictureHref(facts, FILL_WIDTH) : undefined

/** The root-relative address of a page. */
export const pageHref = (slug: string): string => `/${slug}`

/** Where the picture is that stands for pages without one of their own. */
export const SHARED_PICTURE = '/shared.png'
export const sharedPictureHref = (slug: string): string =>
  slug === '' ? SHARED_PICTURE : `${SHARED_PICTURE}?page=${encodeURIComponent(slug)}`
