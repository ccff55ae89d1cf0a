import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest'
import { FileWindow } from '~/composables/fileWindow'
import { fileItem } from '~~/core/testing/items'
import type { FolderItem } from '~~/core/folders/folderItem'
import { COLUMNS, columnsThatFit, minutes } from './fileColumns'
import { filterWords } from './filterWords'
import { Rows } from './rows'

const folder = (id: string): FolderItem => ({
  id,
  parent: null,
  name: id,
  mark: null,
  description: '',
  ownOrder: false,
  see: null,
  gate: null,
  found: null,
  files: 0,
  created: '',
  deleted: null,
})

/** Stands in for the server: a list of so many files, and how often it was asked. */
function serve(total: number) {
  const asked: string[] = []
  vi.stubGlobal('fetch', async (address: string) => {
    asked.push(address)
    const parameters = new URL(address, 'http://desk.example').searchParams
    const [from, limit] = [Number(parameters.get('from')), Number(parameters.get('limit'))]
    const ids = (first: number, end: number) =>
      Array.from({ length: Math.max(0, Math.min(end, total) - first) }, (_, index) => `f${first + index}`)
    const body = address.includes('/ids')
      ? { ids: ids(0, total) }
      : { items: ids(from, from + limit).map(id => fileItem({ id, title: `${parameters.get('q') ?? ''}${id}` })), total, named: total }
    return { ok: true, status: 200, json: async () => body }
  })
  return asked
}
const settle = () => new Promise(resolve => setTimeout(resolve, 10))

beforeEach(() => vi.stubGlobal('useNotices', () => ({ say: vi.fn() })))
afterEach(() => vi.unstubAllGlobals())

describe('a window on a long list', () => {
  it('fetches what is seen and its neighbours, once, and lets go of what is far', async () => {
    const asked = serve(50_000)
    const window = new FileWindow('sort=title')
    await window.refresh()
    expect(window.state).toEqual({ total: 50_000, named: 50_000, loaded: true })
    await settle()
    expect(window.at(0)?.id).toBe('f0')
    expect(window.at(499)?.id).toBe('f499')
    expect(window.at(700)).toBeUndefined()
    const before = asked.length
    window.look(0, 30)
    await settle()
    expect(asked.length).toBe(before)
    for (let row = 0; row < 30_000; row += 400) {
      window.look(row, row + 30)
      await settle()
      expect(window.at(row)?.id).toBe(`f${row}`)
      expect(window.at(row + 30)?.id).toBe(`f${row + 30}`)
    }
    expect(window.at(0)).toBeUndefined()
    expect(window.held().length).toBeLessThanOrEqual(48 * 50)
  })

  it('asks anew for what is seen, and gives identities of what is not held', async () => {
    const asked = serve(1000)
    const window = new FileWindow('q=kiln')
    await window.refresh()
    window.look(900, 930)
    await settle()
    const before = asked.length
    await window.refresh()
    expect(asked[before]).toMatch(/^\/api\/files\?q=kiln&from=900&limit=50$/)
    expect(window.at(905)?.title).toBe('kilnf905')
    expect(await window.idsBetween(905, 907)).toEqual(['f905', 'f906', 'f907'])
    expect((await window.idsBetween(0, 999)).length).toBe(1000)
  })

  it('of nothing is empty', async () => {
    serve(0)
    const window = new FileWindow('')
    await window.refresh()
    expect([window.state.total, window.held()]).toEqual([0, []])
  })
})

describe('the lines of the board', () => {
  const windowOf = (total: number) => {
    const window = new FileWindow('')
    window.state.total = total
    return window
  }

  it('are folders one by one and files by their lists', () => {
    const [inner, outer] = [windowOf(2), windowOf(3)]
    const rows = new Rows([
      { folder: folder('a'), level: 0 },
      { folder: folder('b'), level: 1 },
      { window: inner, level: 1 },
      { folder: folder('c'), level: 0 },
      { window: outer, level: 0 },
    ])
    expect(rows.count).toBe(8)
    expect(
      Array.from({ length: 8 }, (_, line) => rows.at(line)).map(row =>
        row?.kind === 'folder' ? row.folder.id : row && 'index' in row ? row.index : undefined,
      ),
    ).toEqual(['a', 'b', 0, 1, 'c', 0, 1, 2])
    expect([rows.at(-1), rows.at(8)]).toEqual([undefined, undefined])
    expect(rows.at(3)).toMatchObject({ kind: 'file', window: inner, level: 1 })
  })

  it('as tiles hold several files each', () => {
    const rows = new Rows(
      [
        { folder: folder('a'), level: 0 },
        { window: windowOf(7), level: 0 },
      ],
      3,
    )
    expect(rows.count).toBe(4)
    expect(rows.at(3)).toMatchObject({ kind: 'tiles', index: 6, count: 1 })
  })

  it('tell each list what of it is seen', () => {
    const [first, second] = [windowOf(100), windowOf(100)]
    const looks = [vi.spyOn(first, 'look').mockReturnValue(), vi.spyOn(second, 'look').mockReturnValue()]
    const rows = new Rows([
      { window: first, level: 0 },
      { folder: folder('a'), level: 0 },
      { window: second, level: 0 },
    ])
    rows.look(90, 120)
    expect(looks.map(look => look.mock.calls)).toEqual([[[90, 99]], [[0, 19]]])
    rows.look(0, 10)
    expect(looks[1]!.mock.calls).toHaveLength(1)
  })

  it('between two give what lies there', async () => {
    serve(5)
    const window = new FileWindow('')
    await window.refresh()
    const rows = new Rows([
      { folder: folder('a'), level: 0 },
      { folder: folder('b'), level: 0 },
      { window, level: 0 },
    ])
    expect(await rows.between(1, 3)).toEqual({ folders: ['b'], files: ['f0', 'f1'] })
    expect(await new Rows([{ window, level: 0 }], 2).between(1, 2)).toEqual({ folders: [], files: ['f2', 'f3', 'f4'] })
  })
})

describe('columns', () => {
  it('are shown as far as there is room, in their order', () => {
    expect(columnsThatFit(['downloads', 'size', 'changed'], 460)).toEqual(['size', 'changed'])
    expect(columnsThatFit(['downloads', 'size', 'changed'], 800)).toEqual(['size', 'changed', 'downloads'])
    expect(columnsThatFit(['size'], 200)).toEqual([])
  })

  it.each<[object, string]>([
    [{ pages: 1 }, '1 page'],
    [{ width: 60, height: 40 }, '60 × 40'],
    [{ seconds: 125 }, '2:05'],
    [{ sheets: 3 }, '3 sheets'],
    [{ entries: 1 }, '1 file'],
    [{}, ''],
  ])('the extent of %j is “%s”', (facts, words) => expect(COLUMNS.pages.text(fileItem({ facts }), String)).toBe(words))

  it('lengths are minutes and seconds', () => expect([minutes(0), minutes(59.9), minutes(61)]).toEqual(['0:00', '0:59', '1:01']))
})

it('filters are said in removable words, each with what it takes away', () => {
  const words = filterWords({
    q: 'kiln',
    type: ['picture', 'archive'],
    tag: ['trade'],
    used: 'no',
    waits: true,
    reading: 'failed',
    addedFrom: '2026-11-01',
    addedTo: '',
    changedFrom: '',
    changedTo: '2026-11-02',
    least: 1_500_000,
    most: null,
  })
  expect(words.map(({ words: text, clear, value }) => [text.replace(/[A-Z][a-z]{2} \d+, \d{4}/, 'DAY'), clear, value])).toEqual([
    ['“kiln”', 'q', undefined],
    ['Pictures', 'type', 'picture'],
    ['Zips', 'type', 'archive'],
    ['tagged trade', 'tag', 'trade'],
    ['not used', 'used', undefined],
    ['newer edition waiting', 'waits', undefined],
    ['could not be read', 'reading', undefined],
    ['added DAY or later', 'addedFrom', undefined],
    ['changed DAY or earlier', 'changedTo', undefined],
    ['1.5 MB or more', 'least', undefined],
  ])
})
