import type { Speech } from '../language/speech'
import { escapeHtml } from '../page/escape'
import type { Kept } from './kept'

/** What a site says of what it keeps of its visitors: a sentence or two for each thing, and none for what it does not do. */
export function privacySentences({ countries, addressDays, gates, people, letterbox, peopleDays }: Kept, { say }: Speech): string[] {
  return [
    say('privacyAlone'),
    say(countries ? 'privacyTakenCountry' : 'privacyTaken'),
    addressDays ? say('privacyAddress', { count: addressDays }) : say('privacyNoAddress'),
    say('privacySignal'),
    say('privacyDays'),
    ...(gates ? [say('privacyPass')] : []),
    ...(people ? [say('privacyPeople')] : []),
    ...(letterbox ? [say('privacyHandIn')] : []),
    ...(people || letterbox ? [peopleDays === null ? say('privacyUntilAsked') : say('privacyUntil', { count: peopleDays })] : []),
    say('privacyAsk'),
  ]
}

/** The same as paragraphs of a page. */
export const privacyHtml = (kept: Kept, speech: Speech): string =>
  privacySentences(kept, speech)
    .map(sentence => `<p>${escapeHtml(sentence)}</p>`)
    .join('\n')
