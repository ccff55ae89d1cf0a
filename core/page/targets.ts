import { everyBlock, mapBlocks } from './tree'
import type { Action, Block, Inline, Mark, PageDocument, Reference, ShelfAttrs, ShelfSource, Target } from './schema'

export type PlacementKind = 'button' | 'link' | 'shelf'

/** One button, link or shelf on a page, with the words it is known by. */
export interface Placement {
  id: string
  kind: PlacementKind
  /** what a visitor reads; empty for a shelf, which shows the titles of its files */
  label: string
  /** what it leads to; several for a shelf of chosen files, none where nothing was chosen yet */
  targets: Reference[]
  action: Action
  saveAs: string
}

const inlinesOf = (block: Block): Inline[] => block.type === 'paragraph' || block.type === 'heading' ? block.content ?? [] : []

const listed = (target: Target | null): Reference[] => target ? [target] : []

function referencesOf(source: ShelfSource | null): Reference[] {
  if (source?.kind === 'folder') return [{ kind: 'folder', id: source.id }]
  return (source?.ids ?? []).map(id => ({ kind: 'file', id }))
}

/** The placement that a block is itself. */
function placedBlock(block: Block): Placement | undefined {
  if (block.type === 'downloadButton') {
    const { placement: id, label, target, action, saveAs } = block.attrs
    return { id, kind: 'button', label, targets: listed(target), action, saveAs }
  }
  if (block.type === 'shelf') {
    const { placement: id, source, action } = block.attrs
    return { id, kind: 'shelf', label: '', targets: referencesOf(source), action, saveAs: '' }
  }
  return undefined
}

/** All placements of a page; a link over several pieces of text is one. */
export function placementsOf(document: PageDocument): Placement[] {
  const found = new Map<string, Placement>()
  for (const block of everyBlock(document)) {
    const placed = placedBlock(block)
    if (placed) found.set(placed.id, placed)
    for (const inline of inlinesOf(block)) {
      if (inline.type !== 'text') continue
      for (const mark of inline.marks ?? []) {
        if (mark.type !== 'downloadLink') continue
        const { placement, target, action, saveAs } = mark.attrs
        const earlier = found.get(placement)
        found.set(placement, { id: placement, kind: 'link', label: (earlier?.label ?? '') + inline.text, targets: listed(target), action, saveAs })
      }
    }
  }
  return [...found.values()]
}

type Decide = (target: Target | null, placement: string) => Target | null | 'remove'

/** A shelf with each file of it decided anew; taken off where nothing is left of what it had. */
function mapShelf({ source, placement }: ShelfAttrs, decide: Decide, goneFolder?: string): ShelfSource | null | 'remove' {
  if (source?.kind === 'folder' && source.id === goneFolder) return 'remove'
  if (source?.kind !== 'files') return source
  const ids = source.ids.flatMap((id) => {
    const target = decide({ kind: 'file', id }, placement)
    return target && target !== 'remove' ? [target.id] : []
  })
  return source.ids.length && !ids.length ? 'remove' : { kind: 'files', ids: [...new Set(ids)] }
}

/**
 * The document with the target of every placement decided anew: the same or another target keeps the
 * placement, `'remove'` takes a button off, or a file off its shelf, and leaves a link's words as plain text. Shelves of `goneFolder` are taken off.
 */
export function mapTargets(document: PageDocument, decide: Decide, goneFolder?: string): PageDocument {
  const mapInline = (inline: Inline): Inline => {
    if (inline.type !== 'text' || !inline.marks) return inline
    const marks = inline.marks.flatMap((mark): Mark[] => {
      if (mark.type !== 'downloadLink') return [mark]
      const target = decide(mark.attrs.target, mark.attrs.placement)
      return target === 'remove' ? [] : [{ ...mark, attrs: { ...mark.attrs, target } }]
    })
    const { marks: _, ...bare } = inline
    return marks.length ? { ...bare, marks } : bare
  }
  const content = mapBlocks(document.content, (block): Block[] => {
    if (block.type === 'downloadButton') {
      const target = decide(block.attrs.target, block.attrs.placement)
      return target === 'remove' ? [] : [{ ...block, attrs: { ...block.attrs, target } }]
    }
    if (block.type === 'shelf') {
      const source = mapShelf(block.attrs, decide, goneFolder)
      return source === 'remove' ? [] : [{ ...block, attrs: { ...block.attrs, source } }]
    }
    return (block.type === 'paragraph' || block.type === 'heading') && block.content ? [{ ...block, content: block.content.map(mapInline) }] : [block]
  })
  return { type: 'doc', content: content.length ? content : [{ type: 'paragraph' }] }
}

/** All shelves of a page. */
export const shelvesIn = (document: PageDocument): ShelfAttrs[] =>
  [...everyBlock(document)].flatMap(block => block.type === 'shelf' ? [block.attrs] : [])

/** Every file and folder a page leans on. */
export const referencesIn = (document: PageDocument): Reference[] => placementsOf(document).flatMap(({ targets }) => targets)

/** The files among references. */
export const fileIds = (references: Reference[]): string[] => [...new Set(references.flatMap(({ kind, id }) => kind === 'file' ? [id] : []))]
/** The folders among references. */
export const folderIds = (references: Reference[]): string[] => [...new Set(references.flatMap(({ kind, id }) => kind === 'folder' ? [id] : []))]
