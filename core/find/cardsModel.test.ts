import fc from 'fast-check'
import { expect, it } from 'vitest'
import type { FileItem } from '../files/fileItem'
import { fileFilterSchema } from '../files/query'
import { fileItem } from '../testing/items'
import { Cards } from './cards'
import { fold, wordsOf } from './fold'
import { isSlipOf } from './typing'

// Few of each, so that they meet: equal titles, accents, figures of different lengths, words a slip apart.
const TITLES = ['Kiln', 'kilns', 'Kilm 10', 'Kiln 9', 'Ärmel', 'Armel', 'Glaze kiln', 'Straße', '釉薬の表', '']
const QUESTIONS = ['kil', 'kiln 9', 'armel', 'strasse', 'glaez', '釉', 'n', 'tagged', 'kiln tagged', 'nothing at all']
const MOMENTS = ['2026-11-01T10:00:00.000Z', '2026-11-02T10:00:00.000Z', '2026-11-03T10:00:00.000Z']

const file = fc.record({
  id: fc.nat(250).map(number => `f${number}`),
  title: fc.constantFrom(...TITLES),
  size: fc.nat(3),
  uses: fc.nat(2),
  downloads: fc.nat(2),
  position: fc.nat(3),
  changed: fc.constantFrom(...MOMENTS),
  created: fc.constantFrom(...MOMENTS),
  tags: fc.constantFrom<string[]>([], ['tagged']),
  deleted: fc.constantFrom(null, null, null, MOMENTS[0]!),
})
type Given = { id: string } & Partial<FileItem>
const step = fc.record({
  // More than a hundred at once are put in their places another way than a few.
  put: fc.oneof({ weight: 4, arbitrary: fc.array(file, { maxLength: 6 }) }, fc.array(file, { minLength: 110, maxLength: 130 })),
  gone: fc.array(
    fc.nat(250).map(number => `f${number}`),
    { maxLength: 4 },
  ),
})

/** The fields a column is sorted by, in their order. */
const COLUMNS: Record<string, (item: FileItem) => (string | number)[]> = {
  title: item => [fold(item.title).replace(/\d+/g, digits => digits.padStart(12, '0'))],
  size: item => [item.size],
  added: item => [item.created],
  used: item => [item.uses, item.changed],
  downloads: item => [item.downloads, item.changed],
  own: item => [item.position],
}

function sorted(items: FileItem[], sort: string): FileItem[] {
  const column = sort.replace('-', '')
  const up = [...items].sort((a, b) => {
    const [left, right] = [
      [...COLUMNS[column]!(a), a.id],
      [...COLUMNS[column]!(b), b.id],
    ]
    const at = left.findIndex((value, index) => value !== right[index])
    return at < 0 ? 0 : left[at]! < right[at]! ? -1 : 1
  })
  return sort.startsWith('-') ? up.reverse() : up
}

/** What is found of files that were just listed, one after another. */
function found(items: FileItem[], question: string): FileItem[] {
  const pieces = fold(question).split(' ')
  const holds = ({ title, fileName, handle, description, tags }: FileItem, piece: string) =>
    fold([title, fileName, handle, description, ...tags].join('\n')).includes(piece)
  const named = items.filter(item => pieces.every(piece => holds(item, piece)))
  if (named.length) return named
  return items.filter(item => pieces.every(piece => holds(item, piece) || wordsOf(item.title).some(word => isSlipOf(piece, word))))
}

it('finds and sorts as a plain list would, whatever was put in, changed and taken out before', () => {
  fc.assert(
    fc.property(fc.array(step, { maxLength: 8 }), fc.constantFrom(...Object.keys(COLUMNS)), fc.boolean(), (steps, column, down) => {
      const [cards, plain, sort] = [new Cards(), new Map<string, FileItem>(), `${down ? '-' : ''}${column}`]
      for (const { put, gone } of steps) {
        const known = [...new Set(gone)].filter(id => plain.has(id))
        known.forEach(id => plain.delete(id))
        const items = [
          ...new Map(put.map((given: Given) => [given.id, fileItem({ ...given, fileName: `${given.id}.pdf`, handle: given.id })])).values(),
        ]
        items.forEach(item => plain.set(item.id, item))
        cards.update(items, known)
        const there = sorted(
          [...plain.values()].filter(({ deleted }) => !deleted),
          sort,
        )
        const idsOf = (q?: string) =>
          cards
            .narrow(fileFilterSchema.parse({ sort }))
            .find(q)
            .slice(0, Infinity)
            .map(({ item }) => item.id)
        expect(idsOf()).toEqual(there.map(({ id }) => id))
        for (const question of QUESTIONS)
          expect([question, idsOf(question)]).toEqual([question, found(there, question).map(({ id }) => id)])
      }
      expect([...cards.items()].map(({ id }) => id).sort()).toEqual([...plain.keys()].sort())
    }),
    { numRuns: 60 },
  )
})
