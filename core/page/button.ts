import { typeTag } from '../files/mediaType'
import { LOCK, asksWords } from '../gate/asks'
import type { Speech } from '../language/speech'
import type { Appearance } from '../look/appearance'
import { effectiveAction, type Destination } from './destination'
import { escapeHtml } from './escape'
import { fillPlaceholders } from './placeholders'
import type { Action, ButtonAttrs } from './schema'

/** The pieces of a button, for the renderer and for the editor, which draws it the same way. */
export function buttonParts(attrs: ButtonAttrs, destination: Destination | undefined, speech: Speech) {
  const action = effectiveAction(attrs.action, destination)
  const facts = destination && (destination.file ?? null)
  const label = fillPlaceholders(attrs.label, facts, speech).trim() || destination?.title || speech.say('download')
  const asks = destination?.asks
  const written = fillPlaceholders(attrs.note, facts, speech).trim()
  const note = asks && written ? `${written}, ${asksWords(asks, speech)}` : written
  return { action, label, note, locked: !!asks && !note, spoken: spokenFacts(`${label} ${note}`, action, destination, speech) }
}

/**
 * What the visible words leave out of the accessible name: type, size, and that a tab opens
 * (WCAG 2.2, success criteria 2.4.4 and 3.2.5).
 */
export function spokenFacts(visible: string, action: Action, destination: Destination | undefined, speech: Speech): string {
  if (!destination) return ''
  const { file, asks } = destination
  const facts = [...(file ? [typeTag(file.mediaType)] : []), ...(asks ? [asksWords(asks, speech)] : file ? [speech.size(file.size)] : [])]
  const missing = facts.filter(fact => !visible.includes(fact))
  if (action === 'tab') missing.push(speech.say('newTab'))
  if (action === 'see') missing.push(speech.say('lookFirst'))
  return missing.length ? ` (${missing.join(', ')})` : ''
}

/** What only screen readers read out. */
export const spokenHtml = (spoken: string) => spoken && `<span class="tr-spoken">${escapeHtml(spoken)}</span>`

/** The inside of a button: icon, label, note, a lock where it leads behind a gate, and what only screen readers need. */
export function buttonInner(
  { label, note, locked, spoken }: { label: string; note: string; locked: boolean; spoken: string },
  { icon }: Appearance,
): string {
  const words =
    `<span class="tr-label">${escapeHtml(label)}${locked ? LOCK : ''}</span>` +
    (note && ` <span class="tr-note">${escapeHtml(note)}</span>`)
  const drawn = icon
    ? `<svg class="tr-icon" viewBox="0 0 24 24" aria-hidden="true"><path d="${escapeHtml(icon.path)}"/></svg><span class="tr-words">${words}</span>`
    : words
  return drawn + spokenHtml(spoken)
}
