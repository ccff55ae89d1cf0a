import MarkdownIt from 'markdown-it'
import type { Token } from 'markdown-it'
import { everyBlock, inlinesOf as inlinesIn, textOf } from '../page/blocks'
import { addressSchema } from '../page/outsideTargets'
import type { Inline, Mark, PlainBlock } from '../page/schema'

/** As much of Markdown as is written in a field: paragraphs, lists, bold, italic, links (CommonMark). HTML is text there. */
const markdown = new MarkdownIt('zero', { html: false, breaks: true }).enable(['list', 'emphasis', 'link', 'newline', 'escape', 'entity'])

function inlinesOf(tokens: Token[], placement: string, counter: { links: number }): Inline[] {
  const inlines: Inline[] = []
  let marks: Mark[] = []
  for (const token of tokens) {
    const without = (type: Mark['type']) => (marks = marks.filter(mark => mark.type !== type))
    if (token.type === 'strong_open') marks = [...marks, { type: 'bold' }]
    else if (token.type === 'em_open') marks = [...marks, { type: 'italic' }]
    else if (token.type === 'strong_close') without('bold')
    else if (token.type === 'em_close') without('italic')
    else if (token.type === 'link_open') {
      const href = addressSchema.safeParse(token.attrGet('href')).data
      if (href)
        marks = [
          ...marks,
          {
            type: 'downloadLink',
            attrs: {
              placement: `${placement}${counter.links++}`.slice(-16),
              target: { kind: 'address', href },
              action: 'here',
              saveAs: '',
            },
          },
        ]
    } else if (token.type === 'link_close') without('downloadLink')
    else if (token.type === 'softbreak' || token.type === 'hardbreak') inlines.push({ type: 'hardBreak' })
    else if (token.content) inlines.push({ type: 'text', text: token.content, ...(marks.length && { marks }) })
  }
  return inlines
}

type ListItems = Extract<PlainBlock, { type: 'bulletList' }>['content']

/** A long text as it is said where it cannot be laid out: its words in one line, without the signs that lay it out. */
export const plainText = (text: string): string =>
  [...everyBlock({ content: longTextBlocks(text) })]
    .map(block => textOf(inlinesIn(block)))
    .filter(Boolean)
    .join(' ')

/** The blocks of a long text; an empty one has none. @param placement under which its links are told apart */
export function longTextBlocks(text: string, placement = 'longtext'): PlainBlock[] {
  const counter = { links: 0 }
  const stack: { list?: 'bulletList' | 'orderedList'; items: ListItems; blocks: PlainBlock[] }[] = [{ items: [], blocks: [] }]
  const top = () => stack.at(-1)!
  for (const token of markdown.parse(text, {})) {
    if (token.type === 'inline') {
      const content = inlinesOf(token.children ?? [], placement, counter)
      if (content.length) top().blocks.push({ type: 'paragraph', content })
    } else if (token.type === 'bullet_list_open') stack.push({ list: 'bulletList', items: [], blocks: [] })
    else if (token.type === 'ordered_list_open') stack.push({ list: 'orderedList', items: [], blocks: [] })
    else if (token.type === 'list_item_open') stack.push({ items: [], blocks: [] })
    else if (token.type === 'list_item_close') {
      const { blocks } = stack.pop()!
      if (blocks.length) top().items.push({ type: 'listItem', content: blocks })
    } else if (token.type === 'bullet_list_close' || token.type === 'ordered_list_close') {
      const { list, items } = stack.pop()!
      if (items.length) top().blocks.push({ type: list!, content: items } as PlainBlock)
    }
  }
  return stack[0]!.blocks
}
