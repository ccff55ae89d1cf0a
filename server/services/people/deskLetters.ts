import { composeLetter } from '../../../core/outbox/compose'
import type { NewMessage } from '../outbox/outbox'

/** Where the links of these messages lead; behind the hash, so that no log and no other site gets to see what they hold. */
const DOOR = '/desk/join#'

interface To {
  to: string
  token: string
  /** name of the site, and its scheme and host */
  site: string
  origin: string
}

function letter({ to, token, site, origin }: To, told: { subject: string; words: string; link: string; after: string }): NewMessage {
  const link = { href: origin + DOOR + token, words: told.link }
  return { to, subject: told.subject, ...composeLetter({ words: told.words, link, after: told.after, site }) }
}

/*
 * Messages to those who work at the desk: in its language, and without a way to have no more, since each was asked for.
 */

/** Asks somebody to help. @param by e-mail of who asks */
export const invitationLetter = (to: To & { by: string }): NewMessage =>
  letter(to, {
    subject: `Help with ${to.site}`,
    words: `${to.by} asks you to help with the site of ${to.site}. Choose a password, and you are in.`,
    link: 'Choose a password',
    after: 'The link holds for a week, and once. If you do not know what this is about, do nothing.',
  })

/** What was changed of an account, for who did not do it themselves. */
export const CHANGES = {
  password: 'Your password was changed.',
  secondFactorBegun: 'One-time codes are asked for from now on when you sign in.',
  secondFactorEnded: 'No one-time codes are asked for any more when you sign in.',
} as const
export type AccountChange = keyof typeof CHANGES

/** Tells somebody of a change to their account (OWASP ASVS 5, 6.3.7). @param place where it was done from */
export const changedLetter = (to: Omit<To, 'token'> & { change: AccountChange; place: string }): NewMessage => ({
  to: to.to,
  subject: `Your account at ${to.site}`,
  ...composeLetter({
    words: `${CHANGES[to.change]} That was done from ${to.place}.`,
    link: { href: `${to.origin}/desk/lost`, words: 'It was not me' },
    after: 'If it was you, do nothing. If not, choose another password at once, and tell the owner of the site.',
    site: to.site,
  }),
})

/** Leads somebody to another password. */
export const lostPasswordLetter = (to: To): NewMessage =>
  letter(to, {
    subject: 'Another password',
    words: 'Somebody, probably you, asked for another password. Choose one, and the former one no longer holds.',
    link: 'Choose another password',
    after: 'The link holds for half an hour, and once. If it was not you, do nothing: your password stays as it is.',
  })
