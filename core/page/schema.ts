import { z } from 'zod'
import { fieldIdSchema } from '../catalogue/field'
import { listAttrsSchema } from '../catalogue/listAttrs'
import type { Shown as ShownEntries } from '../catalogue/shown'
import { letterboxAttrsSchema } from '../letterbox/letterbox'
import { overridesSchema } from '../look/appearance'
import { lookIdSchema } from '../look/look'
import { TONES } from '../look/palette'
import { shelfLookIdSchema } from '../shelf/shelfLook'
import { shelfSourceSchema } from '../shelf/shelfSource'
import { LAYOUTS, ownShownSchema } from '../shelf/shown'
import { addressSchema, emailSchema, phoneSchema } from './outsideTargets'

/** What a button or link leads to, by identity: addresses are written when the page is rendered. */
const idSchema = z.string().max(40)

export const targetSchema = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('file'), id: idSchema }),
  z.object({ kind: z.literal('page'), id: idSchema }),
  z.object({ kind: z.literal('signpost'), id: idSchema }),
  z.object({ kind: z.literal('address'), href: addressSchema }),
  z.object({ kind: z.literal('email'), address: emailSchema }),
  z.object({ kind: z.literal('phone'), number: phoneSchema }),
  /** the page of an entry of a catalogue */
  z.object({ kind: z.literal('entry'), id: idSchema }),
  /** what an entry holds in a field, where something is laid out for all of them; `without` is said where it holds nothing */
  z.object({ kind: z.literal('field'), field: fieldIdSchema, without: z.string().max(200).optional() }),
])
export type Target = z.infer<typeof targetSchema>
/** What takes the place of a target everywhere; nothing does where its places are to be taken off. */
export const replaceSchema = z.object({ from: targetSchema, to: targetSchema.nullable() })
/**
 * What a page leans on: the targets of its buttons and links, the folders its shelves list, or, where they ask all of it, the library, and
 * the catalogues whose entries it lists.
 */
export type Reference = Target | { kind: 'folder'; id: string } | { kind: 'library' } | { kind: 'catalogue'; id: string }

/** What on a page leads to something or shows it. */
export const placementKindSchema = z.enum(['button', 'link', 'shelf', 'card', 'picture', 'list'])
export type PlacementKind = z.infer<typeof placementKindSchema>

/** What a click does: opens in a new tab, opens in place of the page, saves to disk, or shows what is in it first. */
export const ACTIONS = ['tab', 'here', 'save', 'see'] as const
export const actionSchema = z.enum(ACTIONS)
export type Action = z.infer<typeof actionSchema>

export const ALIGNMENTS = ['left', 'middle', 'right'] as const

/** The identity of a button or link on a page; it also stands in addresses as `?at=`. */
export const placementIdSchema = z.string().regex(/^[a-z0-9]{6,16}$/)

const linkAttrs = {
  placement: placementIdSchema,
  target: targetSchema.nullable(),
  action: actionSchema,
  /** the name it is saved under; empty for the file's own name */
  saveAs: z.string().max(200),
}

export const downloadLinkSchema = z.object({ type: z.literal('downloadLink'), attrs: z.object(linkAttrs) })

export const shelfAttrsSchema = z.object({
  placement: placementIdSchema,
  source: shelfSourceSchema.nullable(),
  action: actionSchema,
  /** visitors may take several files as one zip */
  pick: z.boolean(),
  /** the name of that zip; empty for one made from the folder's name */
  zipName: z.string().max(200),
  /** how its files stand; left out, as its look says, or one below the other */
  layout: z.enum(LAYOUTS).optional(),
  /** identity of the saved way it shows files in */
  look: shelfLookIdSchema.nullish(),
  /** what it has otherwise than its look, or than is usual for its layout */
  shown: ownShownSchema.omit({ layout: true }).nullish(),
  /** a field above it looks through its files */
  search: z.boolean().optional(),
})
export type ShelfAttrs = z.infer<typeof shelfAttrsSchema>
export const shelfSchema = z.object({ type: z.literal('shelf'), attrs: shelfAttrsSchema })

export const searchAttrsSchema = z.object({
  /** downloads of what was found by it are counted here */
  placement: placementIdSchema,
  /** what the field says of itself; empty for the site's own words */
  label: z.string().max(200),
  /** identities of folders that are looked through with those below them; none for all that visitors may find */
  folders: z.array(idSchema).max(50, 'Keep it to 50 folders.'),
})
export type SearchAttrs = z.infer<typeof searchAttrsSchema>
/** A field in which visitors look for files. */
export const searchSchema = z.object({ type: z.literal('search'), attrs: searchAttrsSchema })

export const privacyAttrsSchema = z.object({ placement: placementIdSchema })
export type PrivacyAttrs = z.infer<typeof privacyAttrsSchema>
/** What the site says of what it keeps of its visitors, made from what it does keep. */
export const privacySchema = z.object({ type: z.literal('privacy'), attrs: privacyAttrsSchema })

/** Where visitors hand files in. */
export const letterboxSchema = z.object({ type: z.literal('letterbox'), attrs: letterboxAttrsSchema })

const markSchema = z.discriminatedUnion('type', [
  z.object({ type: z.literal('bold') }),
  z.object({ type: z.literal('italic') }),
  downloadLinkSchema,
])
export type Mark = z.infer<typeof markSchema>

const textSchema = z.object({ type: z.literal('text'), text: z.string().min(1).max(20_000), marks: z.array(markSchema).max(8).optional() })
/** What an entry has in a field, in a line of words. */
const fieldInlineSchema = z.object({
  type: z.literal('field'),
  attrs: z.object({ field: fieldIdSchema }),
  marks: z.array(markSchema).max(8).optional(),
})
/** A value of the whole site, in a line of words. */
const siteValueSchema = z.object({
  type: z.literal('siteValue'),
  attrs: z.object({ field: fieldIdSchema }),
  marks: fieldInlineSchema.shape.marks,
})
const inlineSchema = z.discriminatedUnion('type', [
  textSchema,
  z.object({ type: z.literal('hardBreak') }),
  fieldInlineSchema,
  siteValueSchema,
])
export type Inline = z.infer<typeof inlineSchema>

export const buttonAttrsSchema = z.object({
  ...linkAttrs,
  label: z.string().max(200),
  /** the small second line, with placeholders such as {type} and {size} */
  note: z.string().max(200),
  look: lookIdSchema,
  /** what this button has otherwise than its look */
  own: overridesSchema.nullable().optional(),
  align: z.enum(ALIGNMENTS),
})
export type ButtonAttrs = z.infer<typeof buttonAttrsSchema>
export const downloadButtonSchema = z.object({ type: z.literal('downloadButton'), attrs: buttonAttrsSchema })

/** A file with its picture, what it is, and its button. */
export const cardAttrsSchema = buttonAttrsSchema.extend({
  /** empty for the file's own */
  title: z.string().max(200),
  /** empty for the file's description */
  text: z.string().max(1000),
  /** its picture or first page is shown */
  pictured: z.boolean(),
})
export type CardAttrs = z.infer<typeof cardAttrsSchema>
export const fileCardSchema = z.object({ type: z.literal('fileCard'), attrs: cardAttrsSchema })

export const PICTURE_SIZES = ['small', 'half', 'text', 'wide'] as const
/** A picture of the library, which may lead somewhere. */
export const pictureAttrsSchema = z.object({
  ...linkAttrs,
  /** identity of the picture's file */
  file: idSchema.nullable(),
  /** the field whose picture it shows, where it is laid out for all entries of a catalogue */
  field: fieldIdSchema.nullish(),
  /** what it shows, for those who do not see it (WCAG 2.2, 1.1.1) */
  alt: z.string().max(300),
  /** it says nothing that the text does not: left out for those who do not see it */
  decorative: z.boolean(),
  caption: z.string().max(300),
  size: z.enum(PICTURE_SIZES),
  align: z.enum(ALIGNMENTS),
})
export type PictureAttrs = z.infer<typeof pictureAttrsSchema>
export const pictureSchema = z.object({ type: z.literal('picture'), attrs: pictureAttrsSchema })

/** what belongs there, as long as nothing is written there: visitors do not get it */
const ghostSchema = z.string().max(300).optional()
const paragraphSchema = z.object({
  type: z.literal('paragraph'),
  attrs: z.object({ ghost: ghostSchema }).optional(),
  content: z.array(inlineSchema).optional(),
})
const headingSchema = z.object({
  type: z.literal('heading'),
  // The page's title is its one h1.
  attrs: z.object({ level: z.union([z.literal(2), z.literal(3), z.literal(4)]), ghost: ghostSchema }),
  content: z.array(inlineSchema).optional(),
})
const quoteSchema = z.object({ type: z.literal('blockquote'), content: z.array(paragraphSchema).min(1) })
const dividerSchema = z.object({ type: z.literal('horizontalRule') })

export const SPACES = ['small', 'medium', 'large'] as const
const spaceSchema = z.object({ type: z.literal('space'), attrs: z.object({ size: z.enum(SPACES) }) })

/** Buttons side by side, as far as there is room. */
export const MOST_IN_ROW = 12
const buttonRowSchema = z.object({
  type: z.literal('buttonRow'),
  attrs: z.object({ align: z.enum(ALIGNMENTS) }),
  content: z.array(downloadButtonSchema).max(MOST_IN_ROW, `Keep a row to ${MOST_IN_ROW} buttons.`).optional(),
})

export const MOST_COLUMNS = 20
export const MOST_ROWS = 300
const spanSchema = z.number().int().min(1).max(MOST_ROWS)
const cellSchema = z.object({
  type: z.enum(['tableCell', 'tableHeader']),
  attrs: z.object({ colspan: spanSchema, rowspan: spanSchema }).optional(),
  content: z.array(paragraphSchema).min(1),
})
const tableRowSchema = z.object({
  type: z.literal('tableRow'),
  content: z.array(cellSchema).max(MOST_COLUMNS, `Keep a table to ${MOST_COLUMNS} columns.`),
})
const tableSchema = z.object({
  type: z.literal('table'),
  content: z.array(tableRowSchema).min(1).max(MOST_ROWS, `Keep a table to ${MOST_ROWS} rows.`),
})
export type TableBlock = z.infer<typeof tableSchema>

const listItemSchema = z.object({
  type: z.literal('listItem'),
  get content(): z.ZodArray<typeof plainBlockSchema> {
    return z.array(plainBlockSchema).min(1)
  },
})
const bulletListSchema = z.object({ type: z.literal('bulletList'), content: z.array(listItemSchema).min(1) })
const orderedListSchema = z.object({
  type: z.literal('orderedList'),
  attrs: z.object({ start: z.number().int() }).optional(),
  content: z.array(listItemSchema).min(1),
})
/** What may stand anywhere on a page. */
const plainBlockSchema = z.discriminatedUnion('type', [
  paragraphSchema,
  headingSchema,
  bulletListSchema,
  orderedListSchema,
  quoteSchema,
  tableSchema,
  dividerSchema,
  spaceSchema,
  downloadButtonSchema,
  buttonRowSchema,
  shelfSchema,
  searchSchema,
  letterboxSchema,
  privacySchema,
  fileCardSchema,
  pictureSchema,
])

/** The entries of a catalogue, each as it is laid out in it once. */
const entryListSchema = z.object({
  type: z.literal('entryList'),
  attrs: listAttrsSchema,
  content: z.array(plainBlockSchema).min(1),
})
/** A list of entries: as it is written, and, where visitors get it, filled with them. */
export type EntryListBlock = z.infer<typeof entryListSchema> & {
  /** the entry on whose page it stands: it lists the others */
  but?: string
  shown?: ShownEntries<Block>
}

export type PlainBlock = z.infer<typeof plainBlockSchema>

const columnSchema = z.object({ type: z.literal('column'), content: z.array(plainBlockSchema).min(1) })
/** Side by side where there is room, one below the other on a phone. */
/** Which of two columns takes two thirds. */
export const SHARES = ['even', 'first', 'last'] as const
const columnsSchema = z.object({
  type: z.literal('columns'),
  attrs: z.object({ share: z.enum(SHARES) }).optional(),
  content: z.array(columnSchema).min(2).max(4),
})

const foldTitleSchema = z.object({
  type: z.literal('foldTitle'),
  content: z.array(z.object({ type: z.literal('text'), text: z.string().min(1).max(500) })).optional(),
})
/** A question, and what is shown of it once it is pressed. */
const foldSchema = z.object({ type: z.literal('fold'), content: z.tuple([foldTitleSchema, plainBlockSchema], plainBlockSchema) })
export type FoldBlock = z.infer<typeof foldSchema>

export const WIDTHS = ['text', 'wide'] as const
export const sectionAttrsSchema = z.object({
  /** its background */
  tone: z.enum(TONES),
  /** room above and below */
  padding: z.enum(SPACES),
  /** as wide as text is best read, or wider */
  width: z.enum(WIDTHS),
  /** identity of the picture behind it; the page leans on it by the placement */
  picture: idSchema.nullish(),
  placement: placementIdSchema.nullish(),
  /** percent of the background's colour over the picture, so that words stand out */
  veil: z.number().int().min(0).max(100).nullish(),
  /** it is there for entries that have something in this field */
  onlyIf: fieldIdSchema.nullish(),
  /** it is there for these entries alone, by their identities */
  onlyFor: z.array(idSchema).max(50, 'Name fifty entries at most, or lay it out by a field.').nullish(),
})
export type SectionAttrs = z.infer<typeof sectionAttrsSchema>
const sectionSchema = z.object({
  type: z.literal('section'),
  attrs: sectionAttrsSchema,
  content: z.array(z.discriminatedUnion('type', [...plainBlockSchema.options, columnsSchema, foldSchema, entryListSchema])).min(1),
})

export type SectionBlock = z.infer<typeof sectionSchema>

const blockSchema = z.discriminatedUnion('type', [...plainBlockSchema.options, columnsSchema, foldSchema, sectionSchema, entryListSchema])
export type Block = Exclude<z.infer<typeof blockSchema>, { type: 'entryList' }> | EntryListBlock

/** A page's document; the editor and the renderer share it. */
export const pageDocumentSchema = z.object({ type: z.literal('doc'), content: z.array(blockSchema).min(1).max(5000) })
export type PageDocument = z.infer<typeof pageDocumentSchema>

/** A document that was saved. What an earlier version of Trough let through may be refused today; it is read all the same. */
export const savedDocumentSchema = z.custom<PageDocument>(value => z.object({ type: z.literal('doc') }).safeParse(value).success)

export const emptyDocument = (): PageDocument => ({ type: 'doc', content: [{ type: 'paragraph' }] })
