import type { IncomingMessage } from 'node:http'
import { cleanFileName } from '../../../core/files/fileName'
import type { FileItem } from '../../../core/files/fileItem'
import { familyOf } from '../../../core/files/mediaType'
import { TRAP } from '../../../core/gate/gatePage'
import { newId } from '../../../core/id'
import { LETTERBOX_FIELDS, bytesEach, bytesInAll, receiptPath, takes, type LetterboxAttrs } from '../../../core/letterbox/letterbox'
import { letterboxHtml, type HandInFault } from '../../../core/letterbox/letterboxHtml'
import { RECEIPT_CSS, receiptHtml } from '../../../core/letterbox/receiptPage'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { escapeHtml } from '../../../core/page/escape'
import { pageHref } from '../../../core/page/href'
import { Problem } from '../../../core/problem'
import { emailIn, type Comer, type Entered } from '../entering/coming'
import type { FormLimits } from '../entering/formLimits'
import { isOut } from '../files/items'
import type { Guard } from '../gates/guard'
import { createSeal } from '../gates/seal'
import { sniffType } from '../library/sniff'
import type { LiveLetterbox } from '../pages/liveReads'
import type { PublishedPages } from '../published/published'
import type { Arrivals } from './arrivals'
import type { LiveLetterboxes } from './live'
import { discard, receive, type Received } from './receiving'
import type { Room } from './room'
import { createTaking, type Coming } from './taking'

type Needs = Omit<Parameters<typeof createTaking>[0], 'arrivals' | 'library' | 'receiptOf'> & {
  secret: string
  library: Parameters<typeof createTaking>[0]['library'] & { all: () => Promise<FileItem[]> }
  letterboxes: LiveLetterboxes
  published: Pick<PublishedPages, 'made'>
  guard: Pick<Guard, 'admit' | 'mayKnow'>
  limits: Pick<FormLimits, 'message'>
  arrivals: Arrivals
  room: Room
  /** where bytes lie while they come in, by an identity made here */
  incoming: (id: string) => string
}

/** One line as somebody wrote it: what is told apart by lines, in messages and tables, is one. */
const lineOf = (text: string | null, longest: number): string =>
  (text ?? '')
    .replace(/[\p{Cc}\s]+/gu, ' ')
    .trim()
    .slice(0, longest)
const nameIn = (fields: URLSearchParams) => lineOf(fields.get(LETTERBOX_FIELDS.name), 200)

/** What is wrong with what somebody sent; undefined where it can be taken. */
function faultOf({ fault, fields, files }: Received, coming: Coming[], letterbox: LetterboxAttrs): HandInFault | undefined {
  // A robot is told what a visitor is told who forgot something: nothing to learn from.
  if (fields.get(TRAP) || !nameIn(fields)) return { is: 'missing' }
  if (emailIn(fields) === undefined) return { is: 'email' }
  if (fault === 'tooMany' || fault === 'tooLarge') return { is: fault }
  if (!files.length) return { is: 'noFile' }
  const wrong = coming.find(({ mediaType }) => !takes(letterbox, familyOf(mediaType)))
  return wrong && { is: 'kind', name: cleanFileName(wrong.fileName) }
}

/** What was forgotten is told as gone; that it cannot be read is another matter. */
const gone = (error: unknown): undefined => {
  if (!(error instanceof Problem && error.status === 404)) throw error
}
const nowhere = () => new VisitorProblem(404, 'nowhere')

/** Where visitors hand files in: public nowhere until somebody at the desk says so. */
export function createLetterbox(needs: Needs) {
  const { site, contacts, library, letterboxes, published, guard, limits, arrivals, room, incoming } = needs
  const receipts = createSeal(needs.secret, 'receipts')
  const take = createTaking({ ...needs, receiptOf: id => receiptPath(receipts.seal(id)) })

  const page = (title: string, parts: ('letterbox' | 'downloadLink')[], css: string, html: string) =>
    published.made({ title, description: '', files: [], parts: ['heading', 'bulletList', ...parts], css, write: () => html })

  const standingOf = ({ pageId, gate }: LiveLetterbox) => ({ id: pageId, gate, folder: null })

  /** The form once more, with what was wrong. */
  async function again(
    { letterbox, pageTitle }: LiveLetterbox,
    fields: URLSearchParams,
    answers: FileItem | undefined,
    fault: HandInFault,
  ): Promise<Entered> {
    const form = letterboxHtml(letterbox, answers ? [answers] : [], await site.speech(), { fault, given: name => fields.get(name) ?? '' })
    return { status: 422, made: await page(pageTitle, ['letterbox'], '', `<h1>${escapeHtml(pageTitle)}</h1>\n${form}`) }
  }

  /** The file that somebody says theirs is an answer to, as far as they may know of it. */
  async function answeredBy(request: IncomingMessage, fields: URLSearchParams): Promise<FileItem | undefined> {
    const handle = fields.get(LETTERBOX_FIELDS.answers)
    const found = handle ? (await library.all()).find(file => file.handle === handle && !isOut(file)) : undefined
    return found && (await guard.mayKnow(request, found)) ? found : undefined
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
      if (!standing) throw nowhere()
      await guard.admit(request, standingOf(standing), nowhere)
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
          fields => nameIn(fields) !== '' && emailIn(fields) !== undefined,
        )
        try {
          const { fields } = received
          const coming: Coming[] = []
          for (const file of received.files) coming.push({ ...file, mediaType: (await sniffType(file.path, file.fileName)).mediaType })
          const answers = await answeredBy(request, fields)
          const fault = faultOf(received, coming, letterbox)
          if (fault) return await again(standing, fields, answers, fault)
          const [name, email, words] = [nameIn(fields), emailIn(fields)!, lineOf(fields.get(LETTERBOX_FIELDS.words), 500)]
          await limits.message(email)
          return { to: await take(standing, { name, email, words, answers, coming }, comer) }
        } finally {
          // What was taken is in the store by now, and nothing lies here any more.
          await discard(received.files)
        }
      } finally {
        release()
      }
    },

    /** Where a letterbox stands: whoever comes to the address of its form by itself is led there. @throws VisitorProblem 404 */
    async place(placement: string, request: IncomingMessage): Promise<Entered> {
      const standing = await letterboxes.find(placement)
      if (!standing || !(await guard.mayKnow(request, standingOf(standing)))) throw nowhere()
      return { to: `${pageHref(standing.slug)}#tr-${placement}` }
    },

    /** What somebody handed in, as long as it is known of. @throws VisitorProblem 410 */
    async receipt(sealed: string): Promise<Entered> {
      const id = receipts.open(sealed)
      const arrival = id === undefined ? undefined : await arrivals.get(id).catch(gone)
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
