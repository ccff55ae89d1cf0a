import { mapBlocks } from '../page/blocks'
import type { Block, Inline, Mark, PlainBlock, SectionAttrs, Target } from '../page/schema'
import type { Speech } from '../language/speech'
import { fieldOf } from './catalogue'
import type { LiveEntry, Value } from './entry'
import { isFileKind, type Field } from './field'
import { sameAs } from './list'
import { longTextBlocks } from './longText'
import { sayValue, titleOf } from './values'

/** What a button or link of an entry leads to besides its fields: the entry's own page. */
export const OWN_PAGE = 'page'

/** An entry, as what is laid out for all entries is filled with it. */
export interface Filling {
  fields: Field[]
  entry: LiveEntry
  /** entries have pages of their own */
  paged: boolean
  /** title of a file that visitors may know of; undefined where there is none for them */
  fileTitle: (id: string) => string | undefined
  speech: Speech
}

type FieldTarget = Extract<Target, { kind: 'field' }>

/** What a field of an entry leads to; null where it is empty, or its file is not there for visitors. */
export function targetOfField(id: string, { fields, entry, paged, fileTitle }: Filling): Target | null {
  if (id === OWN_PAGE) return paged ? { kind: 'entry', id: entry.id } : null
  const field = fieldOf(fields, id)
  const value = entry.values[id]
  const first = Array.isArray(value) ? value[0] : value
  if (!field || typeof first !== 'string') return null
  switch (field.kind) {
    case 'file':
    case 'files':
    case 'picture':
    case 'pictures':
      return fileTitle(first) === undefined ? null : { kind: 'file', id: first }
    case 'link':
      return { kind: 'address', href: first }
    case 'email':
      return { kind: 'email', address: first }
    case 'phone':
      return { kind: 'phone', number: first }
    default:
      return null
  }
}

/** The value of a field, without files that are not there for visitors. */
function valueOf(field: Field, { entry, fileTitle }: Filling): Value | undefined {
  const value = entry.values[field.id]
  if (value === undefined || !isFileKind(field.kind)) return value
  const there = (Array.isArray(value) ? value : [value as string]).filter(id => fileTitle(id) !== undefined)
  return there.length ? (Array.isArray(value) ? there : there[0]) : undefined
}

/** Whether an entry has something in a field. */
const has = (id: string, filling: Filling): boolean => {
  if (id === OWN_PAGE) return filling.paged
  const field = fieldOf(filling.fields, id)
  return field !== undefined && valueOf(field, filling) !== undefined
}

/** An identity that stays the same for the same field: of links and pictures that are made of it. */
const placementFor = (field: string): string => `entry${field}00000`.slice(0, 16)

/** The words of a field where it stands in a line: files, addresses and numbers lead where they lead. */
function wordsOf(id: string, marks: Mark[], filling: Filling): Inline[] {
  const field = fieldOf(filling.fields, id)
  const value = field && valueOf(field, filling)
  if (!field || value === undefined) return []
  const led = marks.some(({ type }) => type === 'downloadLink')
  const target = led ? null : targetOfField(id, filling)
  const text = isFileKind(field.kind)
    ? (filling.fileTitle((Array.isArray(value) ? value[0] : value) as string) ?? '')
    : sayValue(field, value, filling.speech)
  if (!text) return []
  const link: Mark[] = target
    ? [
        {
          type: 'downloadLink',
          attrs: { placement: placementFor(id), target, action: target.kind === 'file' ? 'tab' : 'here', saveAs: '' },
        },
      ]
    : []
  const all = [...marks, ...link]
  return [{ type: 'text', text, ...(all.length && { marks: all }) }]
}

/** What stands for fields in lines of words: those of an entry, or of the whole site. */
type FieldInline = Extract<Inline, { type: 'field' | 'siteValue' }>
type Named = FieldInline['type']
const isNamed =
  (named: Named) =>
  (inline: Inline | undefined): inline is FieldInline =>
    inline?.type === named
const fieldsNamed = (content: Inline[] | undefined, named: Named): string[] =>
  (content ?? []).filter(isNamed(named)).map(({ attrs }) => attrs.field)

/** The field that a line consists of, where it is that alone. */
const soleField = (content: Inline[] | undefined, fields: Field[], named: Named): Field | undefined => {
  const [only, ...more] = content ?? []
  return isNamed(named)(only) && !more.length ? fieldOf(fields, only.attrs.field) : undefined
}

/** Blocks that stand for the value of a field by themselves: long texts, pictures, several files. */
function blocksFor(field: Field, filling: Filling): PlainBlock[] | undefined {
  const value = valueOf(field, filling)
  const placement = placementFor(field.id)
  if (field.kind === 'longText') return typeof value === 'string' ? longTextBlocks(value, placement) : []
  if (field.kind === 'picture') {
    if (typeof value !== 'string') return []
    const alt = titleOf(filling.entry.values)
    return [
      {
        type: 'picture',
        attrs: {
          placement,
          file: value,
          alt,
          decorative: false,
          caption: '',
          size: 'text',
          align: 'middle',
          target: null,
          action: 'tab',
          saveAs: '',
        },
      },
    ]
  }
  if (field.kind === 'files' || field.kind === 'pictures') {
    if (!Array.isArray(value)) return []
    return [
      {
        type: 'shelf',
        attrs: {
          placement,
          source: { kind: 'files', ids: value },
          action: 'tab',
          pick: false,
          zipName: '',
          ...(field.kind === 'pictures' && { layout: 'pictures' as const }),
        },
      },
    ]
  }
  return undefined
}

function fillInline(inline: Inline, filling: Filling, fills: Named): Inline[] {
  if (inline.type === 'hardBreak' || ((inline.type === 'field' || inline.type === 'siteValue') && inline.type !== fills)) return [inline]
  const marks = (inline.marks ?? []).flatMap((mark): Mark[] => {
    if (mark.type !== 'downloadLink' || mark.attrs.target?.kind !== 'field' || fills !== 'field') return [mark]
    const target = targetOfField(mark.attrs.target.field, filling)
    return target ? [{ ...mark, attrs: { ...mark.attrs, target } }] : []
  })
  if (inline.type !== 'text') return wordsOf(inline.attrs.field, marks, filling)
  const { marks: _, ...bare } = inline
  return [marks.length ? { ...bare, marks } : bare]
}

function fillLine(block: Extract<Block, { type: 'paragraph' | 'heading' }>, filling: Filling, fills: Named): Block[] {
  const sole = block.type === 'paragraph' ? soleField(block.content, filling.fields, fills) : undefined
  const standing = sole && blocksFor(sole, filling)
  if (standing) return standing
  const named = fieldsNamed(block.content, fills)
  // A line that says what an entry does not have says nothing.
  if (named.length && !named.some(id => has(id, filling))) return []
  return [block.content ? { ...block, content: joined(block.content.flatMap(inline => fillInline(inline, filling, fills))) } : block]
}

/** What stands between two facts of a line. */
export const BETWEEN = ' · '
const isBetween = (inline: Inline | undefined) => inline?.type === 'text' && inline.text === BETWEEN

/** A line whose facts are parted once, however many between them are empty. */
function joined(inlines: Inline[]): Inline[] {
  const once = inlines.filter((inline, at) => !isBetween(inline) || (at > 0 && !isBetween(inlines[at - 1])))
  return isBetween(once.at(-1)) ? once.slice(0, -1) : once
}

/** The words that stand in the place of what an entry does not have. */
const instead = ({ without }: FieldTarget): Block[] => (without ? [{ type: 'paragraph', content: [{ type: 'text', text: without }] }] : [])

const isThereFor = ({ onlyIf, onlyFor }: SectionAttrs, filling: Filling): boolean =>
  (!onlyIf || has(onlyIf, filling)) && (!onlyFor?.length || onlyFor.includes(filling.entry.id))

function fillBlock(block: Block, filling: Filling): Block[] {
  switch (block.type) {
    case 'paragraph':
    case 'heading':
      return fillLine(block, filling, 'field')
    case 'downloadButton':
    case 'fileCard': {
      if (block.attrs.target?.kind !== 'field') return [block]
      const target = targetOfField(block.attrs.target.field, filling)
      return target ? [{ ...block, attrs: { ...block.attrs, target } } as Block] : instead(block.attrs.target)
    }
    case 'picture': {
      const { field, target, alt } = block.attrs
      const led = target?.kind === 'field' ? targetOfField(target.field, filling) : target
      if (!field) return [{ ...block, attrs: { ...block.attrs, target: led } }]
      const shown = targetOfField(field, filling)
      return shown?.kind === 'file'
        ? [{ ...block, attrs: { ...block.attrs, file: shown.id, alt: alt || titleOf(filling.entry.values), target: led } }]
        : []
    }
    case 'section':
      return isThereFor(block.attrs, filling) ? [block] : []
    case 'entryList':
      return [{ ...block, attrs: { ...block.attrs, only: sameAs(block.attrs.only, filling.entry) }, but: filling.entry.id }]
    default:
      return [block]
  }
}

type TableBlock = Extract<Block, { type: 'table' }>
const fieldsIn = (row: TableBlock['content'][number], fills: Named): string[] =>
  row.content.flatMap(({ content }) => content.flatMap(line => fieldsNamed(line.content, fills)))

/** A table without the rows that would say what an entry does not have. */
function withoutEmptyRows(table: TableBlock, filling: Filling, fills: Named): Block[] {
  const content = table.content.filter(row => {
    const named = fieldsIn(row, fills)
    return !named.length || named.some(id => has(id, filling))
  })
  return content.length ? [{ ...table, content }] : []
}

const notInLists = (block: Block) => block.type !== 'entryList'

/**
 * What is laid out once for all entries of a catalogue, filled with one of them: fields say their values, buttons lead where they hold,
 * and what leans on an empty field goes.
 */
export function fillBlocks(blocks: Block[], filling: Filling): Block[] {
  const there = mapBlocks(blocks, block => (block.type === 'table' ? withoutEmptyRows(block, filling, 'field') : [block]), notInLists)
  return mapBlocks(there, block => fillBlock(block, filling), notInLists)
}

/** Whether a page names values of the whole site. */
export const namesSiteValues = (document: { content: Block[] }): boolean => JSON.stringify(document).includes('"type":"siteValue"')

/** What is laid out, with the values of the whole site where they are named; a line that says nothing but empty ones goes. */
export function fillSiteValues(blocks: Block[], filling: Filling): Block[] {
  const there = mapBlocks(blocks, block => (block.type === 'table' ? withoutEmptyRows(block, filling, 'siteValue') : [block]))
  return mapBlocks(there, block =>
    block.type === 'paragraph' || block.type === 'heading' ? fillLine(block, filling, 'siteValue') : [block],
  )
}
