import fc from 'fast-check'
import { expect, it } from 'vitest'
import { readCells, writeCells } from './clipboard'

it('cells of a spreadsheet are read row by row, with those that have several lines as one', () => {
  expect(readCells('Crank\t14.50\r\nBuff\t12\r\n')).toEqual([
    ['Crank', '14.50'],
    ['Buff', '12'],
  ])
  expect(readCells('Crank\t"For hands\nand wheels"\n')).toEqual([['Crank', 'For hands\nand wheels']])
})

it('what is copied is pasted as it was: lines, quotes, tabs', () => {
  const cell = fc.string({ unit: fc.constantFrom(...'ab",;\t\n '), maxLength: 8 })
  fc.assert(
    fc.property(fc.array(fc.tuple(cell, cell), { minLength: 1, maxLength: 3 }), rows => {
      expect(readCells(writeCells(rows))).toEqual(rows)
    }),
  )
  expect(writeCells([['Crank']])).toBe('Crank')
})
