import { randomBytes } from 'node:crypto'
import { count, desc, eq } from 'drizzle-orm'
import { askPageHtml, GATE_CSS } from '../../../core/gate/gatePage'
import type { NewPersonalLink, PersonalLink } from '../../../core/gate/personalLink'
import { newId } from '../../../core/id'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { filePath } from '../../../core/page/href'
import { Problem, notFound } from '../../../core/problem'
import { SEEK_CSS } from '../../../core/search/searchCss'
import { among } from '../../db/among'
import type { Database } from '../../db/connection'
import { gateTakes, personalLinks } from '../../db/schema'
import { isOut } from '../files/items'
import { gateOfLink, linkHolds, type LinkRow } from '../gates/links'
import type { Passes } from '../gates/passes'
import type { LibraryService } from '../library/library'
import type { Outbox } from '../outbox/outbox'
import type { PublishedPages } from '../published/published'
import type { SiteService } from '../site/site'
import type { Contacts } from '../contacts/contacts'
import type { Comer, Entered } from './coming'
import type { Letters } from './letters'

interface Needs {
  db: Database
  passes: Passes
  library: LibraryService
  outbox: Pick<Outbox, 'add' | 'soon'>
  letters: Letters
  contacts: Pick<Contacts, 'wantsNone'>
  published: PublishedPages
  site: SiteService
  now?: () => number
}

/** How long a browser may have what a personal link leads to, where the link itself does not end before, in milliseconds. */
const PASS_LASTS = 30 * 24 * 60 * 60 * 1000
/** Links of one file: more belong to a gate with people in it. */
const MOST_LINKS = 1000

const FOR = '/for/'
const linkGone = () => new VisitorProblem(410, 'linkGone')

/** Addresses of a file for one person or purpose. */
export function createPersonalLinks({ db, passes, library, outbox, letters, contacts, published, site, now = Date.now }: Needs) {
  async function itemsOf(rows: LinkRow[]): Promise<PersonalLink[]> {
    const counts = rows.length
      ? await db
          .select({ id: gateTakes.gateId, count: count() })
          .from(gateTakes)
          .where(
            among(
              gateTakes.gateId,
              rows.map(({ id }) => id),
            ),
          )
          .groupBy(gateTakes.gateId)
      : []
    const taken = new Map(counts.map(row => [row.id, row.count]))
    return rows.map(({ id, token, note, email, until, most, revoked, created }) => ({
      id,
      path: FOR + token,
      note,
      email,
      until: until?.toISOString() ?? null,
      most,
      revoked: revoked?.toISOString() ?? null,
      created: created.toISOString(),
      taken: taken.get(id) ?? 0,
    }))
  }

  /** @throws VisitorProblem 410 where the link gives nothing any more */
  async function at(token: string) {
    const [row] = await db.select().from(personalLinks).where(eq(personalLinks.token, token))
    const [file] = row ? await library.listed([row.fileId]) : []
    if (!row || !linkHolds(row, now()) || !file || isOut(file)) throw linkGone()
    return { row, file }
  }

  return {
    /** The newest first. */
    list: async (fileId: string): Promise<PersonalLink[]> =>
      itemsOf(await db.select().from(personalLinks).where(eq(personalLinks.fileId, fileId)).orderBy(desc(personalLinks.created))),

    /**
     * Makes a link, and sends it where an address is given.
     *
     * @param origin scheme and host of the site, where it has no address of its own yet
     * @throws Problem 404, or 409 where there are too many
     */
    async create(fileId: string, { note, email, until, most, send }: NewPersonalLink, origin: string): Promise<PersonalLink> {
      const file = await library.get(fileId)
      const [there] = await db.select({ count: count() }).from(personalLinks).where(eq(personalLinks.fileId, fileId))
      if (there!.count >= MOST_LINKS)
        throw new Problem(409, `“${file.title}” has ${MOST_LINKS.toLocaleString('en')} links already.`, 'Put it behind a gate instead.')
      const token = randomBytes(16).toString('base64url')
      const [speech, { name }] = [await site.speech(), await site.get()]
      if (send && (await contacts.wantsNone(email)))
        throw new Problem(
          409,
          `${email} wants no more messages from here.`,
          'Make the link without an address, and give it to them yourself.',
          {
            field: 'email',
          },
        )
      const message =
        send && email
          ? await letters.compose({
              to: email,
              subject: speech.say('mailLinkSubject', { title: file.title, site: name }),
              words: speech.say('mailLinkText', { site: name, title: file.title }),
              link: { path: FOR + token, words: speech.say('getIt', { title: file.title }) },
              origin,
            })
          : undefined
      const row = await db.transaction(async tx => {
        const [made] = await tx
          .insert(personalLinks)
          .values({ id: newId(), token, fileId, note, email, until: until === null ? null : new Date(until), most })
          .returning()
        if (message) await outbox.add(message, tx)
        return made!
      })
      outbox.soon()
      return (await itemsOf([row]))[0]!
    },

    /** Takes a link back: it gives nothing from then on. @throws Problem 404 */
    async revoke(id: string): Promise<void> {
      const rows = await db
        .update(personalLinks)
        .set({ revoked: new Date(now()) })
        .where(eq(personalLinks.id, id))
        .returning({ id: personalLinks.id })
      if (!rows.length) throw notFound('link')
    },

    /** What whoever opens a link sees: a button, which a program that looks at links does not press. */
    async show(token: string): Promise<Entered> {
      const { file } = await at(token)
      const speech = await site.speech()
      return {
        status: 200,
        made: await published.made({
          title: file.title,
          description: '',
          files: [],
          parts: ['search', 'downloadButton', 'downloadLink', 'heading'],
          css: SEEK_CSS + GATE_CSS,
          write: () =>
            askPageHtml({
              title: file.title,
              detail: file.description || speech.say('linkFor'),
              action: FOR + token,
              button: speech.say('getIt', { title: file.title }),
            }),
        }),
      }
    },

    /** The way to what a link leads to. */
    async take(token: string, { secure }: Pick<Comer, 'secure'>): Promise<Entered> {
      const { row, file } = await at(token)
      const until = Math.min(now() + PASS_LASTS, row.until?.getTime() ?? Infinity)
      const pass = passes.give({ gate: gateOfLink(row.id), epoch: 1, by: row.id, until })
      return { to: filePath(file.handle), cookie: passes.cookie(pass, secure, now()) }
    },
  }
}
export type PersonalLinks = ReturnType<typeof createPersonalLinks>
