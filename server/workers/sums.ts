import { parentPort } from 'node:worker_threads'
import { Columns, type Narrowing, type Stretch, type Sums, type SumsQuestion } from '../../core/tally/columns'
import { comeAfterVisitors } from './courtesy'

/** A question of all downloads up to one, or rows that come in. */
export type SumsTask =
  | { rows: string }
  | { upTo: number; sums: SumsQuestion }
  | { upTo: number; find: { stretch: Stretch; narrow: Narrowing; from: number; limit: number } }
  | { upTo: number; first: Narrowing }
/** The answer, or up to where downloads are known, where that is not far enough. */
export interface SumsAnswer {
  has: number
  sums?: Sums
  find?: { ids: number[]; total: number }
  /** seconds since 1970; 0 while there is none */
  first?: number
}

type Row = [id: number, at: number, count: number, bytes: number, ...keys: string[]]

const columns = new Columns()

function takeIn(text: string): void {
  columns.add((JSON.parse(text) as Row[]).map(([id, at, count, bytes, ...keys]) => ({ id, at, count, bytes, keys })))
}

function answerTo(task: SumsTask): SumsAnswer {
  if ('rows' in task) takeIn(task.rows)
  const has = columns.newest
  if ('rows' in task || has < task.upTo) return { has }
  if ('sums' in task) return { has, sums: columns.sums(task.sums) }
  if ('first' in task) return { has, first: columns.first(task.first) ?? 0 }
  const { stretch, narrow, from, limit } = task.find
  return { has, find: columns.find(stretch, narrow, from, limit) }
}

comeAfterVisitors()
parentPort!.on('message', (task: SumsTask) => parentPort!.postMessage(answerTo(task)))
