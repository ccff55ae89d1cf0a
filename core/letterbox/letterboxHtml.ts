import { TRAP } from '../gate/gatePage'
import { KIND_WORDS } from '../language/kindWords'
import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import { LETTERBOX_FIELDS, acceptOf, bytesEach, handInPath, type LetterboxAttrs } from './letterbox'

/** What was wrong with what somebody handed in. */
export type HandInFault =
  { is: 'missing' } | { is: 'email' } | { is: 'noFile' } | { is: 'tooMany' } | { is: 'tooLarge' } | { is: 'kind'; name: string }

/** What somebody wrote already, and what was wrong with it. */
export interface HandedIn {
  fault: HandInFault
  given: (name: string) => string
}

/** A file that may be what is sent back. */
export interface Offered {
  handle: string
  title: string
}

function faultWords({ fault }: HandedIn, attrs: LetterboxAttrs, speech: Speech): string {
  switch (fault.is) {
    case 'missing':
      return speech.say('gateMissing')
    case 'email':
      return speech.say('gateEmailWrong')
    case 'noFile':
      return speech.say('letterboxNoFile')
    case 'tooMany':
      return speech.say('letterboxTooMany', { count: attrs.most })
    case 'tooLarge':
      return speech.say('letterboxTooLarge', { size: speech.size(bytesEach(attrs)) })
    case 'kind':
      return speech.say('letterboxWrongKind', { name: fault.name })
  }
}

/**
 * Where visitors hand files in: a plain form, so that no script is needed.
 *
 * @param offered files of the page: which of them comes back is asked where there are several
 * @param handedIn what was sent and could not be taken
 */
export function letterboxHtml(attrs: LetterboxAttrs, offered: readonly Offered[], speech: Speech, handedIn?: HandedIn): string {
  const { placement, label, text, kinds, most } = attrs
  const say = (...said: Parameters<Speech['say']>) => escapeHtml(speech.say(...said))
  const given = (name: string) => escapeHtml(handedIn?.given(name) ?? '')
  const fault = handedIn?.fault.is
  const faultId = `tr-fault-${placement}`
  const marked = (wrong: boolean) => (wrong ? ` aria-invalid="true" aria-describedby="${faultId}"` : '')
  const idOf = (name: string) => `tr-${placement}-${name}`
  const field = (name: string, words: string, attributes: string) =>
    `<p class="tr-ask"><label for="${idOf(name)}">${words}</label><input class="tr-field" id="${idOf(name)}" name="${name}" ${attributes}></p>`
  const optional = ` <span class="tr-note">(${say('gateOptional')})</span>`
  const { name, email, words, answers, files } = LETTERBOX_FIELDS
  const accept = acceptOf(kinds)
  const taken = kinds.map(kind => speech.say(KIND_WORDS[kind])).join(', ')
  const limits = [taken, speech.say('letterboxEach', { count: most, size: speech.size(bytesEach(attrs)) })].filter(Boolean).join('. ')
  const which =
    offered.length > 1
      ? `<p class="tr-ask"><label for="${idOf(answers)}">${say('letterboxAnswers')}${optional}</label><select class="tr-field" id="${idOf(answers)}" name="${answers}"><option value="">${say('gateChoose')}</option>${offered.map(({ handle, title }) => `<option value="${escapeHtml(handle)}"${handle === handedIn?.given(answers) ? ' selected' : ''}>${escapeHtml(title)}</option>`).join('')}</select></p>`
      : offered.map(({ handle }) => `<input type="hidden" name="${answers}" value="${escapeHtml(handle)}">`).join('')
  return [
    `<form class="tr-gate tr-letterbox" id="tr-${placement}" action="${handInPath(placement)}" method="post" enctype="multipart/form-data" aria-labelledby="${idOf('head')}">`,
    `<p class="tr-letterbox-head" id="${idOf('head')}">${escapeHtml(label.trim()) || say('letterbox')}</p>`,
    ...text
      .split(/\n+/)
      .filter(line => line.trim())
      .map(line => `<p>${escapeHtml(line.trim())}</p>`),
    handedIn &&
      `<p class="tr-fault" id="${faultId}" role="alert">${escapeHtml(faultWords(handedIn, attrs, speech))} ${fault === 'noFile' ? '' : say('letterboxAgain')}</p>`,
    field(name, say('letterboxName'), `autocomplete="name" maxlength="200" value="${given(name)}" required${marked(fault === 'missing')}`),
    field(
      email,
      say('gateEmail'),
      `type="email" autocomplete="email" maxlength="254" value="${given(email)}" required${marked(fault === 'email')}`,
    ),
    field(words, say('letterboxWords') + optional, `maxlength="500" value="${given(words)}"`),
    which,
    `<p class="tr-trap" aria-hidden="true"><label for="${idOf(TRAP)}">${say('leaveEmpty')}</label><input id="${idOf(TRAP)}" name="${TRAP}" tabindex="-1" autocomplete="off"></p>`,
    `<p class="tr-ask"><label for="${idOf(files)}">${say(most > 1 ? 'letterboxFiles' : 'letterboxFile')}</label><input class="tr-field" type="file" id="${idOf(files)}" name="${files}" required${most > 1 ? ' multiple' : ''}${accept && ` accept="${accept}"`} aria-describedby="${idOf('limits')}${fault && !['missing', 'email'].includes(fault) ? ` ${faultId}" aria-invalid="true` : ''}"><span class="tr-note" id="${idOf('limits')}">${escapeHtml(limits)}</span></p>`,
    `<button class="tr-key-button" type="submit">${say('letterboxSend')}</button>`,
    '</form>',
  ]
    .filter(Boolean)
    .join('\n')
}

/** What a letterbox has beside the rules of forms. */
export const LETTERBOX_CSS = `
.tr-letterbox{border:1px solid var(--rule);border-radius:var(--corner);padding:1.1em 1.2em 1.3em;box-sizing:border-box;max-width:29rem}
.tr-page .tr-letterbox-head{font-weight:700;font-size:1.1em}
.tr-letterbox input[type=file]{padding:.45em .5em}
.tr-letterbox ::file-selector-button{padding:.35em .8em;margin-right:.8em;border:1px solid var(--soft);border-radius:var(--corner);background:none;color:var(--ink);font:inherit;cursor:pointer}
@media print{.tr-letterbox{display:none}}`
