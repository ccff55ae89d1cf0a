import { composeLetter } from '../../../core/outbox/compose'
import type { Queryable } from '../../db/connection'
import type { Outbox } from '../outbox/outbox'
import type { SiteService } from '../site/site'

/** Where the links of these messages lead; behind the hash, so that no log and no other site gets to see what they hold. */
const DOOR = '/desk/join#'

interface To {
  to: string
  token: string
  /** scheme and host, where the site has no address of its own yet */
  origin: string
}

/** Messages to those who work at the desk: in its language, and without a way to have no more, since each was asked for. */
export function createDeskLetters(outbox: Pick<Outbox, 'add'>, site: Pick<SiteService, 'get'>) {
  async function write({ to, token, origin }: To, told: { subject: string; words: string; link: string; after: string }, tx: Queryable) {
    const { name, address } = await site.get()
    const letter = composeLetter({
      words: told.words,
      link: { href: (address || origin) + DOOR + token, words: told.link },
      after: told.after,
      site: name,
    })
    await outbox.add({ to, subject: told.subject, ...letter }, tx)
  }

  return {
    /** Writes into the outbox, in the caller's transaction. */
    async invite(letter: To & { by: string }, tx: Queryable): Promise<void> {
      const { name } = await site.get()
      await write(
        letter,
        {
          subject: `Help with ${name}`,
          words: `${letter.by} asks you to help with the site of ${name}. Choose a password, and you are in.`,
          link: 'Choose a password',
          after: 'The link holds for a week, and once. If you do not know what this is about, do nothing.',
        },
        tx,
      )
    },

    lostPassword: (letter: To, tx: Queryable): Promise<void> =>
      write(
        letter,
        {
          subject: 'Another password',
          words: 'Somebody, probably you, asked for another password. Choose one, and the former one no longer holds.',
          link: 'Choose another password',
          after: 'The link holds for half an hour, and once. If it was not you, do nothing: your password stays as it is.',
        },
        tx,
      ),
  }
}
export type DeskLetters = ReturnType<typeof createDeskLetters>
