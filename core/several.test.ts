import fc from 'fast-check'
import { expect, it } from 'vitest'
import { CHOICES_APART, FILES_APART, readSeveral, writeSeveral } from './several'

it.each([
  ['Red, White; Grey|Black\nBlue', ['Red', 'White', 'Grey', 'Black', 'Blue']],
  ['"Red, iron-rich", White', ['Red, iron-rich', 'White']],
  ['White , "say ""clay"""', ['White', 'say "clay"']],
  // Quotes within a name, and around a part of it, are its own.
  ['5" pipe, "Best" clay, "open', ['5" pipe', '"Best" clay', '"open']],
  [' , ;', []],
  ['', []],
])('of %j the names are %j', (text, names) => {
  expect(readSeveral(text, CHOICES_APART)).toEqual(names)
})

it.each([CHOICES_APART, FILES_APART])('names parted by %j are read as they were written', apart => {
  const name = fc
    .string({ unit: fc.constantFrom(...'ab", ;|é\u00A0'), minLength: 1, maxLength: 8 })
    .map(each => each.trim())
    .filter(Boolean)
  fc.assert(
    fc.property(fc.array(name, { maxLength: 4 }), names => {
      expect(readSeveral(writeSeveral(names, apart), apart)).toEqual(names)
    }),
  )
})
