import { z } from 'zod'
import { handleSchema } from './handle'
import type { Family } from './mediaType'

/** A file as the desk's API gives it. */
export interface FileItem {
  id: string
  title: string
  handle: string
  /** the folder it lies in; null at the top of the library */
  folder: string | null
  /** number of the current edition; the fields below are its own */
  edition: number
  fileName: string
  mediaType: string
  /** short name of the type, such as PDF */
  tag: string
  family: Family
  /** bytes */
  size: number
  sha256: string
  /** eight hexadecimal digits */
  crc32: string
  pages?: number
  width?: number
  height?: number
  preview: 'waiting' | 'ready' | 'none' | 'failed'
  previewError: string | null
  /** ISO 8601 */
  created: string
  changed: string
  deleted: string | null
  /** what the owner should know, a sentence each */
  remarks: string[]
  /** buttons and links that lead to it, drafts and live pages taken together */
  uses: number
  /** completed downloads */
  downloads: number
}

/** One button or link that leads to a file. */
export interface FileUse {
  pageId: string
  pageTitle: string
  slug: string
  placement: string
  kind: 'button' | 'link'
  label: string
  draft: boolean
  live: boolean
}

export const FILE_SORTS = ['newest', 'oldest', 'title', 'size', 'used'] as const

export const fileQuerySchema = z.object({
  folder: z.string().max(40).optional(),
  /** part of a title, file name or handle */
  q: z.string().trim().max(200).optional(),
  /** a media type, or a family such as "picture" */
  type: z.string().max(100).optional(),
  sort: z.enum(FILE_SORTS, 'Sort by newest, oldest, title, size or used.').default('newest'),
  from: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(200),
  /** files in the bin instead of the others */
  bin: z.enum(['true', 'false']).default('false').transform(value => value === 'true'),
})
export type FileQuery = z.infer<typeof fileQuerySchema>

export const fileChangeSchema = z.object({
  title: z.string().trim().min(1, 'Give the file a title.').max(200, 'Keep the title to 200 characters.').optional(),
  handle: handleSchema.optional(),
})
export type FileChange = z.infer<typeof fileChangeSchema>

/** What to do with the places that use a file when it is deleted. */
export const deleteFileSchema = z.object({
  /** put another file in its place */
  replaceBy: z.string().max(40).optional(),
  /** take its buttons off and leave its links as plain words */
  takeOff: z.boolean().optional(),
  /** delete all the same */
  despite: z.boolean().optional(),
})
export type DeleteFile = z.infer<typeof deleteFileSchema>
