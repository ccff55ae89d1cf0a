import { z } from 'zod'
import { diffArrays } from 'diff'
import { canonical } from '../canonical'
import { cut } from '../cut'
import { savedDocumentSchema, type Block, type ButtonAttrs } from './schema'
import { childrenOf, textOf, questionOf } from './blocks'

/** A page as it is read: what a version holds. */
export const pageTextSchema = z.object({
  title: z.string(),
  document: savedDocumentSchema,
})
export type PageText = z.infer<typeof pageTextSchema>

/** One thing that differs between two versions of a page, in words for its owner. */
export const pageChangeSchema = z.object({
  kind: z.enum(['added', 'removed', 'changed', 'moved']),
  what: z.string(),
})
export type PageChange = z.infer<typeof pageChangeSchema>

const LONGEST = 60
const BUTTON_WORDS: Partial<Record<keyof ButtonAttrs, string>> = {
  target: 'leads elsewhere',
  label: 'another label',
  note: 'another second line',
  action: 'another click',
  saveAs: 'saved under another name',
  look: 'another look',
  own: 'looks otherwise',
  align: 'another place',
}

function shortened(text: string): string {
  const line = text.replace(/\s+/g, ' ').trim()
  return line.length > LONGEST ? `${cut(line, LONGEST).trimEnd()}…` : line
}

function wordsFor(block: Block): string {
  switch (block.type) {
    case 'paragraph':
      return textOf(block.content).trim() ? `text “${shortened(textOf(block.content))}”` : 'an empty line'
    case 'heading':
      return `heading “${shortened(textOf(block.content))}”`
    case 'bulletList':
    case 'orderedList':
      return `list of ${block.content.length}`
    case 'downloadButton':
      return `button “${shortened(block.attrs.label) || 'without a label'}”`
    case 'shelf':
      return 'shelf'
    case 'search':
      return 'search field'
    case 'letterbox':
      return 'letterbox'
    case 'privacy':
      return 'privacy words'
    case 'fileCard':
      return `card “${shortened(block.attrs.title || block.attrs.label)}”`
    case 'picture':
      return block.attrs.alt ? `picture “${shortened(block.attrs.alt)}”` : 'picture'
    case 'blockquote':
      return 'quote'
    case 'table':
      return `table of ${block.content.length} ${block.content.length === 1 ? 'row' : 'rows'}`
    case 'horizontalRule':
      return 'divider'
    case 'space':
      return 'space'
    case 'buttonRow':
      return 'row of buttons'
    case 'columns':
      return `${block.content.length} columns`
    case 'fold':
      return `fold-out “${shortened(questionOf(block))}”`
    case 'section':
      return 'section'
    case 'entryList':
      return 'list of entries'
  }
}

const placementOf = (block: Block) => ('attrs' in block && block.attrs && 'placement' in block.attrs ? block.attrs.placement : undefined)

/** Whether two blocks are the same thing, changed. */
function isSame(before: Block, after: Block): boolean {
  if (before.type !== after.type) return false
  return placementOf(before) === placementOf(after)
}

/** A change of a block: of what lies in it where it only holds others. */
function changeOf(before: Block, after: Block): PageChange[] {
  const inside =
    childrenOf(after).length && before.type !== 'bulletList' && before.type !== 'orderedList'
      ? blockChanges(childrenOf(before), childrenOf(after))
      : []
  if (inside.length) return inside
  const differing =
    before.type === 'downloadButton' && after.type === 'downloadButton'
      ? Object.entries(BUTTON_WORDS)
          .filter(([name]) => keyOf(before.attrs[name as keyof ButtonAttrs]) !== keyOf(after.attrs[name as keyof ButtonAttrs]))
          .map(([, words]) => words)
      : []
  return [{ kind: 'changed', what: differing.length ? `${wordsFor(after)}: ${differing.join(', ')}` : wordsFor(after) }]
}

/** Pairs what went with what came in its place. */
function inPlace(gone: Block[], come: Block[]): PageChange[] {
  const left = [...gone]
  const changes = come.flatMap((block): PageChange[] => {
    const at = left.findIndex(before => isSame(before, block))
    return at < 0 ? [{ kind: 'added', what: wordsFor(block) }] : changeOf(left.splice(at, 1)[0]!, block)
  })
  return [...changes, ...left.map((block): PageChange => ({ kind: 'removed', what: wordsFor(block) }))]
}

/** A setting that is not written is one that is empty: older documents leave out what came later. */
const withoutEmpty = (value: unknown): unknown => {
  if (Array.isArray(value)) return value.map(withoutEmpty)
  if (typeof value !== 'object' || value === null) return value ?? undefined
  const parts = Object.entries(value).filter(
    ([name, inner]) =>
      inner !== null &&
      !(name === 'attrs' && isUsual(value as { type?: string }, inner as object)) &&
      !(name === 'content' && (inner as unknown[]).length === 0),
  )
  return Object.fromEntries(parts.map(([name, inner]) => [name, withoutEmpty(inner)]))
}

/** Settings that the editor writes and others leave out, for they say what is usual: a cell of one row and column, a list from 1. */
const USUAL: Record<string, Record<string, unknown>> = {
  tableCell: { colspan: 1, rowspan: 1 },
  tableHeader: { colspan: 1, rowspan: 1 },
  orderedList: { start: 1 },
}

function isUsual({ type = '' }: { type?: string }, attrs: object): boolean {
  const usual = USUAL[type]
  return usual !== undefined && Object.entries(attrs).every(([name, value]) => value === null || value === usual[name])
}
const keyOf = (value: unknown) => canonical(withoutEmpty(value))

function blockChanges(before: Block[], after: Block[]): PageChange[] {
  const keys = (blocks: Block[]) => blocks.map(block => keyOf(block)!)
  const parts = diffArrays(keys(before), keys(after))
  const read = (texts: string[]) => texts.map(text => JSON.parse(text) as Block)
  // What went here and came elsewhere was moved.
  const goneKeys = new Set(parts.flatMap(part => (part.removed ? part.value : [])))
  const moved = new Set(parts.flatMap(part => (part.added ? part.value.filter(key => goneKeys.has(key)) : [])))
  const kept = (texts: string[]) => read(texts.filter(key => !moved.has(key)))
  const changes = parts.flatMap((part, index): PageChange[] => {
    const next = parts[index + 1]
    if (part.removed) return inPlace(kept(part.value), next?.added ? kept(next.value) : [])
    return part.added && !parts[index - 1]?.removed ? inPlace([], kept(part.value)) : []
  })
  return [...changes, ...read([...moved]).map((block): PageChange => ({ kind: 'moved', what: wordsFor(block) }))]
}

/** What an owner would say has changed from one version of a page to the next; all of it where there was none before. */
export function changesBetween(before: PageText | undefined, after: PageText): PageChange[] {
  if (!before) return [{ kind: 'added', what: `the page “${after.title}”` }]
  const title: PageChange[] = before.title === after.title ? [] : [{ kind: 'changed', what: `title, now “${shortened(after.title)}”` }]
  return [...title, ...blockChanges(before.document.content, after.document.content)]
}
