import { parentPort } from 'node:worker_threads'
import type { CatalogueItem } from '../../core/catalogue/catalogue'
import type { ImportColumn, ImportPlan } from '../../core/catalogue/import'
import { PlanFault, columnsOf, firstPlan, planImport, withHeading, type GivenTable, type Planned } from '../../core/catalogue/planning'
import { fold } from '../../core/find/fold'
import { comeAfterVisitors } from './courtesy'
import { NoGrid, readGrid } from './readGrid'

/** A file whose cells are read, to become entries of a catalogue, or of one that is new. */
export interface ReadTask {
  ask: 'read'
  path: string
  name: string
  catalogue: CatalogueItem | undefined
}
/** A table that was read, held against what is there. */
export interface PlanTask {
  ask: 'plan'
  table: GivenTable
  rows: string[][]
  /** files of the library by what tables may call them, folded */
  files: Map<string, string>
}
export type GridTask = ReadTask | PlanTask
export interface ReadGrid {
  rows: string[][]
  columns: ImportColumn[]
  /** rows below the heading */
  count: number
  plan: ImportPlan
}
export type GridAnswer = { read: ReadGrid } | { planned: Planned } | { fault: string } | { refused: string }

async function read({ path, name, catalogue }: ReadTask): Promise<GridAnswer> {
  try {
    const rows = await readGrid(path, name)
    if (!rows.length) return { fault: 'There is nothing in it.' }
    const { names, body } = withHeading(rows)
    if (!body.length) return { fault: 'There is a heading and nothing below it.' }
    const columns = columnsOf(names, body)
    return { read: { rows, columns, count: body.length, plan: firstPlan(columns, body, catalogue) } }
  } catch (error) {
    return { fault: error instanceof NoGrid ? error.message : 'It could not be read: it is no table, or damaged.' }
  }
}

function plan({ table, rows, files }: PlanTask): GridAnswer {
  try {
    const fileNamed = (name: string) => files.get(fold(name.split(/[\\/]/).at(-1)!.trim()))
    return { planned: planImport({ ...table, ...withHeading(rows), fileNamed }) }
  } catch (error) {
    if (error instanceof PlanFault) return { refused: error.message }
    throw error
  }
}

comeAfterVisitors()
parentPort!.on(
  'message',
  (task: GridTask) => void (async () => parentPort!.postMessage(task.ask === 'read' ? await read(task) : plan(task)))(),
)
