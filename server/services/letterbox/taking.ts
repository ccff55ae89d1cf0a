import { isNull, sql } from 'drizzle-orm'
import { cleanFileName, titleFromFileName } from '../../../core/files/fileName'
import type { FileItem } from '../../../core/files/fileItem'
import { CLOSED_GATE } from '../../../core/gate/gate'
import { newId } from '../../../core/id'
import type { LetterboxAttrs } from '../../../core/letterbox/letterbox'
import { receiptWords, type Receipt } from '../../../core/letterbox/receiptPage'
import type { Database, Queryable } from '../../db/connection'
import { accounts, arrivalFiles, arrivals as arrivalTable, editions, files } from '../../db/schema'
import type { Contacts } from '../contacts/contacts'
import type { Comer } from '../entering/coming'
import type { Letters } from '../entering/letters'
import { freeHandle } from '../files/handles'
import { nextPosition } from '../files/position'
import { readTree } from '../files/readTree'
import type { LibraryService } from '../library/library'
import type { NewMessage, Outbox } from '../outbox/outbox'
import type { LiveLetterbox } from '../pages/liveReads'
import type { SiteService } from '../site/site'
import type { Kept } from '../uploads/keep'
import { announcementLetter } from './announcement'
import type { Arrivals } from './arrivals'

interface Needs {
  db: Database
  library: Pick<LibraryService, 'adoptAll'>
  site: SiteService
  contacts: Pick<Contacts, 'leave' | 'wantsNone'>
  outbox: Pick<Outbox, 'add' | 'soon'>
  letters: Letters
  arrivals: Pick<Arrivals, 'since'>
  /** the address of a receipt */
  receiptOf: (arrival: string) => string
}

/** A file that came in whole, and what its bytes are. */
export type Coming = Kept & { fileName: string; mediaType: string }

/** What somebody hands in, as it was found to be good. */
export interface Given {
  name: string
  email: string
  words: string
  /** the file of the library it answers */
  answers?: FileItem
  coming: Coming[]
}

/** More announcements in an hour tell the owner nothing that the first did not. */
const ANNOUNCED = 20
const HOUR = 60 * 60 * 1000

/** Notes what came by a letterbox, and tells of it. */
export function createTaking({ db, library, site, contacts, outbox, letters, arrivals, receiptOf }: Needs) {
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

  /**
   * Notes all of it together: it is there whole, with its messages, or not at all.
   *
   * @returns where its receipt is read
   */
  return async function take(
    { letterbox, pageId, pageTitle }: LiveLetterbox,
    { name, email, words, answers, coming }: Given,
    comer: Comer,
  ): Promise<string> {
    const speech = await site.speech()
    const label = letterbox.label.trim() || speech.say('letterbox')
    const id = newId(20)
    const at = new Date()
    // Drawn before: what is written in messages stands in them before anything is noted.
    const drawn = await db.execute<{ number: string }>(sql`select nextval(pg_get_serial_sequence('arrivals', 'number')) as number`)
    const number = Number(drawn.rows[0]!.number)
    const sent = coming.map(({ fileName, size, sha256 }) => ({ fileName: cleanFileName(fileName), size, sha256 }))
    const path = receiptOf(id)
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
    return path
  }
}
export type Taking = ReturnType<typeof createTaking>
