import { everyBlock, inlinesOf, mapBlocks, textOf } from './blocks'
import { outsideAddress } from './outsideAddress'
import { asksForAnything, foldersOf, type ShelfSource } from '../shelf/shelfSource'
import { fillPictures, mapFillPictures } from '../look/fillPictures'
import type {
  Action,
  Block,
  ButtonAttrs,
  Inline,
  Mark,
  PageDocument,
  PlacementKind,
  Reference,
  SectionBlock,
  ShelfAttrs,
  Target,
} from './schema'

/** One button, link, shelf, card or picture on a page, with the words it is known by. */
export interface Placement {
  id: string
  kind: PlacementKind
  /** what a visitor reads; empty for a shelf, which shows the titles of its files */
  label: string
  /** the heading it stands under; empty above the first one */
  section: string
  /** what it leads to; several for a shelf of chosen files, none where nothing was chosen yet */
  targets: Reference[]
  /** identities of pictures behind the words of a button; it leads on without them */
  behind: string[]
  action: Action
  saveAs: string
}

const listed = (target: Target | null): Reference[] => (target ? [target] : [])

function referencesOf(source: ShelfSource | null): Reference[] {
  const files = source?.kind === 'files' ? source.ids : (source?.pinned ?? [])
  const all: Reference[] = source?.kind === 'found' && !source.folders.length && asksForAnything(source) ? [{ kind: 'library' }] : []
  return [
    ...all,
    ...foldersOf(source).map((id): Reference => ({ kind: 'folder', id })),
    ...files.map((id): Reference => ({ kind: 'file', id })),
  ]
}

/** The placement that a block is itself. */
function placedBlock(block: Block): Omit<Placement, 'section'> | undefined {
  if (block.type === 'downloadButton') {
    const { placement: id, label, target, action, saveAs } = block.attrs
    return { id, kind: 'button', label, targets: listed(target), behind: fillPictures(block.attrs.own ?? {}), action, saveAs }
  }
  if (block.type === 'fileCard') {
    const { placement: id, title, label, target, action, saveAs } = block.attrs
    return { id, kind: 'card', label: title || label, targets: listed(target), behind: fillPictures(block.attrs.own ?? {}), action, saveAs }
  }
  if (block.type === 'picture') {
    const { placement: id, file, field, alt, target, action, saveAs } = block.attrs
    // Without its file there is nothing to see, wherever it leads.
    return {
      id,
      kind: 'picture',
      label: alt,
      targets: file ? [{ kind: 'file', id: file }, ...listed(target)] : field ? [{ kind: 'field', field }, ...listed(target)] : [],
      behind: [],
      action,
      saveAs,
    }
  }
  if (block.type === 'section') {
    const { placement: id, picture } = block.attrs
    return id && picture
      ? { id, kind: 'picture', label: '', targets: [{ kind: 'file', id: picture }], behind: [], action: 'here', saveAs: '' }
      : undefined
  }
  if (block.type === 'entryList') {
    const { placement: id, catalogue } = block.attrs
    return {
      id,
      kind: 'list',
      label: '',
      targets: catalogue ? [{ kind: 'catalogue', id: catalogue }] : [],
      behind: [],
      action: 'here',
      saveAs: '',
    }
  }
  if (block.type === 'shelf') {
    const { placement: id, source, action } = block.attrs
    return { id, kind: 'shelf', label: '', targets: referencesOf(source), behind: [], action, saveAs: '' }
  }
  return undefined
}

/** Every placement as it comes: a link over several pieces of text is one for each, what is laid out for entries one for each of them. */
export function* placedIn(document: PageDocument): Generator<Placement> {
  let section = ''
  for (const block of everyBlock(document)) {
    if (block.type === 'heading') section = textOf(block.content).trim() || section
    const placed = placedBlock(block)
    if (placed) yield { ...placed, section }
    for (const inline of inlinesOf(block)) {
      if (inline.type === 'hardBreak') continue
      for (const mark of inline.marks ?? []) {
        if (mark.type !== 'downloadLink') continue
        const { placement: id, target, action, saveAs } = mark.attrs
        const label = inline.type === 'text' ? inline.text : ''
        yield { id, kind: 'link', label, section, targets: listed(target), behind: [], action, saveAs }
      }
    }
  }
}

/** All placements of a page; a link over several pieces of text is one. */
export function placementsOf(document: PageDocument): Placement[] {
  const found = new Map<string, Placement>()
  for (const placed of placedIn(document)) {
    const earlier = placed.kind === 'link' ? found.get(placed.id) : undefined
    found.set(placed.id, { ...placed, label: (earlier?.label ?? '') + placed.label })
  }
  return [...found.values()]
}

const holds = (block: Block, placement: string) => placementsOf({ type: 'doc', content: [block] }).some(({ id }) => id === placement)

/** The block that a placement is or stands in, with its section's background where it has one; undefined where the page has none. */
export function blockOf({ content }: PageDocument, placement: string): Block | undefined {
  const top = content.find(block => holds(block, placement))
  const within = top && [...everyBlock({ content: [top] })].findLast(block => holds(block, placement))
  return top?.type === 'section' && within && within !== top ? { ...top, content: [within] as typeof top.content } : within
}

/** @param shown it is not led to: a picture, one behind the words of a button, or a file that is listed on a shelf */
type Decide = (target: Target | null, placement: string, shown?: boolean) => Target | null | 'remove'

/** A shelf with each file of it decided anew; taken off where nothing is left of what it had. */
function mapShelf({ source, placement }: ShelfAttrs, decide: Decide, goneFolder?: string): ShelfSource | null | 'remove' {
  const decided = (ids: string[]) => [
    ...new Set(
      ids.flatMap(id => {
        const target = decide({ kind: 'file', id }, placement, true)
        return target && target !== 'remove' && target.kind === 'file' ? [target.id] : []
      }),
    ),
  ]
  if (!source) return source
  if (source.kind === 'files') {
    const ids = decided(source.ids)
    return source.ids.length && !ids.length ? 'remove' : { kind: 'files', ids }
  }
  if (source.kind === 'folder' && source.id === goneFolder) return 'remove'
  const kept = { ...source, ...(source.pinned && { pinned: decided(source.pinned) }) }
  if (kept.kind === 'folder' || !goneFolder || !kept.folders.includes(goneFolder)) return kept
  // What was asked of one folder must not be asked of the whole library in the end.
  const folders = kept.folders.filter(id => id !== goneFolder)
  return folders.length ? { ...kept, folders } : 'remove'
}

/** What a button has otherwise than its look, with the pictures behind its words decided anew. */
function mapOwn({ own, placement }: Pick<ButtonAttrs, 'own' | 'placement'>, decide: Decide): Pick<ButtonAttrs, 'own'> {
  if (!own || !fillPictures(own).length) return {}
  return {
    own: mapFillPictures(own, id => {
      const shown = decide({ kind: 'file', id }, placement, true)
      return shown && shown !== 'remove' && shown.kind === 'file' ? shown.id : undefined
    }),
  }
}

/** A picture with its file, and where it leads, decided anew; it goes with its file, and only leads nowhere without its target. */
function mapPicture(block: Extract<Block, { type: 'picture' }>, decide: Decide): Block[] {
  const { file, target, placement } = block.attrs
  const shown = file === null ? null : decide({ kind: 'file', id: file }, placement, true)
  if (shown === 'remove') return []
  const led = target && decide(target, placement)
  return [{ ...block, attrs: { ...block.attrs, file: shown?.kind === 'file' ? shown.id : null, target: led === 'remove' ? null : led } }]
}

/** A section with the picture behind it decided anew; it stays without. */
function mapSection(block: SectionBlock, decide: Decide): Block {
  const { picture, placement } = block.attrs
  if (!picture || !placement) return block
  const shown = decide({ kind: 'file', id: picture }, placement, true)
  return { ...block, attrs: { ...block.attrs, picture: shown && shown !== 'remove' && shown.kind === 'file' ? shown.id : null } }
}

/**
 * The document with the target of every placement decided anew: the same or another target keeps the
 * placement, `'remove'` takes a button off, or a file off its shelf, and leaves a link's words as plain text. Shelves of `goneFolder` are
 * taken off.
 */
export function mapTargets(document: PageDocument, decide: Decide, goneFolder?: string): PageDocument {
  const mapInline = (inline: Inline): Inline => {
    if (inline.type === 'hardBreak' || !inline.marks) return inline
    const marks = inline.marks.flatMap((mark): Mark[] => {
      if (mark.type !== 'downloadLink') return [mark]
      const target = decide(mark.attrs.target, mark.attrs.placement)
      return target === 'remove' ? [] : [{ ...mark, attrs: { ...mark.attrs, target } }]
    })
    const { marks: _, ...bare } = inline
    return marks.length ? { ...bare, marks } : bare
  }
  const content = mapBlocks(document.content, (block): Block[] => {
    if (block.type === 'downloadButton' || block.type === 'fileCard') {
      const target = decide(block.attrs.target, block.attrs.placement)
      return target === 'remove' ? [] : [{ ...block, attrs: { ...block.attrs, target, ...mapOwn(block.attrs, decide) } } as Block]
    }
    if (block.type === 'picture') return mapPicture(block, decide)
    if (block.type === 'section') return [mapSection(block, decide)]
    if (block.type === 'shelf') {
      const source = mapShelf(block.attrs, decide, goneFolder)
      return source === 'remove' ? [] : [{ ...block, attrs: { ...block.attrs, source } }]
    }
    return (block.type === 'paragraph' || block.type === 'heading') && block.content
      ? [{ ...block, content: block.content.map(mapInline) }]
      : [block]
  })
  return { type: 'doc', content: content.length ? content : [{ type: 'paragraph' }] }
}

/** The document with a placement leading to what it was waiting for; a picture that waits for its file shows it. */
export function giveTarget(document: PageDocument, placement: string, target: Target): PageDocument {
  const isPicture = (block: Block) => (block.type === 'picture' || block.type === 'section') && block.attrs.placement === placement
  if (![...everyBlock(document)].some(isPicture))
    return mapTargets(document, (old, id, shown) => (id === placement && !shown ? target : old))
  const content = mapBlocks(document.content, block => {
    if (!isPicture(block)) return [block]
    if (block.type === 'section') return [{ ...block, attrs: { ...block.attrs, ...(target.kind === 'file' && { picture: target.id }) } }]
    if (block.type !== 'picture') return [block]
    const shows = !block.attrs.file && target.kind === 'file'
    return [{ ...block, attrs: { ...block.attrs, ...(shows ? { file: target.id } : { target }) } }]
  })
  return { type: 'doc', content }
}

/** The document with a shelf listing what it was waiting for. */
export function giveShelf(document: PageDocument, placement: string, source: ShelfSource): PageDocument {
  const content = mapBlocks(document.content, block => [
    block.type === 'shelf' && block.attrs.placement === placement ? { ...block, attrs: { ...block.attrs, source } } : block,
  ])
  return { type: 'doc', content }
}

/** All shelves of a page. */
export const shelvesIn = (document: PageDocument): ShelfAttrs[] =>
  [...everyBlock(document)].flatMap(block => (block.type === 'shelf' ? [block.attrs] : []))

/** Every file and folder a page leans on. */
export const referencesIn = (document: PageDocument): Reference[] =>
  [...placedIn(document)].flatMap(({ targets, behind }) => [...targets, ...behind.map((id): Reference => ({ kind: 'file', id }))])

/** What a reference leads to, where it is something that buttons and links lead to. */
export const asTarget = (reference: Reference | undefined): Target | null =>
  !reference || reference.kind === 'folder' || reference.kind === 'library' || reference.kind === 'catalogue' ? null : reference

/** The identity of a thing of this site; undefined for one elsewhere. */
export const idOf = (reference: Reference | null | undefined): string | undefined =>
  reference && 'id' in reference ? reference.id : undefined

/**
 * What tells a target from others, be it of this site or elsewhere; equal for addresses and numbers that are the same however they are
 * written.
 */
export function keyOf(reference: Reference): string {
  return outsideAddress(reference) ?? `${reference.kind} ${reference.kind === 'field' ? reference.field : idOf(reference)}`
}

const idsOf = (references: Reference[], wanted: Reference['kind']): string[] => [
  ...new Set(references.flatMap(reference => (reference.kind === wanted ? (idOf(reference) ?? []) : []))),
]

/** The files among references. */
export const fileIds = (references: Reference[]): string[] => idsOf(references, 'file')
/** The folders among references. */
export const folderIds = (references: Reference[]): string[] => idsOf(references, 'folder')
/** The pages among references. */
export const pageIds = (references: Reference[]): string[] => idsOf(references, 'page')
/** The entries among references. */
export const entryIds = (references: Reference[]): string[] => idsOf(references, 'entry')
/** The signposts among references. */
export const signpostIds = (references: Reference[]): string[] => idsOf(references, 'signpost')
