import { formatSize } from '~~/core/files/size'
import type { FileItem, FoundFile } from '~~/core/files/fileItem'
import { counted, shortDate } from '~/composables/format'

export const COLUMN_KEYS = ['size', 'changed', 'used', 'downloads', 'added', 'pages', 'tags', 'folder'] as const
export type ColumnKey = (typeof COLUMN_KEYS)[number]
export const DEFAULT_COLUMNS: ColumnKey[] = ['size', 'changed', 'used', 'downloads']

export interface Column {
  words: string
  /** pixels */
  width: number
  numeric?: boolean
  /** the server's name for sorting by it */
  sort?: string
  /** largest or newest first at the first click */
  downFirst?: boolean
  text: (file: FoundFile, folderName: (id: string | null) => string) => string
}

const extentOf = ({ facts }: FileItem): string => {
  if (facts.pages !== undefined) return counted(facts.pages, 'page')
  if (facts.width !== undefined) return `${facts.width} × ${facts.height}`
  if (facts.seconds !== undefined) return minutes(facts.seconds)
  if (facts.sheets !== undefined) return counted(facts.sheets, 'sheet')
  return facts.entries !== undefined ? counted(facts.entries, 'file') : ''
}

/** `2:05`. */
export const minutes = (seconds: number) => `${Math.floor(seconds / 60)}:${String(Math.floor(seconds % 60)).padStart(2, '0')}`

export const COLUMNS: Record<ColumnKey, Column> = {
  size: { words: 'Size', width: 62, numeric: true, sort: 'size', downFirst: true, text: file => formatSize(file.size) },
  changed: { words: 'Changed', width: 66, sort: 'changed', downFirst: true, text: file => shortDate(file.changed) },
  used: { words: 'Used', width: 70, sort: 'used', downFirst: true, text: file => (file.uses ? counted(file.uses, 'place') : 'not used') },
  downloads: {
    words: 'Downloads',
    width: 80,
    numeric: true,
    sort: 'downloads',
    downFirst: true,
    text: file => (file.taken ?? file.downloads).toLocaleString(),
  },
  added: { words: 'Added', width: 66, sort: 'added', downFirst: true, text: file => shortDate(file.created) },
  pages: { words: 'Extent', width: 86, sort: 'pages', downFirst: true, text: extentOf },
  tags: { words: 'Tags', width: 120, sort: 'tags', text: file => file.tags.join(', ') },
  folder: { words: 'Folder', width: 110, text: (file, folderName) => folderName(file.folder) },
}

/** The chosen columns that a board of some width has room for beside the titles, in their order. */
export function columnsThatFit(chosen: readonly ColumnKey[], boardWidth: number): ColumnKey[] {
  const GAP = 10
  let room = boardWidth - 230
  return COLUMN_KEYS.filter(key => chosen.includes(key)).filter(key => {
    if (COLUMNS[key].width + GAP > room) return false
    room -= COLUMNS[key].width + GAP
    return true
  })
}
