import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import { filePath } from '../page/href'
import type { Why } from './closed'
import type { GateField } from './fields'
import type { GateRule } from './gate'

/** What went wrong with what somebody sent. */
export type GateFault = 'wrong' | 'email' | 'missing' | 'again'

/** A gate as a visitor stands before it. */
export interface GateSight {
  gate: string
  rule: GateRule
  why: Why
  /** what is behind it, or how the gate is called */
  title: string
  /** where they go on to */
  to: string
  /** says that the form was made here, and when */
  seal: string
  /** the file that holds the terms */
  termsFile?: { title: string; handle: string }
  fault?: GateFault
  /** fields with which something is wrong */
  wrong: readonly string[]
  /** what they wrote already */
  given: (name: string) => string
}

/** Names of what the form sends beside the owner's fields. */
export const GATE_FIELDS = { password: 'password', email: 'email', consent: 'consent', terms: 'terms', to: 'to', seal: 'form' } as const
/** A field that nobody sees: what fills it in is a robot. */
export const TRAP = 'website'

export const passPath = (gate: string): string => `/pass/${gate}`

/** Own words of the owner's, each line a paragraph of its own. */
const paragraphs = (text: string) =>
  text
    .split(/\n+/)
    .filter(line => line.trim())
    .map(line => `<p>${escapeHtml(line.trim())}</p>`)
    .join('\n')

const FAULT_WORDS = { wrong: 'gateWrong', email: 'gateEmailWrong', missing: 'gateMissing', again: 'gateAgain' } as const
const KIND_WORDS = { password: 'gateSayPassword', email: 'gateSayEmail', people: 'gateSayPeople', terms: 'gateSayTerms' } as const

const FAULT_ID = 'tr-fault'

function saidClosed({ rule, why }: GateSight, speech: Speech): string {
  const { words, from, until } = rule
  if (why === 'early') return words.early || speech.say('gateEarly', { day: speech.day(from!) })
  if (why === 'late') return words.late || speech.say('gateLate', { day: speech.day(until!) })
  return words.usedUp || speech.say('gateUsedUp')
}

/** A field with its label above it; one with which something is wrong says so (WCAG 2.2, 3.3.1 and 1.3.1). */
function labelled(id: string, label: string, control: string): string {
  return `<p class="tr-ask"><label for="${id}">${label}</label>${control}</p>`
}

function fieldHtml({ id, kind, label, required, choices }: GateField, { wrong, given }: GateSight, speech: Speech): string {
  const name = `field-${id}`
  const marks = `${required ? ' required' : ''}${wrong.includes(id) ? ` aria-invalid="true" aria-describedby="${FAULT_ID}"` : ''}`
  const words =
    escapeHtml(label) + (required || kind === 'tick' ? '' : ` <span class="tr-note">(${escapeHtml(speech.say('gateOptional'))})</span>`)
  const value = given(name)
  switch (kind) {
    case 'tick':
      return `<p class="tr-agree"><input type="checkbox" id="${name}" name="${name}" value="yes"${value ? ' checked' : ''}${marks}><label for="${name}">${words}</label></p>`
    case 'choice': {
      const options = choices.map(choice => `<option${choice === value ? ' selected' : ''}>${escapeHtml(choice)}</option>`).join('')
      return labelled(
        name,
        words,
        `<select class="tr-field" id="${name}" name="${name}"${marks}><option value="">${escapeHtml(speech.say('gateChoose'))}</option>${options}</select>`,
      )
    }
    case 'long':
      return labelled(
        name,
        words,
        `<textarea class="tr-field" id="${name}" name="${name}" rows="4" maxlength="4000"${marks}>${escapeHtml(value)}</textarea>`,
      )
    case 'text':
      return labelled(
        name,
        words,
        `<input class="tr-field" id="${name}" name="${name}" maxlength="300" value="${escapeHtml(value)}"${marks}>`,
      )
  }
}

/** A tick that is never set beforehand. */
const agreeHtml = (name: string, words: string, wrong: boolean) =>
  `<p class="tr-agree"><input type="checkbox" id="tr-${name}" name="${name}" value="yes" required${wrong ? ` aria-invalid="true" aria-describedby="${FAULT_ID}"` : ''}><label for="tr-${name}">${words}</label></p>`

function termsHtml(sight: GateSight, speech: Speech): string {
  const { terms } = sight.rule
  if (!terms) return ''
  const text =
    terms.text &&
    `<section class="tr-terms" tabindex="0" aria-label="${escapeHtml(speech.say('gateTerms'))}">\n${paragraphs(terms.text)}\n</section>`
  const file =
    sight.termsFile &&
    `<p><a class="tr-link" href="${escapeHtml(filePath(sight.termsFile.handle))}" target="_blank" rel="noopener">${escapeHtml(speech.say('gateReadTerms', { title: sight.termsFile.title }))}<span class="tr-spoken"> (${escapeHtml(speech.say('newTab'))})</span></a></p>`
  return [text, file, agreeHtml(GATE_FIELDS.terms, escapeHtml(speech.say('gateAccept')), sight.wrong.includes(GATE_FIELDS.terms))]
    .filter(Boolean)
    .join('\n')
}

/** What a gate asks, as a plain form. */
function formHtml(sight: GateSight, speech: Speech): string {
  const { gate, rule, fault, wrong, given, to, seal } = sight
  const invalid = (name: string) => (wrong.includes(name) ? ` aria-invalid="true" aria-describedby="${FAULT_ID}"` : '')
  const say = (key: Parameters<Speech['say']>[0]) => escapeHtml(speech.say(key))
  const emailHtml = () =>
    labelled(
      'tr-email',
      say('gateEmail'),
      `<input class="tr-field" type="email" id="tr-email" name="${GATE_FIELDS.email}" autocomplete="email" maxlength="254" value="${escapeHtml(given(GATE_FIELDS.email))}" required${invalid(GATE_FIELDS.email)}>`,
    )
  /** Left empty, a link comes by e-mail. */
  const ownPasswordHtml = () =>
    labelled(
      'tr-password',
      `${say('gateOwnPassword')} <span class="tr-note">(${say('gateOptional')})</span>`,
      `<input class="tr-field" type="password" id="tr-password" name="${GATE_FIELDS.password}" autocomplete="current-password" maxlength="200"${invalid(GATE_FIELDS.password)}>`,
    )
  const asked = {
    password: () =>
      labelled(
        'tr-password',
        say('gatePassword'),
        `<input class="tr-field" type="password" id="tr-password" name="${GATE_FIELDS.password}" autocomplete="current-password" maxlength="200" required${invalid(GATE_FIELDS.password)}>`,
      ),
    email: () => emailHtml(),
    people: () => emailHtml() + ownPasswordHtml(),
    terms: () => '',
  }[rule.kind]()
  const email = rule.kind === 'email'
  return [
    fault &&
      `<p class="tr-fault" id="${FAULT_ID}" role="alert">${escapeHtml(fault === 'wrong' && rule.words.refused ? rule.words.refused : speech.say(FAULT_WORDS[fault]))}</p>`,
    `<form class="tr-gate" action="${passPath(gate)}" method="post">`,
    asked,
    ...(email ? rule.fields.map(field => fieldHtml(field, sight, speech)) : []),
    // Seen and heard by nobody; browsers are asked not to fill it in.
    `<p class="tr-trap" aria-hidden="true"><label for="tr-${TRAP}">${say('leaveEmpty')}</label><input id="tr-${TRAP}" name="${TRAP}" tabindex="-1" autocomplete="off"></p>`,
    email && rule.consent && agreeHtml(GATE_FIELDS.consent, escapeHtml(rule.consent), wrong.includes(GATE_FIELDS.consent)),
    termsHtml(sight, speech),
    `<input type="hidden" name="${GATE_FIELDS.to}" value="${escapeHtml(to)}"><input type="hidden" name="${GATE_FIELDS.seal}" value="${escapeHtml(seal)}">`,
    `<button class="tr-key-button" type="submit">${say('gateGo')}</button>`,
    '</form>',
  ]
    .filter(Boolean)
    .join('\n')
}

/** What stands where something is behind a gate: what is asked, or why nobody gets through now, and whom to ask. */
export function gatePageHtml(sight: GateSight, speech: Speech): string {
  const { rule, why, title } = sight
  const before =
    why === 'asked' ? paragraphs(rule.words.before || speech.say(KIND_WORDS[rule.kind])) : paragraphs(saidClosed(sight, speech))
  const ask = rule.ask && `<p class="tr-note">${escapeHtml(speech.say('gateAsk', { who: rule.ask }))}</p>`
  return [`<h1>${escapeHtml(title)}</h1>`, before, why === 'asked' && formHtml(sight, speech), ask].filter(Boolean).join('\n')
}

/** A question with one button, which a program that opens addresses by itself does not press. */
export const askPageHtml = ({
  title,
  detail,
  action,
  button,
  fields = {},
}: {
  title: string
  detail: string
  action: string
  button: string
  fields?: Record<string, string>
}): string => `<h1>${escapeHtml(title)}</h1>
<p>${escapeHtml(detail)}</p>
<form class="tr-gate" action="${escapeHtml(action)}" method="post">${Object.entries(fields)
  .map(([name, value]) => `<input type="hidden" name="${name}" value="${escapeHtml(value)}">`)
  .join('')}
<button class="tr-key-button" type="submit">${escapeHtml(button)}</button>
</form>`

/** What stands where the link of a message leads: one button, and a password for the next time for whoever wants one. */
export const comeInPageHtml = (
  { action, email, short, least }: { action: string; email: string; short: boolean; least: number },
  speech: Speech,
): string => {
  const say = (key: Parameters<Speech['say']>[0], fills?: Record<string, string>) => escapeHtml(speech.say(key, fills))
  const password = `<input class="tr-field" type="password" id="tr-password" name="${GATE_FIELDS.password}" autocomplete="new-password" maxlength="200"${short ? ` aria-invalid="true" aria-describedby="${FAULT_ID}"` : ''}>`
  return [
    `<h1>${say('comeInTitle')}</h1>`,
    `<p>${say('comeInDetail', { email })}</p>`,
    short && `<p class="tr-fault" id="${FAULT_ID}" role="alert">${say('comeInPasswordShort', { count: String(least) })}</p>`,
    `<form class="tr-gate" action="${escapeHtml(action)}" method="post">`,
    labelled('tr-password', `${say('comeInPassword')} <span class="tr-note">(${say('gateOptional')})</span>`, password),
    `<button class="tr-key-button" type="submit">${say('comeInGo')}</button>`,
    '</form>',
  ]
    .filter(Boolean)
    .join('\n')
}

/** Rules of the pages above, beside those of search forms. */
export const GATE_CSS = `
.tr-gate{display:grid;grid-template-columns:minmax(0,26rem);gap:1.1em;justify-items:start;margin-block:1.4em}
.tr-page .tr-gate p{margin:0}
.tr-ask{display:grid;gap:.35em;width:100%}
.tr-ask label{font-weight:600}
.tr-gate .tr-field{width:100%;box-sizing:border-box}
.tr-gate .tr-field[aria-invalid]{border-color:#B4532A;border-width:2px}
.tr-gate select.tr-field{appearance:auto}
.tr-agree{display:grid;grid-template-columns:auto 1fr;gap:.6em;align-items:start}
.tr-agree input{width:1.2em;height:1.2em;margin:.2em 0 0;accent-color:var(--accent)}
.tr-agree :focus-visible{outline:3px solid var(--ink);outline-offset:2px}
.tr-trap{position:absolute;left:-100vw;width:1px;height:1px;overflow:hidden}
.tr-fault{border-left:4px solid #B4532A;padding-left:.8em;font-weight:600}
.tr-terms{position:relative;max-height:14rem;overflow:auto;width:100%;box-sizing:border-box;padding:.2em .9em;border:1px solid var(--rule);font-size:.92em}
.tr-page .tr-terms p{margin-block:.6em}`
