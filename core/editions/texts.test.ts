import { execFileSync } from 'node:child_process'
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import fc from 'fast-check'
import { afterAll, describe, expect, it } from 'vitest'
import { compareTexts, type TextPart } from './texts'

const pages = (...bodies: string[]): TextPart[] => bodies.map((body, index) => ({ part: `Page ${index + 1}`, body }))
const folder = mkdtempSync(join(tmpdir(), 'trough-compare-'))
afterAll(() => rmSync(folder, { recursive: true }))

/** Lines that `diff` (GNU diffutils) finds only in the first, and only in the second. */
function diffOf(before: string[], after: string[]): { gone: number, come: number } {
  const paths = [before, after].map((lines, index) => {
    const path = join(folder, String(index))
    writeFileSync(path, lines.map(line => `${line}\n`).join(''))
    return path
  })
  let output = ''
  try {
    output = execFileSync('diff', ['--minimal', ...paths], { encoding: 'utf8' })
  }
  catch (error) {
    // It ends with 1 where they differ.
    output = (error as { stdout: string }).stdout
  }
  const count = (mark: string) => output.split('\n').filter(line => line.startsWith(mark)).length
  return { gone: count('< '), come: count('> ') }
}

describe('comparing texts', () => {
  it('tells what was changed, what came and what is gone, and on which page', () => {
    const before = pages('Price list\nStoneware 12.40\nEarthenware 9.80\nDelivery on Tuesdays', 'Terms\nThirty days')
    const after = pages('Price list\nStoneware 12.90\nEarthenware 9.80\nPorcelain 19.00\nDelivery on Tuesdays', 'Terms\n30 days\nNo returns')
    expect(compareTexts(before, after)).toMatchObject({
      total: 3, apart: false,
      changes: [
        { part: 'Page 1', before: ['Stoneware 12.40'], after: ['Stoneware 12.90'] },
        { part: 'Page 1', before: [], after: ['Porcelain 19.00'] },
        { part: 'Page 2', before: ['Thirty days'], after: ['30 days', 'No returns'] },
      ],
    })
  })

  it('says nothing of spaces, empty lines and where a page ends', () => {
    expect(compareTexts(pages('One  two\n\nthree'), pages('One two', ' three '))).toEqual({ changes: [], total: 0, inCommon: 1, apart: false })
    expect(compareTexts([], [])).toMatchObject({ total: 0, inCommon: 1 })
  })

  it('measures how much two texts have in common', () => {
    expect(compareTexts(pages('a b c d'), pages('a b x y')).inCommon).toBe(0.5)
    expect(compareTexts(pages('a a a'), pages('a')).inCommon).toBe(0.5)
    expect(compareTexts(pages('some words'), pages()).inCommon).toBe(0)
  })

  it('gives up on texts that have nothing to do with each other, soon', () => {
    const [one, other] = ['x', 'y'].map(letter => pages(Array.from({ length: 5000 }, (_, index) => `${letter}${index}`).join('\n')))
    expect(compareTexts(one!, other!)).toMatchObject({ apart: true, inCommon: 0 })
  })

  it('finds as few lines changed as GNU diff --minimal (property)', () => {
    const lines = fc.array(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { maxLength: 30 })
    fc.assert(fc.property(lines, lines, (before, after) => {
      const { changes } = compareTexts(pages(before.join('\n')), pages(after.join('\n')))
      const count = (side: 'before' | 'after') => changes.reduce((sum, change) => sum + change[side].length, 0)
      expect({ gone: count('before'), come: count('after') }).toEqual(diffOf(before, after))
    }), { numRuns: 60 })
  })
})
