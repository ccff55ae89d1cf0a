import Papa from 'papaparse'
import { expect, it } from 'vitest'
import { csvLine } from './csvLine'

it('writes lines that a table program reads as they were (RFC 4180), and takes none for a formula (OWASP, CSV Injection)', () => {
  const cells = ['plain', 'with "quotes", and commas', 'two\nlines', 'größe', '']
  expect(Papa.parse(csvLine(cells), { skipEmptyLines: true }).data).toEqual([cells])
  expect(csvLine(cells).endsWith('\r\n')).toBe(true)
  for (const formula of ['=1+1', '+49 1234', '-2', '@SUM(A1)', '\t=1'])
    expect((Papa.parse(csvLine([formula])).data[0] as string[])[0]).toBe(`'${formula}`)
})
