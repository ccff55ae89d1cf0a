import { describe, expect, it } from 'vitest'
import { composeBundle, foldersBrought, sizeOfMember, type BundledFile } from './compose'
import type { BundleEntry } from './bundleEntry'
import { Tree } from '../folders/folderTree'

const file = (id: string, folder: string | null, fileName: string): BundledFile => ({
  id,
  folder,
  fileName,
  sha256: id.repeat(64).slice(0, 64),
  size: 10,
  crc32: 1,
  created: 0,
})
const FOLDERS = [
  { id: 'sheets', parent: null, name: 'Sheets' },
  { id: 'old', parent: 'sheets', name: '2025' },
  { id: 'aside', parent: null, name: 'Aside' },
]
const FILES = [
  file('b', 'sheets', 'list.pdf'),
  file('a', 'sheets', 'list.pdf'),
  file('c', 'old', 'chart.pdf'),
  file('d', 'aside', 'other.pdf'),
]
/** What the first two clays hold as their sheets; the second file is not there. */
const FIELDS = [{ catalogue: 'clays', field: 'sheet', name: 'Data sheet', files: ['d', 'gone', 'c'] }]
const common = { within: '', name: null }
const FOLDER: BundleEntry = { id: 'one111', kind: 'folder', folder: 'sheets', ...common }
const TEXT: BundleEntry = { id: 'two222', kind: 'text', within: 'Notes', name: 'read-me.txt', body: 'é' }
const GONE: BundleEntry = { id: 'gone33', kind: 'file', file: 'z', ...common }

describe('a bundle', () => {
  const compose = (entries: BundleEntry[], files = FILES) => composeBundle({ entries, fields: FIELDS, folders: FOLDERS, files })
  const pathsOf = (entries: BundleEntry[], files?: BundledFile[]) =>
    compose(entries, files).members.map(member => [member.path, 'file' in member ? member.file.id : null])

  it('has what lies in its folders and below, texts, and nothing that is gone', () => {
    expect(pathsOf([FOLDER, TEXT, GONE])).toEqual([
      ['Sheets/2025/chart.pdf', 'c'],
      ['Sheets/list.pdf', 'a'],
      ['Sheets/list 2.pdf', 'b'],
      ['Notes/read-me.txt', null],
    ])
  })

  it('comes out the same in whatever order the database gives its files', () => {
    expect(pathsOf([FOLDER], FILES.toReversed())).toEqual(pathsOf([FOLDER]))
  })

  it('has what entries of a catalogue hold, in their order', () => {
    const held: BundleEntry = { id: 'held44', kind: 'field', catalogue: 'clays', field: 'sheet', ...common }
    expect(pathsOf([held])).toEqual([
      ['Data sheet/other.pdf', 'd'],
      ['Data sheet/chart.pdf', 'c'],
    ])
    expect(pathsOf([{ ...held, name: '' }])).toEqual([
      ['other.pdf', 'd'],
      ['chart.pdf', 'c'],
    ])
    expect(compose([{ ...held, field: 'gone' }]).now.held44).toMatchObject({ gone: true, files: 0 })
  })

  it('says what each entry comes to', () => {
    const { now, members } = compose([FOLDER, TEXT, GONE])
    expect(now).toEqual({
      one111: { gone: false, own: 'Sheets', path: 'Sheets', files: 3, size: 30 },
      // In UTF-8 (RFC 3629) the letter has two bytes.
      two222: { gone: false, own: 'read-me.txt', path: 'Notes/read-me.txt', files: 1, size: 2 },
      gone33: { gone: true, own: '', path: '', files: 0, size: 0 },
    })
    expect(members.map(sizeOfMember)).toEqual([10, 10, 10, 2])
  })

  it('leans on its folders and all below them', () => expect(foldersBrought(new Tree(FOLDERS), [FOLDER, TEXT])).toEqual(['sheets', 'old']))
})
