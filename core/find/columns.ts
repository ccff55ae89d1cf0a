import type { FileItem } from '../files/fileItem'
import type { FileFilter } from '../files/query'

/** Numbers for texts that repeat, such as folders and types. */
class Codes {
  private readonly codes = new Map<string, number>()
  readonly texts: string[] = []

  of(text: string): number {
    let code = this.codes.get(text)
    if (code === undefined) {
      code = this.texts.push(text) - 1
      this.codes.set(text, code)
    }
    return code
  }

  /** The codes of some texts, marked. */
  marked(texts: ReadonlySet<string>): Uint8Array {
    const marks = new Uint8Array(this.texts.length)
    for (const text of texts) {
      const code = this.codes.get(text)
      if (code !== undefined) marks[code] = 1
    }
    return marks
  }

  /** Which codes are let through. */
  allowed(passes: (text: string) => boolean): Uint8Array {
    return Uint8Array.from(this.texts, text => Number(passes(text)))
  }
}

const TOP = ''
const grown = <T extends Uint8Array | Int32Array | Float64Array>(old: T, made: T): T => {
  made.set(old)
  return made
}

/** A day as the end means all of that day. */
const endOf = (moment: string) => Date.parse(moment) + (moment.length === 10 ? 86_400_000 - 1 : 0)

const [THERE, BINNED, USED, WAITS] = [1, 2, 4, 8]
const READING: Record<FileItem['reading'], number> = { waiting: 16, failed: 32, done: 0 }

/** What filters ask of files, side by side in plain arrays: a filter looks at 50,000 files within a few milliseconds. */
export class Columns {
  private readonly types = new Codes()
  private readonly folders = new Codes()
  private readonly contents = new Codes()
  private marks = new Uint8Array(1024)
  private type = new Int32Array(1024)
  private folder = new Int32Array(1024)
  private content = new Int32Array(1024)
  private size = new Float64Array(1024)
  private created = new Float64Array(1024)
  private changed = new Float64Array(1024)

  constructor(private readonly items: (FileItem | undefined)[]) {}

  private grow(): void {
    const room = this.marks.length * 2
    this.marks = grown(this.marks, new Uint8Array(room))
    this.type = grown(this.type, new Int32Array(room))
    this.folder = grown(this.folder, new Int32Array(room))
    this.content = grown(this.content, new Int32Array(room))
    this.size = grown(this.size, new Float64Array(room))
    this.created = grown(this.created, new Float64Array(room))
    this.changed = grown(this.changed, new Float64Array(room))
  }

  set(slot: number, item: FileItem | undefined): void {
    while (slot >= this.marks.length) this.grow()
    if (!item) {
      this.marks[slot] = 0
      return
    }
    this.marks[slot] =
      THERE | (item.deleted === null ? 0 : BINNED) | (item.uses ? USED : 0) | (item.waits ? WAITS : 0) | READING[item.reading]
    this.type[slot] = this.types.of(`${item.family} ${item.mediaType}`)
    this.folder[slot] = this.folders.of(item.folder ?? TOP)
    this.content[slot] = this.contents.of(item.sha256)
    this.size[slot] = item.size
    this.created[slot] = Date.parse(item.created)
    this.changed[slot] = Date.parse(item.changed)
  }

  /** Of some slots, those whose contents are among these. */
  holding(slots: number[], sha256: ReadonlySet<string>): number[] {
    const wanted = this.contents.marked(sha256)
    return slots.filter(slot => wanted[this.content[slot]!])
  }

  /** Which of the slots a filter lets through, in their order; words are not looked at. */
  through(filter: FileFilter, order: number[], folders: ReadonlySet<string | null> | undefined): number[] {
    let [mask, wanted] = [THERE | BINNED, filter.bin ? THERE | BINNED : THERE]
    const ask = (mark: number, set: boolean) => {
      mask |= mark
      if (set) wanted |= mark
    }
    if (filter.used) ask(USED, filter.used === 'yes')
    if (filter.waits) ask(WAITS, true)
    if (filter.reading) ask(READING[filter.reading], true)
    const types = filter.type.length ? this.types.allowed(text => filter.type.some(type => text.split(' ').includes(type))) : undefined
    const places = folders && this.folders.allowed(text => folders.has(text === TOP ? null : text))
    const [least, most] = [filter.least ?? 0, filter.most ?? Infinity]
    const [addedFrom, addedTo] = [
      filter.addedFrom ? Date.parse(filter.addedFrom) : -Infinity,
      filter.addedTo ? endOf(filter.addedTo) : Infinity,
    ]
    const [changedFrom, changedTo] = [
      filter.changedFrom ? Date.parse(filter.changedFrom) : -Infinity,
      filter.changedTo ? endOf(filter.changedTo) : Infinity,
    ]
    const { marks, type, folder, size, created, changed } = this
    const found = order.filter(
      slot =>
        (marks[slot]! & mask) === wanted &&
        (!places || places[folder[slot]!] === 1) &&
        (!types || types[type[slot]!] === 1) &&
        size[slot]! >= least &&
        size[slot]! <= most &&
        created[slot]! >= addedFrom &&
        created[slot]! <= addedTo &&
        changed[slot]! >= changedFrom &&
        changed[slot]! <= changedTo,
    )
    return filter.tag.length ? found.filter(slot => filter.tag.every(tag => this.items[slot]!.tags.includes(tag))) : found
  }
}
