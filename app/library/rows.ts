import type { FoundFile } from '~~/core/files/fileItem'
import type { FolderItem } from '~~/core/folders/folderItem'
import type { FileWindow } from '~/composables/fileWindow'

/** One line of the library board. */
export type Row =
  | { kind: 'folder'; folder: FolderItem; level: number }
  | { kind: 'file'; window: FileWindow; index: number; level: number }
  /** tiles beside each other: as many files from an index on */
  | { kind: 'tiles'; window: FileWindow; index: number; count: number }

/** Lines that follow each other: folders one by one, or the files of a list. */
export type Segment = { folder: FolderItem; level: number } | { window: FileWindow; level: number }

/** The lines of the board, as many as there are, without ever making them all. */
export class Rows {
  private readonly starts: number[] = []
  readonly count: number

  /** @param perRow tiles in a line; 0 where files are rows */
  constructor(
    readonly segments: Segment[],
    readonly perRow = 0,
  ) {
    let at = 0
    for (const segment of segments) {
      this.starts.push(at)
      at += this.lengthOf(segment)
    }
    this.count = at
  }

  private lengthOf(segment: Segment): number {
    if ('folder' in segment) return 1
    const { total } = segment.window.state
    return this.perRow ? Math.ceil(total / this.perRow) : total
  }

  at(row: number): Row | undefined {
    if (row < 0 || row >= this.count) return undefined
    let [low, high] = [0, this.starts.length - 1]
    while (low < high) {
      const middle = (low + high + 1) >> 1
      if (this.starts[middle]! <= row) low = middle
      else high = middle - 1
    }
    const segment = this.segments[low]!
    if ('folder' in segment) return { kind: 'folder', ...segment }
    const index = row - this.starts[low]!
    if (!this.perRow) return { kind: 'file', window: segment.window, index, level: segment.level }
    const first = index * this.perRow
    return { kind: 'tiles', window: segment.window, index: first, count: Math.min(this.perRow, segment.window.state.total - first) }
  }

  /** What stands in a line, where it is known. */
  fileAt(row: number): FoundFile | undefined {
    const found = this.at(row)
    return found?.kind === 'file' ? found.window.at(found.index) : undefined
  }

  /** Tells each list which of its files can be seen. */
  look(from: number, to: number): void {
    this.segments.forEach((segment, index) => {
      if ('folder' in segment) return
      const start = this.starts[index]!
      const [first, last] = [Math.max(0, from - start), Math.min(this.lengthOf(segment) - 1, to - start)]
      const tiles = this.perRow || 1
      if (last >= 0 && first <= last) segment.window.look(first * tiles, (last + 1) * tiles - 1)
    })
  }

  /** The folders and files from one line to another, those not held too. */
  async between(from: number, to: number): Promise<{ files: string[]; folders: string[] }> {
    const chosen = { files: [] as string[], folders: [] as string[] }
    for (const [index, segment] of this.segments.entries()) {
      const start = this.starts[index]!
      const end = start + this.lengthOf(segment) - 1
      if (end < from || start > to) continue
      if ('folder' in segment) {
        chosen.folders.push(segment.folder.id)
        continue
      }
      const tiles = this.perRow || 1
      const last = Math.min(segment.window.state.total - 1, (Math.min(to, end) - start + 1) * tiles - 1)
      chosen.files.push(...(await segment.window.idsBetween((Math.max(from, start) - start) * tiles, last)))
    }
    return chosen
  }
}
