import { reactive, shallowReactive } from 'vue'
import { z } from 'zod'
import { foundFileSchema, type FoundFile } from '~~/core/files/fileItem'
import { ask } from './api'

const idsSchema = z.object({ ids: z.array(z.string()) })

const answerSchema = z.object({
  items: z.array(foundFileSchema),
  total: z.number(),
  named: z.number(),
})
type Answer = z.infer<typeof answerSchema>

/** Files asked for at a time. */
const STRETCH = 50
/** Files kept ready above and below what is seen, so that nobody scrolls into nothing. */
const AHEAD = 500
/** Stretches kept; those farthest from what is seen are let go. */
const MOST = 48

/** A list of files of which only the part around what is seen is held: as long as it likes, in little memory. */
export class FileWindow {
  readonly state = reactive({ total: 0, named: 0, loaded: false })
  private readonly items = shallowReactive(new Map<number, FoundFile>())
  private readonly asked = new Set<number>()
  private age = 0
  private newest = Promise.resolve()
  private seen = { from: 0, to: STRETCH }

  /** @param query what is asked for, without where it begins and ends */
  constructor(readonly query: string) {}

  at(index: number): FoundFile | undefined {
    return this.items.get(index)
  }

  /** Files that are held, in their order. */
  held(): FoundFile[] {
    return [...this.items].sort(([a], [b]) => a - b).map(([, file]) => file)
  }

  /** Says which files are seen, counted from 0; they and their neighbours are fetched. */
  look(from: number, to: number): void {
    this.seen = { from, to }
    const last = this.state.loaded ? this.state.total - 1 : 0
    const first = Math.max(0, Math.floor((from - AHEAD) / STRETCH))
    const end = Math.floor(Math.max(0, Math.min(last, to + AHEAD)) / STRETCH)
    const wanted = Array.from({ length: end - first + 1 }, (_, index) => first + index).filter(stretch => !this.asked.has(stretch))
    // What is seen comes first.
    const middle = (from + to) / 2 / STRETCH
    for (const stretch of wanted.sort((a, b) => Math.abs(a - middle) - Math.abs(b - middle))) void this.fetch(stretch)
    this.letGo(middle)
  }

  private letGo(middle: number): void {
    if (this.asked.size <= MOST) return
    const far = [...this.asked].sort((a, b) => Math.abs(b - middle) - Math.abs(a - middle)).slice(0, this.asked.size - MOST)
    for (const stretch of far) {
      this.asked.delete(stretch)
      for (let index = stretch * STRETCH; index < (stretch + 1) * STRETCH; index++) this.items.delete(index)
    }
  }

  private async ask(from: number): Promise<Answer> {
    return ask(answerSchema, `/files?${this.query}&from=${from}&limit=${STRETCH}`)
  }

  private take(from: number, { items, total, named }: Answer): void {
    items.forEach((file, index) => this.items.set(from + index, file))
    Object.assign(this.state, { total, named, loaded: true })
  }

  private async fetch(stretch: number): Promise<void> {
    const { age } = this
    this.asked.add(stretch)
    try {
      const answer = await this.ask(stretch * STRETCH)
      if (age === this.age) this.take(stretch * STRETCH, answer)
    } catch (error) {
      if (age === this.age) this.asked.delete(stretch)
      useNotices().refused(error)
    }
  }

  /** Asks anew for what is seen; the old stands until the new is there. Whoever asked before waits for this, too. */
  refresh(): Promise<void> {
    return (this.newest = this.askAnew())
  }

  private async askAnew(): Promise<void> {
    const age = ++this.age
    const first = Math.floor(this.seen.from / STRETCH)
    const last = Math.max(first, Math.floor(Math.max(0, Math.min(this.seen.to, this.state.total - 1)) / STRETCH))
    const stretches = Array.from({ length: last - first + 1 }, (_, index) => first + index)
    const answers = await Promise.all(stretches.map(stretch => this.ask(stretch * STRETCH)))
    if (age !== this.age) return this.newest
    this.items.clear()
    this.asked.clear()
    stretches.forEach((stretch, index) => {
      this.asked.add(stretch)
      this.take(stretch * STRETCH, answers[index]!)
    })
    this.look(this.seen.from, this.seen.to)
  }

  /** Identities of the files from one index to another, those that are not held too. */
  async idsBetween(from: number, to: number): Promise<string[]> {
    const held = Array.from({ length: to - from + 1 }, (_, index) => this.items.get(from + index)?.id)
    if (held.every(id => id !== undefined)) return held
    const { ids } = await ask(idsSchema, `/files/ids?${this.query}`)
    return ids.slice(from, to + 1)
  }
}
