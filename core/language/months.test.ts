import { expect, it } from 'vitest'
import { dateIn } from '../files/nameAdvice'
import { outdatedIn } from '../walk/dateWords'

// Names of months from CLDR (by Intl); the cases of Polish are those of a Polish grammar: listopad, listopada.
it.each([
  ['Price list, October 2026', 'Price list, November 2026'],
  ['Price list Oct 2026', 'Price list Nov 2026'],
  ['Preisliste, Oktober 2026', 'Preisliste, November 2026'],
  ['Preisliste März 2026', 'Preisliste November 2026'],
  ['Tarifs octobre 2026', 'Tarifs novembre 2026'],
  ['Tarifa de octubre de 2026', 'Tarifa de noviembre de 2026'],
  ['Listino Ottobre 2026', 'Listino Novembre 2026'],
  ['Prijslijst oktober 2026', 'Prijslijst november 2026'],
  ['Cennik, październik 2026', 'Cennik, listopad 2026'],
  ['Cennik z października 2026', 'Cennik z listopada 2026'],
  ['Tabela de outubro de 2026', 'Tabela de novembro de 2026'],
])('%s is %s where the file is of November', (label, expected) => expect(outdatedIn(label, '2026-11')?.mended).toBe(expected))

it('takes no word of another kind for a month', () => {
  for (const words of ['Set 2026', 'Out 2026', 'Kiln 2026', 'Mars bar']) expect(dateIn(words)?.iso?.length ?? 0).toBeLessThan(7)
})
