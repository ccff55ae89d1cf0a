import { canonical } from '../canonical'
import { everyBlock, inlinesOf, mapBlocks } from './blocks'
import type { Inline, PageDocument } from './schema'

/** The settings of a placement that say what it leads to, shows or has behind its words. */
const LEADING = ['target', 'file', 'source', 'picture', 'own'] as const
type Leads = Partial<Record<(typeof LEADING)[number], unknown>>

/** Where each placement of a page leads. */
function leadsOf(document: PageDocument): Map<string, Leads> {
  const found = new Map<string, Leads>()
  const add = (attrs: { placement?: string | null }) => {
    if (!attrs.placement) return
    found.set(attrs.placement, Object.fromEntries(LEADING.filter(name => name in attrs).map(name => [name, (attrs as Leads)[name]])))
  }
  for (const block of everyBlock(document)) {
    if ('attrs' in block && block.attrs && 'placement' in block.attrs) add(block.attrs)
    for (const inline of inlinesOf(block))
      if (inline.type === 'text') for (const mark of inline.marks ?? []) if (mark.type === 'downloadLink') add(mark.attrs)
  }
  return found
}

/**
 * Takes back on a page that was written on since what a replacement has changed there: whatever still leads where that led it leads where
 * it led before; what was led elsewhere since, or is gone, stays so.
 *
 * @param now the page as it is
 * @returns undefined where the replacement took something off: where that belongs on what was written since, nobody knows
 */
export function ledBack(now: PageDocument, before: PageDocument, after: PageDocument): PageDocument | undefined {
  const [were, became] = [leadsOf(before), leadsOf(after)]
  if ([...were.keys()].some(placement => !became.has(placement))) return undefined
  const back = <T extends object>(attrs: T & { placement?: string | null }): T => {
    const [was, made] = [were.get(attrs.placement ?? ''), became.get(attrs.placement ?? '')]
    if (!was || !made) return attrs
    const changed = LEADING.filter(
      name => canonical(was[name]) !== canonical(made[name]) && canonical((attrs as Leads)[name]) === canonical(made[name]),
    )
    return { ...attrs, ...Object.fromEntries(changed.map(name => [name, was[name]])) }
  }
  const backInline = (inline: Inline): Inline =>
    inline.type === 'text' && inline.marks
      ? { ...inline, marks: inline.marks.map(mark => (mark.type === 'downloadLink' ? { ...mark, attrs: back(mark.attrs) } : mark)) }
      : inline
  const content = mapBlocks(now.content, block => {
    if ((block.type === 'paragraph' || block.type === 'heading') && block.content)
      return [{ ...block, content: block.content.map(backInline) }]
    return 'attrs' in block && block.attrs && 'placement' in block.attrs
      ? [{ ...block, attrs: back(block.attrs) } as typeof block]
      : [block]
  })
  return { type: 'doc', content }
}
