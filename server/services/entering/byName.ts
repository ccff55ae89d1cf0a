import { and, eq, gt, lt } from 'drizzle-orm'
import { SHORTEST_PASSWORD } from '../../../core/account/accountForms'
import { GATE_FIELDS, comeInPageHtml } from '../../../core/gate/gatePage'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import type { Database } from '../../db/connection'
import { guestLinks, guests } from '../../db/schema'
import type { Contacts } from '../contacts/contacts'
import type { Passwords } from '../gates/passwords'
import type { KnownGate } from '../gates/standing'
import { passOfGuest } from '../guests/guests'
import { isAdmitted } from '../guests/membership'
import type { Outbox } from '../outbox/outbox'
import type { PublishedPages } from '../published/published'
import type { SiteService } from '../site/site'
import { emailIn, type Comer, type Coming, type Entered } from './coming'
import type { FormLimits } from './formLimits'
import type { GatePages } from './gatePages'
import type { GivePass } from './givePass'
import type { Letters } from './letters'
import { hashOf, newToken } from '../token'

/** How long the link of a message lets somebody in, in milliseconds. */
const WITHIN = 15 * 60 * 1000
const COME_IN = '/pass/come-in/'

type Guest = typeof guests.$inferSelect

interface Needs {
  db: Database
  limits: FormLimits
  passwords: Pick<Passwords, 'check' | 'hash'>
  contacts: Pick<Contacts, 'admit'>
  givePass: GivePass
  outbox: Pick<Outbox, 'add' | 'behind'>
  letters: Letters
  gatePages: GatePages
  published: Pick<PublishedPages, 'said'>
  site: SiteService
  now: () => number
}

/** Lets in guests by name: by a link to their address that holds once, or by a password of their own. */
export function createByName({ db, limits, passwords, contacts, givePass, outbox, letters, gatePages, published, site, now }: Needs) {
  /** What passwords are held against where there is no guest, or one without a password: the answer takes as long. */
  let decoy: Promise<string> | undefined

  async function guestAt(gate: KnownGate, email: string): Promise<Guest | undefined> {
    const [guest] = await db.select().from(guests).where(eq(guests.email, email))
    return guest && gate.givers!.has(guest.id) ? guest : undefined
  }

  async function come(
    gate: KnownGate,
    guest: Pick<Guest, 'id'>,
    { given, comer, to }: Pick<Coming, 'given' | 'comer' | 'to'>,
  ): Promise<Entered> {
    const pass = passOfGuest(guest.id)
    await db.transaction(async tx => {
      await tx
        .update(guests)
        .set({ came: new Date(now()) })
        .where(eq(guests.id, guest.id))
      if (gate.rule.terms) await contacts.admit(tx, { gate, confirmed: false, given, pass })
    })
    return { to, cookie: givePass(gate, pass, guest.id, comer) }
  }

  async function sendLink(gate: KnownGate, guest: Guest, { given, to, title, comer }: Coming): Promise<void> {
    const token = newToken()
    const [speech, { name }] = [await site.speech(), await site.get()]
    const message = await letters.compose({
      to: guest.email,
      subject: speech.say('mailComeInSubject', { title }),
      words: speech.say('mailComeInText', { site: name, title }),
      link: { path: COME_IN + token, words: speech.say('comeInGo') },
      after: speech.say('mailComeInNot'),
      origin: comer.origin,
    })
    await db.transaction(async tx => {
      await tx
        .insert(guestLinks)
        .values({ token: hashOf(token), guestId: guest.id, gateId: gate.id, asked: { ...given, to }, until: new Date(now() + WITHIN) })
      await outbox.add(message, tx)
    })
  }

  const holds = (token: string) => and(eq(guestLinks.token, hashOf(token)), gt(guestLinks.until, new Date(now())))
  const linkGone = () => new VisitorProblem(410, 'linkGone')

  async function askToComeIn(token: string, email: string, short: boolean): Promise<Entered> {
    const speech = await site.speech()
    const made = await gatePages.page(speech.say('comeInTitle'), () =>
      comeInPageHtml({ action: COME_IN + token, email, short, least: SHORTEST_PASSWORD }, speech),
    )
    return { status: short ? 422 : 200, made }
  }

  return {
    /** Nobody learns whether an address was invited: each is answered alike. */
    async enter(coming: Coming): Promise<Entered> {
      const { gate, form, comer, say } = coming
      const email = emailIn(form)
      if (email === undefined) return say('email', [GATE_FIELDS.email])
      const guest = await guestAt(gate, email)
      const password = form.get(GATE_FIELDS.password) ?? ''
      if (password) {
        const hash = guest?.passwordHash ?? (await (decoy ??= passwords.hash(newToken())))
        const right = await passwords.check({ id: gate.id, hashes: new Map([[guest?.id ?? '', hash]]) }, password, comer.address)
        return right === undefined || !guest ? say('wrong', [GATE_FIELDS.password]) : come(gate, guest, coming)
      }
      await limits.message(email)
      if (guest) outbox.behind(() => sendLink(gate, guest, coming))
      const speech = await site.speech()
      return {
        status: 200,
        made: await published.said({ title: speech.say('checkMailTitle'), detail: speech.say('checkMailSoonDetail') }),
      }
    },

    /** Asks whoever opens the link of a message to press a button: a program that looks at links uses none up. */
    async comingIn(token: string): Promise<Entered> {
      const [row] = await db
        .select({ email: guests.email })
        .from(guestLinks)
        .innerJoin(guests, eq(guests.id, guestLinks.guestId))
        .where(holds(token))
      if (!row) throw linkGone()
      return askToComeIn(token, row.email, false)
    },

    /**
     * Lets a guest in by the link they were sent; once.
     *
     * @param form may hold a password for the next time
     * @throws VisitorProblem 410 where the link was used, is too old, or they get through no longer
     */
    async comeIn(token: string, form: URLSearchParams, comer: Comer): Promise<Entered> {
      const password = form.get(GATE_FIELDS.password)?.trim() ?? ''
      const [known] = await db
        .select({ email: guests.email })
        .from(guestLinks)
        .innerJoin(guests, eq(guests.id, guestLinks.guestId))
        .where(holds(token))
      if (!known) throw linkGone()
      if (password && password.length < SHORTEST_PASSWORD) return askToComeIn(token, known.email, true)
      const passwordHash = password ? await passwords.hash(password) : undefined
      const row = await db.transaction(async tx => {
        const [link] = await tx.delete(guestLinks).where(holds(token)).returning()
        if (link && passwordHash) await tx.update(guests).set({ passwordHash }).where(eq(guests.id, link.guestId))
        return link
      })
      if (!row) throw linkGone()
      const gate = await gatePages.gateAt(row.gateId)
      if (!(await isAdmitted(db, gate.rule, row.guestId))) throw linkGone()
      const { to, ...given } = row.asked
      return come(gate, { id: row.guestId }, { given, comer, to })
    },

    /** Forgets links whose time is over. */
    async tidy(): Promise<void> {
      await db.delete(guestLinks).where(lt(guestLinks.until, new Date(now())))
    },
  }
}
