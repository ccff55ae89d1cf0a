import { z } from 'zod'
import { placeSchema } from '../folders/folderItem'
import { deleteFileSchema, descriptionSchemas } from './fileItem'

const ids = z.array(z.string().min(1).max(40)).max(100_000, 'Choose at most 100,000 at a time.').default([])

/** Files and folders that are dealt with together. */
export const selectionSchema = z
  .object({ files: ids, folders: ids })
  .refine(({ files, folders }) => files.length + folders.length > 0, 'Choose a file or a folder first.')
export type Selection = z.infer<typeof selectionSchema>

/** What became of a selection: it may be nothing. */
export const dealtWithSchema = z.object({ files: z.array(z.string()), folders: z.array(z.string()) })

/** What went to the bin; `undo` where places were changed for that: with it they are as they were once all is restored. */
export const putInBinSchema = dealtWithSchema.extend({ undo: z.string().optional() })

/** What comes out of the bin. */
export const restoreSchema = selectionSchema.and(z.object({ undo: z.string().max(40).optional() }))

/** Where a selection goes. */
export const moveSchema = selectionSchema.and(
  z.object({
    to: placeSchema,
    /** in a folder with its own order: the file they go in front of; left out, to its end */
    before: z.string().max(40).optional(),
  }),
)
export type Move = z.infer<typeof moveSchema>

/** Where copies of a selection go. */
export const copySchema = selectionSchema.and(z.object({ to: placeSchema }))

export const orderSchema = z.object({ files: ids })

export const removeSchema = selectionSchema.and(deleteFileSchema)

/** Files and folders by the place they were in: moving each group back undoes a move. */
export const movedSchema = z.object({
  groups: z.array(z.object({ to: z.string().nullable(), files: z.array(z.string()), folders: z.array(z.string()) })),
  renamed: z.array(z.object({ from: z.string(), to: z.string() })),
  /** the folder's own order as it was, where it changed */ order: z.array(z.string()).nullable(),
})
export type Moved = z.infer<typeof movedSchema>

const { description, tags, picture, gate } = descriptionSchemas

/** What is said of one file. */
export const describedSchema = z.object({ id: z.string().max(40), description, tags, picture, gate })

/** What is said of many files: of all the same, or of each its own. */
export const describeSchema = z.object({
  files: ids,
  description,
  picture,
  gate,
  addTags: tags,
  removeTags: tags,
  each: z.array(describedSchema).max(100_000).default([]),
})
export type Describe = z.infer<typeof describeSchema>
export type Described = z.infer<typeof describedSchema>

/** Files of the bin that go for good; null: all of it. */
export const forGoodSchema = z.object({ files: ids.nullable() })

export const someFilesSchema = z.object({ files: ids })

/** Left out: all that could not be read. */
export const readAgainSchema = z.object({ files: z.array(z.string().max(40)).max(100_000).optional() })
