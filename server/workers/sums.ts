import { parentPort } from 'node:worker_threads'
import { Columns, type Among, type Stretch, type Sums, type SumsQuestion } from '../../core/tally/columns'
import type { Dimension } from '../../core/tally/particulars'
import { comeAfterVisitors } from './courtesy'

/** How often downloads were changed before, and up to which they are asked of. */
export interface State {
  changes: number
  upTo: number
}
export type SumsQuery =
  | { sums: SumsQuestion }
  | { find: { among: Among; stretch: Stretch; from: number; limit: number } }
  | { first: Among }
  | { beginnings: { dimension: Dimension; stretch: Stretch } }
/** A question of all downloads as they are in a state, or rows that come in. */
export type SumsTask = { changes: number; rows: string } | (State & SumsQuery)
/** The answer, or up to where downloads are known, where that is not far enough. */
export interface SumsAnswer {
  has: number
  sums?: Sums
  find?: { ids: number[]; total: number }
  /** seconds since 1970; 0 while there is none */
  first?: number
  beginnings?: { key: string; at: number }[]
}

type Row = [id: number, at: number, count: number, bytes: number, ...keys: string[]]

let columns = new Columns()
let changes = 0

function takeIn(text: string): void {
  columns.add((JSON.parse(text) as Row[]).map(([id, at, count, bytes, ...keys]) => ({ id, at, count, bytes, keys })))
}

function answerTo(task: SumsTask): SumsAnswer {
  if (task.changes > changes) {
    columns = new Columns()
    changes = task.changes
  }
  if ('rows' in task) takeIn(task.rows)
  const has = columns.newest
  if ('rows' in task || has < task.upTo) return { has }
  if ('sums' in task) return { has, sums: columns.sums(task.sums) }
  if ('first' in task) return { has, first: columns.first(task.first) ?? 0 }
  if ('beginnings' in task) return { has, beginnings: columns.beginnings(task.beginnings.dimension, task.beginnings.stretch) }
  const { stretch, among, from, limit } = task.find
  return { has, find: columns.find(stretch, among, from, limit) }
}

comeAfterVisitors()
parentPort!.on('message', (task: SumsTask) => parentPort!.postMessage(answerTo(task)))
