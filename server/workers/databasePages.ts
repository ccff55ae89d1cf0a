import { closeSync, openSync, readSync, readdirSync } from 'node:fs'
import { join } from 'node:path'
import { parentPort } from 'node:worker_threads'
import { PAGE, PAGES_A_FILE, isPageWhole } from '../../core/trust/pageChecksum'

/** A database's folder, or some pages of it that are looked at once more. */
export interface PagesTask {
  folder: string
  again?: DamagedPage[]
}
/** A page that is not as it was written: its file below the folder, and its number within it. */
export interface DamagedPage {
  file: string
  page: number
}
export type PagesMessage = { at: number } | { damaged: DamagedPage[] }

const AT_ONCE = 128
const buffer = Buffer.allocUnsafeSlow(AT_ONCE * PAGE)
const view = new DataView(buffer.buffer, buffer.byteOffset, buffer.length)
const say = (message: PagesMessage) => parentPort!.postMessage(message)

/** Files that hold pages: numbers, with the parts and forks of a table (PostgreSQL, database file layout). */
const HOLDS_PAGES = /^\d+(?:_(?:fsm|vm|init))?(?:\.\d+)?$/

function* filesOf(folder: string): Generator<string> {
  for (const database of readdirSync(join(folder, 'base')))
    for (const name of readdirSync(join(folder, 'base', database))) if (HOLDS_PAGES.test(name)) yield join('base', database, name)
  for (const name of readdirSync(join(folder, 'global'))) if (HOLDS_PAGES.test(name)) yield join('global', name)
}

const pagesBefore = (file: string) => PAGES_A_FILE * Number(/\.(\d+)$/.exec(file)?.[1] ?? 0)
const isWhole = (at: number, page: number, file: string) =>
  isPageWhole(new DataView(view.buffer, view.byteOffset + at * PAGE, PAGE), pagesBefore(file) + page)

function* damagedIn(folder: string, file: string): Generator<DamagedPage> {
  const handle = openSync(join(folder, file), 'r')
  try {
    for (let page = 0; ;) {
      const whole = Math.floor(readSync(handle, buffer, 0, buffer.length, page * PAGE) / PAGE)
      for (let at = 0; at < whole; at++) if (!isWhole(at, page + at, file)) yield { file, page: page + at }
      if (whole < AT_ONCE) return
      page += whole
      say({ at: page })
    }
  } finally {
    closeSync(handle)
  }
}

function isStillDamaged(folder: string, { file, page }: DamagedPage): boolean {
  const handle = openSync(join(folder, file), 'r')
  try {
    return readSync(handle, buffer, 0, PAGE, page * PAGE) === PAGE && !isWhole(0, page, file)
  } finally {
    closeSync(handle)
  }
}

parentPort!.on('message', ({ folder, again }: PagesTask) => {
  say({
    damaged: again
      ? again.filter(page => isStillDamaged(folder, page))
      : [...filesOf(folder)].flatMap(file => [...damagedIn(folder, file)]),
  })
})
