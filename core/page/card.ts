import type { Speech } from '../language/speech'
import { buttonParts } from './button'
import type { Destination } from './destination'
import { escapeHtml } from './escape'
import { imageHtml } from './picture'
import type { TargetFacts } from './placeholders'
import type { CardAttrs } from './schema'

/** CSS pixels a card is wide at the most; its picture is asked for accordingly. */
const CARD_SIZES = '(max-width:34rem) 100vw, 20rem'

/** The pieces of a card, for the renderer and for the editor, which draws it the same way. */
export function cardParts(attrs: CardAttrs, destination: Destination | undefined, speech: Speech) {
  const { spoken, ...button } = buttonParts(attrs, destination, speech)
  const title = attrs.title.trim() || destination?.title || speech.say('aFile')
  return {
    ...button,
    // "Download" alone would not say what (WCAG 2.2, 2.4.4).
    spoken: button.label.includes(title) ? spoken : `: ${title}${spoken}`,
    title,
    text: attrs.text.trim() || destination?.file?.description || '',
    pictured: attrs.pictured,
  }
}

/** A card around its button. */
export function cardHtml(
  { title, text, pictured }: Pick<ReturnType<typeof cardParts>, 'title' | 'text' | 'pictured'>,
  file: TargetFacts | undefined,
  button: string,
): string {
  const picture = pictured && file?.picture ? imageHtml(file, { alt: '', sizes: CARD_SIZES, className: 'tr-card-picture' }) : ''
  const said = text && `\n<p class="tr-card-text">${escapeHtml(text)}</p>`
  return `<div class="tr-card">${picture}<div class="tr-card-body">\n<p class="tr-card-title">${escapeHtml(title)}</p>${said}\n${button}\n</div></div>`
}
