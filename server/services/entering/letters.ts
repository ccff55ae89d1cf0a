import { composeLetter } from '../../../core/outbox/compose'
import { createSeal } from '../gates/seal'
import type { NewMessage } from '../outbox/outbox'
import type { SiteService } from '../site/site'

interface Letter {
  to: string
  subject: string
  words: string
  link: { path: string; words: string }
  after?: string
  /** scheme and host of the site, where it has no address of its own yet */
  origin: string
}

const NO_MORE = '/pass/no-more/'

/** Messages to visitors, each with a way to have no more of them. */
export function createLetters(site: SiteService, secret: string) {
  const noMore = createSeal(secret, 'no more messages')
  return {
    /** The address somebody wants no more messages at; undefined where it was not sealed here. */
    addressIn: (sealed: string): string | undefined => noMore.open(sealed),
    noMorePath: (sealed: string): string => NO_MORE + encodeURIComponent(sealed),

    /** A message as the outbox takes it. It asks the database: before a transaction, not within one. */
    async compose({ to, subject, words, link, after, origin }: Letter): Promise<NewMessage> {
      const [speech, { name, address }] = [await site.speech(), await site.get()]
      const base = address || origin
      const end = base + NO_MORE + encodeURIComponent(noMore.seal(to))
      const letter = composeLetter({
        words,
        link: { href: base + link.path, words: link.words },
        after,
        site: name,
        noMore: { href: end, words: speech.say('mailNoMore') },
      })
      // One press in the mail program itself (RFC 2369, section 3.2; RFC 8058, section 3.1).
      const headers = { 'List-Unsubscribe': `<${end}>`, 'List-Unsubscribe-Post': 'List-Unsubscribe=One-Click' }
      return { to, subject, ...letter, headers }
    },
  }
}
export type Letters = ReturnType<typeof createLetters>
