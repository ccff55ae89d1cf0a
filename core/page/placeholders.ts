import { formatSize } from '../files/size'
import { opensInBrowser, typeTag } from '../files/mediaType'
import type { FileItem } from '../files/item'
import type { Action } from './schema'

/** What a page needs to know of the file a placement leads to. */
export interface TargetFacts {
  id: string
  handle: string
  title: string
  fileName: string
  mediaType: string
  /** bytes */
  size: number
  /** pages of a document, where known */
  pages?: number
}

/** What a page needs to know of a file. */
export const targetFacts = ({ id, handle, title, fileName, mediaType, size, facts }: FileItem): TargetFacts =>
  ({ id, handle, title, fileName, mediaType, size, pages: facts.pages })

const PLACEHOLDERS: Record<string, (facts: TargetFacts) => string> = {
  type: facts => typeTag(facts.mediaType),
  size: facts => formatSize(facts.size),
  pages: facts => facts.pages === undefined ? '' : `${facts.pages} ${facts.pages === 1 ? 'page' : 'pages'}`,
  name: facts => facts.fileName,
}

/** The placeholders a note may hold. */
export const PLACEHOLDER_NAMES = Object.keys(PLACEHOLDERS)

/**
 * Fills `{type}`, `{size}`, `{pages}` and `{name}`. One that gives nothing goes with the comma before
 * it; one that does not exist is left as written, so that its owner sees it.
 */
export function fillPlaceholders(text: string, facts: TargetFacts | undefined): string {
  return text.replace(/(,\s*)?\{(\w+)\}/g, (whole, comma: string | undefined, name: string) => {
    const fill = Object.hasOwn(PLACEHOLDERS, name) ? PLACEHOLDERS[name] : undefined
    if (!fill || !facts) return whole
    const value = fill(facts)
    return value && (comma ?? '') + value
  }).replace(/^,\s*/, '')
}

/** What a click really does: a type that browsers must not show is saved whatever was asked for. */
export function effectiveAction(action: Action, facts: TargetFacts | undefined): Action {
  return facts && !opensInBrowser(facts.mediaType) ? 'save' : action
}
