import type { IncomingMessage } from 'node:http'
import { isNull, sql } from 'drizzle-orm'
import { z } from 'zod'
import { cleanFileName, titleFromFileName } from '../../../core/files/fileName'
import { familyOf } from '../../../core/files/mediaType'
import { CLOSED_GATE } from '../../../core/gate/gate'
import { TRAP } from '../../../core/gate/gatePage'
import { newId } from '../../../core/id'
import { LETTERBOX_FIELDS, bytesEach, bytesInAll, receiptPath, takes, type LetterboxAttrs } from '../../../core/letterbox/letterbox'
import { letterboxHtml, type HandInFault } from '../../../core/letterbox/letterboxHtml'
import { RECEIPT_CSS, receiptHtml, receiptWords, type Receipt } from '../../../core/letterbox/receiptPage'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { escapeHtml } from '../../../core/page/escape'
import type { FileItem } from '../../../core/files/fileItem'
import type { Database, Queryable } from '../../db/connection'
import { accounts, arrivalFiles, arrivals as arrivalTable, editions, files } from '../../db/schema'
import type { Contacts } from '../contacts/contacts'
import type { Comer, Entered } from '../entering/coming'
import type { FormLimits } from '../entering/formLimits'
import type { Letters } from '../entering/letters'
import { freeHandle } from '../files/handles'
import { isOut } from '../files/items'
import { nextPosition } from '../files/position'
import { readTree } from '../files/readTree'
import { createSeal } from '../gates/seal'
import type { Guard } from '../gates/guard'
import type { LibraryService } from '../library/library'
import { sniffType } from '../library/sniff'
import type { NewMessage, Outbox } from '../outbox/outbox'
import type { PublishedPages } from '../published/published'
import type { SiteService } from '../site/site'
import { announcementLetter } from './announcement'
import type { Arrivals } from './arrivals'
import type { LiveLetterboxes } from './live'
import { discard, receive, type Received } from './receiving'
import type { Room } from './room'

interface Needs {
  db: Database
  secret: string
  library: Pick<LibraryService, 'adoptAll' | 'all'>
  letterboxes: LiveLetterboxes
  published: Pick<PublishedPages, 'made'>
  site: SiteService
  contacts: Pick<Contacts, 'leave' | 'wantsNone'>
  outbox: Pick<Outbox, 'add' | 'soon'>
  letters: Letters
  guard: Pick<Guard, 'admit' | 'mayKnow'>
  limits: Pick<FormLimits, 'message'>
  arrivals: Arrivals
  room: Room
  /** where bytes lie while they come in, by an identity made here */
  incoming: (id: string) => string
}

/** A letterbox on a live page. */
type Standing = NonNullable<Awaited<ReturnType<LiveLetterboxes['find']>>>

/** More announcements in an hour tell the owner nothing that the first did not. */
const ANNOUNCED = 20
const HOUR = 60 * 60 * 1000

/** One line as somebody wrote it: what is told apart by lines, in messages and tables, is one. */
const lineOf = (text = '', longest: number): string =>
  text
    .replace(/[\p{Cc}\s]+/gu, ' ')
    .trim()
    .slice(0, longest)

const emailSchema = z.email().max(254).toLowerCase()
const emailOf = (fields: Map<string, string>) => emailSchema.safeParse(fields.get(LETTERBOX_FIELDS.email)?.trim() ?? '').data
const nameOf = (fields: Map<string, string>) => lineOf(fields.get(LETTERBOX_FIELDS.name), 200)

type Coming = Received['files'][number] & { mediaType: string }

/** Takes in what visitors hand in: public nowhere until somebody at the desk says so. */
export function createLetterbox(needs: Needs) {
  const { db, library, letterboxes, published, site, contacts, outbox, letters, guard, limits, arrivals, room, incoming } = needs
  const receipts = createSeal(needs.secret, 'receipts')

  const page = (title: string, parts: ('letterbox' | 'downloadLink')[], css: string, html: string) =>
    published.made({ title, description: '', files: [], parts: ['heading', 'bulletList', ...parts], css, write: () => html })

  /** The form once more, with what was wrong. */
  async function again({ letterbox, pageTitle }: Standing, fields: Map<string, string>, fault: HandInFault): Promise<Entered> {
    const speech = await site.speech()
    const answered = await answeredBy(fields)
    const offered = answered ? [{ handle: answered.handle, title: answered.title }] : []
    const form = letterboxHtml(letterbox, offered, speech, { fault, given: name => fields.get(name) ?? '' })
    return { status: 422, made: await page(pageTitle, ['letterbox'], '', `<h1>${escapeHtml(pageTitle)}</h1>\n${form}`) }
  }

  /** The file that somebody says theirs is an answer to. */
  async function answeredBy(fields: Map<string, string>): Promise<FileItem | undefined> {
    const handle = fields.get(LETTERBOX_FIELDS.answers)
    return handle ? (await library.all()).find(file => file.handle === handle && !isOut(file)) : undefined
  }

  /** What is wrong with what somebody sent; undefined where it can be taken. */
  function faultOf({ fault, fields, files: sent }: Received, kept: Coming[], letterbox: LetterboxAttrs): HandInFault | undefined {
    if (fault === 'tooMany' || fault === 'tooLarge') return { is: fault }
    if (!nameOf(fields)) return { is: 'missing' }
    if (emailOf(fields) === undefined) return { is: 'email' }
    if (!sent.length) return { is: 'noFile' }
    const wrong = kept.find(({ mediaType }) => !takes(letterbox, familyOf(mediaType)))
    return wrong && { is: 'kind', name: cleanFileName(wrong.fileName) }
  }

  /** Makes the files, for the desk alone. */
  async function insertFiles(tx: Queryable, letterbox: LetterboxAttrs, number: number, coming: Coming[]): Promise<string[]> {
    // The folder may have gone: nothing is lost.
    const folder = letterbox.folder !== null && (await readTree(tx)).get(letterbox.folder) ? letterbox.folder : null
    const ids: string[] = []
    for (const { fileName: sentAs, sha256, mediaType } of coming) {
      const fileName = cleanFileName(sentAs)
      const id = newId()
      await tx.insert(files).values({
        id,
        title: titleFromFileName(fileName).slice(0, 200),
        // Good names stay for the files of the shop.
        handle: await freeHandle(tx, `in-${number}-${fileName}`),
        edition: 1,
        folder,
        position: await nextPosition(tx, folder),
        gate: CLOSED_GATE,
      })
      await tx.insert(editions).values({ fileId: id, number: 1, sha256, fileName, mediaType })
      ids.push(id)
    }
    return ids
  }

  /** Messages to whoever owns the site. */
  async function announcements(told: Omit<Parameters<typeof announcementLetter>[0], 'to' | 'site' | 'origin'>, comer: Comer) {
    if ((await arrivals.since(new Date(Date.now() - HOUR))) >= ANNOUNCED) return []
    const { name, address } = await site.get()
    const owners = await db.select({ email: accounts.email }).from(accounts).where(isNull(accounts.rights))
    return owners.map(({ email }) => announcementLetter({ ...told, to: email, site: name, origin: address || comer.origin }))
  }

  async function receiptLetter(receipt: Omit<Receipt, 'written'>, path: string, comer: Comer): Promise<NewMessage | undefined> {
    // Who wants no messages gets none; the receipt is on the page.
    if (await contacts.wantsNone(receipt.email)) return undefined
    const [speech, { name }] = [await site.speech(), await site.get()]
    return letters.compose({
      to: receipt.email,
      subject: speech.say('mailReceivedSubject', { site: name, number: String(receipt.number) }),
      words: receiptWords(receipt, name, speech),
      link: { path, words: speech.say('mailReceivedGo') },
      after: speech.say('mailReceivedNot'),
      origin: comer.origin,
    })
  }

  /** Notes all of it together: it is there whole, with its messages, or not at all. */
  async function take(standing: Standing, fields: Map<string, string>, coming: Coming[], comer: Comer): Promise<Entered> {
    const { letterbox, pageId, pageTitle } = standing
    const [name, email, words] = [nameOf(fields), emailOf(fields)!, lineOf(fields.get(LETTERBOX_FIELDS.words), 500)]
    await limits.message(email)
    const speech = await site.speech()
    const label = letterbox.label.trim() || speech.say('letterbox')
    const answers = await answeredBy(fields)
    const id = newId(20)
    const at = new Date()
    // Drawn before: what is written in messages stands in them before anything is noted.
    const drawn = await db.execute<{ number: string }>(sql`select nextval(pg_get_serial_sequence('arrivals', 'number')) as number`)
    const number = Number(drawn.rows[0]!.number)
    const sent = coming.map(({ fileName, size, sha256 }) => ({ fileName: cleanFileName(fileName), size, sha256 }))
    const path = receiptPath(receipts.seal(id))
    const told = { id, number, name, email, words, letterbox: label, pageTitle, files: sent.map(({ fileName }) => fileName) }
    const receipt = await receiptLetter({ number, at: at.toISOString(), email, files: sent }, path, comer)
    const messages = [...(receipt ? [receipt] : []), ...(await announcements(told, comer))]
    await library.adoptAll(
      coming.map((file, index) => ({ ...file, key: String(index) })),
      () =>
        db.transaction(async tx => {
          await tx.insert(arrivalTable).values({
            ...{ id, number, at, pageId, pageTitle, letterbox: label, name, email, words },
            answersId: answers?.id ?? null,
            answersTitle: answers?.title ?? '',
          })
          const made = await insertFiles(tx, letterbox, number, coming)
          await tx
            .insert(arrivalFiles)
            .values(sent.map((file, index) => ({ ...file, arrivalId: id, position: index, fileId: made[index]! })))
          await contacts.leave(tx, {
            email,
            at: `${label}, ${pageTitle}`,
            answers: [
              { label: speech.say('letterboxName'), value: name },
              ...(words ? [{ label: speech.say('letterboxWords'), value: words }] : []),
              { label: speech.say('letterboxFiles'), value: sent.map(({ fileName }) => fileName).join('\n') },
            ],
          })
          for (const message of messages) await outbox.add(message, tx)
        }),
    )
    outbox.soon()
    return { to: path }
  }

  return {
    /**
     * Takes what somebody hands in by a form.
     *
     * @throws VisitorProblem 404 where no visitor sees such a letterbox, 400 or 413 where it is no such form, 429 or 507 where too much
     * comes; GateClosed where its page stands behind a gate they have not passed
     */
    async handIn(placement: string, request: IncomingMessage, comer: Comer): Promise<Entered> {
      const standing = await letterboxes.find(placement)
      const missing = () => new VisitorProblem(404, 'nowhere')
      if (!standing) throw missing()
      await guard.admit(request, { id: standing.pageId, gate: standing.gate, folder: null }, missing)
      const { letterbox } = standing
      const inAll = bytesInAll(letterbox)
      const announced = Number(request.headers['content-length'] ?? inAll)
      if (!(announced <= inAll)) throw new VisitorProblem(413, 'tooMuch')
      const release = await room.take(announced, comer.address)
      try {
        const received = await receive(
          request,
          { most: letterbox.most, each: bytesEach(letterbox), inAll },
          () => incoming(newId()),
          fields => nameOf(fields) !== '' && emailOf(fields) !== undefined,
        )
        try {
          // A robot is told what a visitor is told who forgot something: nothing to learn from.
          if (received.fields.get(TRAP)) return await again(standing, received.fields, { is: 'missing' })
          const coming: Coming[] = []
          for (const file of received.files) coming.push({ ...file, mediaType: (await sniffType(file.path, file.fileName)).mediaType })
          const fault = faultOf(received, coming, letterbox)
          return fault ? await again(standing, received.fields, fault) : await take(standing, received.fields, coming, comer)
        } finally {
          // What was taken is in the store by now, and nothing lies here any more.
          await discard(received.files)
        }
      } finally {
        release()
      }
    },

    /** What somebody handed in, as long as it is known of. @throws VisitorProblem 410 */
    async receipt(sealed: string): Promise<Entered> {
      const id = receipts.open(sealed)
      const arrival = id === undefined ? undefined : await arrivals.get(id).catch(() => undefined)
      if (!arrival) throw new VisitorProblem(410, 'linkGone')
      const speech = await site.speech()
      const { number, at, email, files: sent } = arrival
      const written = !(await contacts.wantsNone(email))
      const title = speech.say('receivedTitle', { number: String(number) })
      return {
        status: 200,
        made: await page(title, ['downloadLink'], RECEIPT_CSS, receiptHtml({ number, at, email, files: sent, written }, speech)),
      }
    },
  }
}
export type Letterbox = ReturnType<typeof createLetterbox>
