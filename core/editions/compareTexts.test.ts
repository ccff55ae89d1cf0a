import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, describe, expect, it } from 'vitest'
import { makePdf } from '../../demo/pdf'
import { priceList } from '../../demo/texts'
import { compareTexts, type TextPart } from './compareTexts'

const pages = (...bodies: string[]): TextPart[] => bodies.map((body, index) => ({ part: `Page ${index + 1}`, body }))
const folder = mkdtempSync(join(tmpdir(), 'trough-compare-'))
afterAll(() => rmSync(folder, { recursive: true }))

/** Lines that `diff` (GNU diffutils) finds only in the first, and only in the second. */
function diffOf(before: string[], after: string[]): { gone: number; come: number } {
  const paths = [before, after].map((lines, index) => {
    const path = join(folder, String(index))
    writeFileSync(path, lines.map(line => `${line}\n`).join(''))
    return path
  })
  let output = ''
  try {
    output = execFileSync('diff', ['--minimal', ...paths], { encoding: 'utf8' })
  } catch (error) {
    // It ends with 1 where they differ.
    output = (error as { stdout: string }).stdout
  }
  const count = (mark: string) => output.split('\n').filter(line => line.startsWith(mark)).length
  return { gone: count('< '), come: count('> ') }
}

describe('comparing texts', () => {
  it('tells what was changed, what came and what is gone, and on which page', () => {
    const before = pages('Price list\nStoneware 12.40\nEarthenware 9.80\nDelivery on Tuesdays', 'Terms\nThirty days')
    const after = pages(
      'Price list\nStoneware 12.90\nEarthenware 9.80\nPorcelain 19.00\nDelivery on Tuesdays',
      'Terms\n30 days\nNo returns',
    )
    expect(compareTexts(before, after)).toMatchObject({
      total: 3,
      apart: false,
      changes: [
        { part: 'Page 1', before: ['Stoneware 12.40'], after: ['Stoneware 12.90'] },
        { part: 'Page 1', before: [], after: ['Porcelain 19.00'] },
        { part: 'Page 2', before: ['Thirty days'], after: ['30 days', 'No returns'] },
      ],
    })
  })

  it('says nothing of spaces, empty lines and where a page ends', () => {
    expect(compareTexts(pages('One  two\n\nthree'), pages('One two', ' three '))).toEqual({
      changes: [],
      total: 0,
      inCommon: 1,
      apart: false,
    })
    expect(compareTexts([], [])).toMatchObject({ total: 0, inCommon: 1 })
  })

  it('measures how much two texts have in common', () => {
    expect(compareTexts(pages('a b c d'), pages('a b x y')).inCommon).toBe(0.5)
    expect(compareTexts(pages('a a a'), pages('a')).inCommon).toBe(0.5)
    expect(compareTexts(pages('some words'), pages()).inCommon).toBe(0)
    // A word that one of them lacks is in common never, however often the other has it.
    expect(compareTexts(pages('a b'), pages('x x x x')).inCommon).toBe(0)
    expect(compareTexts(pages('a b'), pages('a a a a x x')).inCommon).toBe(0.25)
  })

  it('counts the words in common as sort and comm do (POSIX), for two price lists and for two unlike texts', () => {
    const words = (text: string) => text.toLowerCase().match(/[a-z0-9]+/g) ?? []
    const sorted = (name: string, text: string) => {
      const path = join(folder, name)
      writeFileSync(
        path,
        words(text)
          .sort()
          .map(word => `${word}\n`)
          .join(''),
      )
      return path
    }
    const [kiln, clay] = [
      'the kiln is fired to the cone and the lid is closed '.repeat(40),
      'clay and water make slip and slip makes a pot in a mould '.repeat(90),
    ]
    for (const [one, other] of [
      [kiln, clay],
      [clay, kiln],
      [kiln, `${kiln} ${clay}`],
      ['slip', clay],
    ] as const) {
      const shared = execFileSync('comm', ['-12', sorted('one', one), sorted('other', other)], {
        encoding: 'utf8',
        env: { ...process.env, LC_ALL: 'C' },
      })
        .split('\n')
        .filter(Boolean).length
      expect(compareTexts(pages(one), pages(other)).inCommon).toBeCloseTo((2 * shared) / (words(one).length + words(other).length), 10)
    }
  })

  it('gives up on texts that have nothing to do with each other, soon', () => {
    const [one, other] = ['x', 'y'].map(letter => pages(Array.from({ length: 5000 }, (_, index) => `${letter}${index}`).join('\n')))
    expect(compareTexts(one!, other!)).toMatchObject({ apart: true, inCommon: 0 })
  })

  it('tells of two price lists, as pdftotext reads them, what diff tells', async () => {
    const texts = await Promise.all(
      [
        ['October 2026', 1],
        ['November 2026', 1.02],
      ].map(async ([month, factor], index) => {
        const path = join(folder, `list-${index}.pdf`)
        writeFileSync(path, await makePdf(priceList('Price list', month as string, factor as number), new Date('2026-11-01')))
        return execFileSync('pdftotext', ['-layout', path, '-'], { encoding: 'utf8' })
      }),
    )
    const parts = texts.map(text => text.split('\f').map((body, index) => ({ part: `Page ${index + 1}`, body })))
    const { changes } = compareTexts(parts[0]!, parts[1]!)
    const count = (side: 'before' | 'after') => changes.reduce((sum, change) => sum + change[side].length, 0)
    // What is read as one line: spaces and page ends say nothing.
    const [before, after] = texts.map(text =>
      text
        .split(/[\n\f]/)
        .map(line => line.replace(/\s+/g, ' ').trim())
        .filter(Boolean),
    )
    expect({ gone: count('before'), come: count('after') }).toEqual(diffOf(before!, after!))
    expect(count('after')).toBeGreaterThan(20)
  })

  it('finds as few lines changed as GNU diff --minimal (property)', () => {
    const lines = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 30 })
    fc.assert(
      fc.property(lines, lines, (before, after) => {
        const { changes } = compareTexts(pages(before.join('\n')), pages(after.join('\n')))
        const count = (side: 'before' | 'after') => changes.reduce((sum, change) => sum + change[side].length, 0)
        expect({ gone: count('before'), come: count('after') }).toEqual(diffOf(before, after))
      }),
      { numRuns: 60 },
    )
  })
})
