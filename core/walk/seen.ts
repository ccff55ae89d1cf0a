import type { Tone } from '../look/palette'
import { buttonParts } from '../page/button'
import { cardParts } from '../page/card'
import { destinationOf, type Destination } from '../page/destination'
import type { Block, ButtonAttrs, CardAttrs, PageDocument, Target } from '../page/schema'
import { childrenOf } from '../page/blocks'
import { asTarget, placementsOf } from '../page/targets'
import type { WalkFacts, WalkedFile } from './facts'
import type { Drawn } from './finding'

/** A button, card or link that leads somewhere, as visitors read it. */
export interface Seen {
  placement: string
  kind: 'button' | 'card' | 'link'
  /** as visitors read them, placeholders filled */
  words: string
  note: string
  /** as they were written; of a link just its words */
  written: { label: string; note: string }
  target: Target
  destination: Destination
  file: WalkedFile | undefined
  /** of a button or card */
  attrs?: ButtonAttrs | CardAttrs
  tone: Tone
}

function* withTones(blocks: Block[], tone: Tone = 'plain'): Generator<{ block: Block; tone: Tone }> {
  for (const block of blocks) {
    yield { block, tone }
    yield* withTones(childrenOf(block), block.type === 'section' ? block.attrs.tone : tone)
  }
}

/** All buttons, cards and links of a page that lead somewhere, in their order; links last. */
export function seenOn({ document, file, page, entry, signpost, speech }: WalkFacts): Seen[] {
  const seen: Seen[] = []
  const add = (target: Target | null, make: (destination: Destination) => Omit<Seen, 'target' | 'destination' | 'file'>) => {
    const destination = destinationOf(target, { file, page, entry, signpost })
    if (target && destination) seen.push({ ...make(destination), target, destination, file: destination.file && file(destination.file.id) })
  }
  for (const { block, tone } of withTones(document.content)) {
    if (block.type === 'downloadButton') {
      const { attrs } = block
      add(attrs.target, destination => {
        const { label, note } = buttonParts(attrs, destination, speech)
        return { placement: attrs.placement, kind: 'button', words: label, note, written: attrs, attrs, tone }
      })
    }
    if (block.type === 'fileCard') {
      const { attrs } = block
      add(attrs.target, destination => {
        const { title, note } = cardParts(attrs, destination, speech)
        return {
          placement: attrs.placement,
          kind: 'card',
          words: title,
          note,
          written: { label: attrs.title, note: attrs.note },
          attrs,
          tone,
        }
      })
    }
  }
  for (const { id, kind, label, targets } of placementsOf(document)) {
    const [target] = targets
    if (kind === 'link' && target)
      add(asTarget(target), () => ({ placement: id, kind, words: label.trim(), note: '', written: { label, note: '' }, tone: 'plain' }))
  }
  return seen
}

/** How each button and card of a page looks, by its placement, for whoever shows what was found of it. */
export function drawnOn({ content }: PageDocument): Map<string, Drawn> {
  const drawn = new Map<string, Drawn>()
  for (const { block, tone } of withTones(content)) {
    if (block.type !== 'downloadButton' && block.type !== 'fileCard') continue
    const { placement, look, own } = block.attrs
    drawn.set(placement, { look, own, tone })
  }
  return drawn
}
