import { describe, expect, it } from 'vitest'
import { pageDocumentSchema } from '../page/schema'
import { longTextBlocks, plainText } from './longText'

const words = (text: string, ...marks: string[]) => ({ type: 'text', text, ...(marks.length && { marks: marks.map(type => ({ type })) }) })

describe('a long text', () => {
  it('has paragraphs, lines, bold and italic words (CommonMark 0.31.2, 4.8, 6.2 and 6.7)', () => {
    expect(longTextBlocks('Fires **very *white***\nand dense.\n\nNot before cone 9.')).toEqual([
      {
        type: 'paragraph',
        content: [words('Fires '), words('very ', 'bold'), words('white', 'bold', 'italic'), { type: 'hardBreak' }, words('and dense.')],
      },
      { type: 'paragraph', content: [words('Not before cone 9.')] },
    ])
  })

  it('has lists, and lists within them (CommonMark 0.31.2, 5.3)', () => {
    expect(longTextBlocks('1. wedge\n2. throw\n   - thin\n')).toMatchObject([
      {
        type: 'orderedList',
        content: [
          { type: 'listItem', content: [{ type: 'paragraph', content: [words('wedge')] }] },
          {
            type: 'listItem',
            content: [
              { type: 'paragraph', content: [words('throw')] },
              { type: 'bulletList', content: [{ type: 'listItem', content: [{ type: 'paragraph', content: [words('thin')] }] }] },
            ],
          },
        ],
      },
    ])
  })

  it('has links to web addresses, told apart, and no others', () => {
    const [block] = longTextBlocks(
      '[a](https://a.example/) and [b](https://b.example/), not [c](javascript:alert(1)) or [d](/desk)',
      'about',
    )
    const links = (block as { content: { text: string; marks?: { type: string; attrs?: object }[] }[] }).content.filter(each => each.marks)
    expect(links.map(({ text, marks }) => [text, marks![0]!.attrs])).toEqual([
      ['a', { placement: 'about0', target: { kind: 'address', href: 'https://a.example/' }, action: 'here', saveAs: '' }],
      ['b', { placement: 'about1', target: { kind: 'address', href: 'https://b.example/' }, action: 'here', saveAs: '' }],
    ])
  })

  it('has HTML, headings, pictures and code as the words that were typed', () => {
    const typed = '<img src=x onerror=alert(1)> # no heading ![no picture] `no code`'
    expect(longTextBlocks(typed)).toEqual([{ type: 'paragraph', content: [words(typed)] }])
    expect(longTextBlocks('# Clay')).toEqual([{ type: 'paragraph', content: [words('# Clay')] }])
  })

  it('is what a page may hold, whatever is typed', () => {
    for (const typed of [
      '',
      '   ',
      '-',
      '1.',
      '- \n- ',
      '****',
      '*a**b*c**',
      '[](https://a.example/)',
      '\\*',
      '&lt;b&gt;',
      '- a\n\n  b\n\nc',
      '\u{1F3FA}',
    ])
      expect([
        typed,
        pageDocumentSchema.safeParse({ type: 'doc', content: [{ type: 'paragraph' }, ...longTextBlocks(typed)] }).error?.issues,
      ]).toEqual([typed, undefined])
  })

  it('is said in one line, without what lays it out', () => {
    expect(plainText('**Fires** _white_\nand [dense](https://a.example/).\n\n1. 5 \\* 10 cm\n2. A&amp;B\n')).toBe(
      'Fires white and dense. 5 * 10 cm A&B',
    )
    expect(plainText(' \n ')).toBe('')
  })
})
