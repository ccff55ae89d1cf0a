import { describe, expect, it } from 'vitest'
import { bundleEntriesSchema, type BundleEntry } from './bundleEntry'
import { entryPath, withPath } from './entryPath'
import { resolveBundle } from './members'
import { retargetEntries } from './retarget'

const FILES: Record<string, { fileName: string }> = {
  red: { fileName: 'red.pdf' },
  blue: { fileName: 'blue.pdf' },
  old: { fileName: 'RED.pdf' },
}
const library = {
  field: () => undefined,
  file: (id: string) => FILES[id],
  folder: (id: string) =>
    id === 'charts'
      ? {
          name: 'Charts',
          files: [
            { path: 'raku.pdf', file: { fileName: 'raku.pdf' } },
            { path: '2026/a.pdf', file: { fileName: 'a.pdf' } },
          ],
        }
      : undefined,
}
const entries = (...given: object[]): BundleEntry[] =>
  bundleEntriesSchema.parse(given.map((entry, index) => ({ id: `entry${index}`, ...entry })))
const paths = (...given: object[]) => resolveBundle(entries(...given), library).map(member => member.path)

describe('what is in a bundle', () => {
  it('files have their own names, or those they are given, in the order of the bundle', () =>
    expect(paths({ kind: 'file', file: 'blue' }, { kind: 'file', file: 'red', name: 'first.pdf', within: 'Colours/warm' })).toEqual([
      'blue.pdf',
      'Colours/warm/first.pdf',
    ]))

  it('a folder brings all that is in it, under its name, another, or none', () => {
    expect(paths({ kind: 'folder', folder: 'charts' })).toEqual(['Charts/raku.pdf', 'Charts/2026/a.pdf'])
    expect(paths({ kind: 'folder', folder: 'charts', name: 'Firing', within: 'All' })).toEqual([
      'All/Firing/raku.pdf',
      'All/Firing/2026/a.pdf',
    ])
    expect(paths({ kind: 'folder', folder: 'charts', name: '' })).toEqual(['raku.pdf', '2026/a.pdf'])
  })

  it('what is gone is left out; names that meet are told apart, whatever their case', () =>
    expect(
      paths(
        { kind: 'file', file: 'gone' },
        { kind: 'folder', folder: 'gone' },
        { kind: 'file', file: 'red' },
        { kind: 'file', file: 'old' },
        { kind: 'file', file: 'red' },
      ),
    ).toEqual(['red.pdf', 'RED 2.pdf', 'red 3.pdf']))

  it('stays as it is when it is read again', () => {
    const given = entries(
      { kind: 'file', file: 'red' },
      { kind: 'folder', folder: 'charts', within: 'a / b', name: '' },
      { kind: 'text', name: 'x.txt', body: '' },
    )
    expect(bundleEntriesSchema.parse(given)).toEqual(given)
  })

  it('texts are written for it', () =>
    expect(resolveBundle(entries({ kind: 'text', name: 'READ ME.txt', body: 'Hello' }), library)).toEqual([
      { entry: 'entry0', path: 'READ ME.txt', body: 'Hello' },
    ]))

  it.each(['../out', '/etc', 'C:\\x', 'a/../../b'])('refuses the folder %s, which leads out of the zip', within => {
    expect(() => entries({ kind: 'file', file: 'red', within })).toThrow(/zip/)
  })
  it('makes names safe', () =>
    expect(paths({ kind: 'file', file: 'red', name: '../../evil\u202Efdp.exe', within: 'a//b\\c' })).toEqual(['a/b/c/evilfdp.exe']))
})

describe("an entry's path, as it is typed", () => {
  const [file, folder, text] = entries(
    { kind: 'file', file: 'red' },
    { kind: 'folder', folder: 'charts' },
    { kind: 'text', name: 'READ ME.txt', body: '' },
  ) as [BundleEntry, BundleEntry, BundleEntry]
  it.each([
    [file, 'red.pdf', 'Warm/first.pdf', 'Warm', 'first.pdf'],
    [file, 'red.pdf', 'Warm/', 'Warm', null],
    [file, 'red.pdf', ' a / b / red.pdf ', 'a/b', null],
    [file, 'red.pdf', '', '', null],
    [folder, 'Charts', 'All/Firing', 'All', 'Firing'],
    [folder, 'Charts', 'All/', 'All', ''],
    [folder, 'Charts', '', '', ''],
    [folder, 'Charts', 'Charts', '', null],
    [text, 'READ ME.txt', 'Notes/', 'Notes', 'READ ME.txt'],
    [text, 'READ ME.txt', 'LICENCE.txt', '', 'LICENCE.txt'],
  ])('%#: %j', (entry, own, path, within, name) => expect(withPath(entry, path, own)).toMatchObject({ within, name }))
  it('is read back as it was typed', () => expect(entryPath(withPath(file, 'Warm/first.pdf', 'red.pdf'), 'red.pdf')).toBe('Warm/first.pdf'))
})

describe('retargetEntries', () => {
  const given = entries(
    { kind: 'file', file: 'red', name: 'rot.pdf', within: 'Colours' },
    { kind: 'text', name: 'x.txt', body: '' },
    { kind: 'folder', folder: 'charts' },
    { kind: 'file', file: 'blue' },
  )
  const filesIn = (list: BundleEntry[]) => list.map(entry => (entry.kind === 'file' ? entry.file : entry.kind))

  it('leaves out what goes', () => expect(filesIn(retargetEntries(given, new Set(['red', 'charts'])))).toEqual(['text', 'blue']))

  it('puts another file in its place, under its own name, and only once', () => {
    expect(retargetEntries(given, new Set(['red']), 'old')[0]).toEqual({ ...given[0], file: 'old', name: null })
    expect(filesIn(retargetEntries(given, new Set(['red', 'blue']), 'old'))).toEqual(['old', 'text', 'folder'])
    expect(filesIn(retargetEntries(given, new Set(['red']), 'blue'))).toEqual(['text', 'folder', 'blue'])
  })

  it('keeps a folder that goes where only a file is put in place of others', () =>
    expect(filesIn(retargetEntries(given, new Set(['charts']), 'blue'))).toEqual(['red', 'text', 'folder', 'blue']))
})
