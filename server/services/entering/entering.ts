import { createHash, randomBytes } from 'node:crypto'
import { and, eq, gt, lt } from 'drizzle-orm'
import { z } from 'zod'
import type { Admitted, Asked } from '../../../core/gate/admission'
import { GateClosed, type Why } from '../../../core/gate/closed'
import { readAnswers } from '../../../core/gate/fields'
import { GATE_CSS, GATE_FIELDS, TRAP, askPageHtml, gatePageHtml, type GateFault, type GateSight } from '../../../core/gate/gatePage'
import { timeOf } from '../../../core/gate/times'
import { wayBack } from '../../../core/gate/wayBack'
import type { Speech } from '../../../core/language/speech'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { filePath, pageHref } from '../../../core/page/href'
import { SEEK_CSS } from '../../../core/search/searchCss'
import type { Database } from '../../db/connection'
import { gates as gateTable, unconfirmed } from '../../db/schema'
import type { Contacts } from '../contacts/contacts'
import type { KnownGate, KeptStanding } from '../gates/standing'
import type { Passes } from '../gates/passes'
import type { Passwords } from '../gates/passwords'
import type { LibraryService } from '../library/library'
import type { Outbox } from '../outbox/outbox'
import type { PageService } from '../pages/pages'
import type { Made, PublishedPages } from '../published/published'
import type { SiteService } from '../site/site'
import { createFormLimits } from './formLimits'
import { createFormSeal } from './formSeal'
import type { Letters } from './letters'
import { isOut } from '../files/items'

/** What a visitor is answered at a gate: a page, or the way on, with a pass for it where they have got through. */
export type Entered = { status: number; made: Made } | { to: string; cookie?: string }

/** Who is at a gate. */
export interface Comer {
  address: string
  /** they came by https */
  secure: boolean
  /** scheme and host they came to, for links in messages where the site has no address of its own yet */
  origin: string
}

interface Needs {
  db: Database
  secret: string
  standing: KeptStanding
  passes: Passes
  passwords: Pick<Passwords, 'check'>
  contacts: Contacts
  outbox: Pick<Outbox, 'add' | 'soon'>
  letters: Letters
  published: PublishedPages
  library: LibraryService
  pages: PageService
  site: SiteService
  now?: () => number
}

const HOUR = 60 * 60 * 1000
/** How long an address can be confirmed. */
const CONFIRM_WITHIN = 24 * HOUR
const hashOf = (token: string) => createHash('sha256').update(token).digest('hex')
const emailSchema = z.email().max(254).toLowerCase()

const linkGone = () => new VisitorProblem(410, 'linkGone')
const CONFIRM = '/pass/confirm/'

/** How visitors get through gates. */
export function createEntering({
  db,
  secret,
  standing,
  passes,
  passwords,
  contacts,
  outbox,
  letters,
  published,
  library,
  pages,
  site,
  now = Date.now,
}: Needs) {
  const forms = createFormSeal(secret, now)
  const limits = createFormLimits()

  /** A page of the site with something to fill in. */
  const page = (title: string, write: (speech: Speech) => string): Promise<Made> =>
    published.made({
      title,
      description: '',
      files: [],
      parts: ['search', 'downloadButton', 'downloadLink', 'heading'],
      css: SEEK_CSS + GATE_CSS,
      write: (_renderer, speech) => write(speech),
    })

  /** What somebody wants is called; how the gate is called where nothing is known of that. */
  async function titleOf(gate: KnownGate, wanted: string | undefined): Promise<string> {
    if (wanted === undefined || gate.rule.hidden) return gate.name
    const [file] = await library.listed([wanted])
    return file?.title ?? (await pages.livePages([wanted])).get(wanted)?.title ?? gate.name
  }

  async function termsFileOf({ rule: { terms } }: KnownGate) {
    const [file] = terms?.file ? await library.listed([terms.file]) : []
    return file && !isOut(file) ? file : undefined
  }

  async function sight(
    gate: KnownGate,
    why: Why,
    to: string,
    title: string,
    { fault, wrong = [], form }: { fault?: GateFault; wrong?: readonly string[]; form?: URLSearchParams } = {},
  ): Promise<{ status: number; made: Made }> {
    const facts: GateSight = {
      gate: gate.id,
      rule: gate.rule,
      why,
      title,
      to,
      seal: forms.make(gate.id),
      termsFile: await termsFileOf(gate),
      fault,
      wrong,
      given: name => form?.get(name) ?? '',
    }
    return { status: 403, made: await page(title, speech => gatePageHtml(facts, speech)) }
  }

  /** @throws VisitorProblem 404 */
  async function gateAt(id: string): Promise<KnownGate> {
    const gate = (await standing.get()).gates.get(id)
    // The one that everybody passes has no door.
    if (!gate || gate.id === 'open') throw new VisitorProblem(404, 'nowhere')
    return gate
  }

  /** What somebody agreed to, as it stood there. */
  async function agreed(gate: KnownGate, answers: Admitted['answers']): Promise<Admitted> {
    const { terms, consent, kind } = gate.rule
    const file = await termsFileOf(gate)
    return {
      answers,
      consent: kind === 'email' ? consent : '',
      ...(terms && {
        terms: { text: terms.text, ...(file && { file: { id: file.id, title: file.title, edition: file.edition, sha256: file.sha256 } }) },
      }),
    }
  }

  const cookieFor = (gate: KnownGate, id: string, by: string, { secure }: Comer): string =>
    passes.cookie(passes.give({ gate: gate.id, epoch: gate.epoch, id, by, until: now() + gate.rule.passHours * HOUR }), secure, now())

  /** Where somebody goes on to who has left an address. */
  async function onward({ rule: { thanks } }: KnownGate, to: string): Promise<string> {
    const led = thanks === null ? undefined : (await pages.livePages([thanks])).get(thanks)
    return led ? pageHref(led.slug) : to
  }

  async function askToConfirm(gate: KnownGate, asked: Asked, title: string, comer: Comer): Promise<Entered> {
    await limits.message(asked.email)
    const token = randomBytes(24).toString('base64url')
    const [speech, { name }] = [await site.speech(), await site.get()]
    const message = await letters.compose({
      to: asked.email,
      subject: speech.say('mailConfirmSubject', { title }),
      words: speech.say('mailConfirmText', { site: name, title }),
      link: { path: CONFIRM + token, words: speech.say('confirmGo') },
      after: speech.say('mailConfirmNot'),
      origin: comer.origin,
    })
    await db.transaction(async tx => {
      await tx.insert(unconfirmed).values({ token: hashOf(token), gateId: gate.id, asked, until: new Date(now() + CONFIRM_WITHIN) })
      await outbox.add(message, tx)
    })
    outbox.soon()
    const words = { title: speech.say('checkMailTitle'), detail: speech.say('checkMailDetail') }
    return { status: 200, made: await published.said(words) }
  }

  return {
    /** The page that stands where something is behind a gate. @param to the address that was asked for */
    async closed({ gate, why, wanted }: GateClosed, to: string): Promise<{ status: number; made: Made }> {
      const known = await gateAt(gate)
      return sight(known, why, to, await titleOf(known, wanted))
    },

    /** A gate by its own address. @throws VisitorProblem 404 */
    async show(id: string, to: string | null): Promise<Entered> {
      const gate = await gateAt(id)
      const time = timeOf(gate.rule, now())
      return { ...(await sight(gate, time === 'open' ? 'asked' : time, wayBack(to), gate.name)), status: 200 }
    },

    /**
     * Takes what somebody wrote into the form of a gate.
     *
     * @throws VisitorProblem 404, or 429 where too much was tried
     */
    async enter(id: string, form: URLSearchParams, comer: Comer): Promise<Entered> {
      const gate = await gateAt(id)
      const { rule } = gate
      const to = wayBack(form.get(GATE_FIELDS.to))
      const wanted = await pathWanted(to)
      const title = await titleOf(gate, wanted)
      const time = timeOf(rule, now())
      if (time !== 'open') return sight(gate, time, to, title)
      const say = (fault: GateFault, wrong: readonly string[] = []) => sight(gate, 'asked', to, title, { fault, wrong, form })
      // A robot is told what a visitor is told whose form is too old: nothing to learn from.
      if (form.get(TRAP) || !forms.isGood(id, form.get(GATE_FIELDS.seal) ?? '', rule.kind === 'email')) return say('again')
      if (rule.kind !== 'password') await limits.form(rule.kind === 'email' ? 'left' : 'accepted', comer.address)
      const { answers, wrong } =
        rule.kind === 'email' ? readAnswers(rule.fields, field => form.get(`field-${field}`)) : { answers: [], wrong: [] }
      const missing = [
        ...wrong,
        ...(rule.terms && form.get(GATE_FIELDS.terms) !== 'yes' ? [GATE_FIELDS.terms] : []),
        ...(rule.kind === 'email' && rule.consent && form.get(GATE_FIELDS.consent) !== 'yes' ? [GATE_FIELDS.consent] : []),
      ]
      if (missing.length) return say('missing', missing)
      if (rule.kind === 'password') {
        const by = await passwords.check(gate, form.get(GATE_FIELDS.password) ?? '', comer.address)
        if (by === undefined) return say('wrong', [GATE_FIELDS.password])
        const given = await agreed(gate, answers)
        const pass = randomBytes(12).toString('base64url')
        if (rule.terms) await db.transaction(tx => contacts.admit(tx, { gate, confirmed: false, given, pass }))
        return { to, cookie: cookieFor(gate, pass, by, comer) }
      }
      if (rule.kind === 'terms') {
        const given = await agreed(gate, answers)
        const { pass } = await db.transaction(tx => contacts.admit(tx, { gate, confirmed: false, given }))
        return { to, cookie: cookieFor(gate, pass, '', comer) }
      }
      const email = emailSchema.safeParse(form.get(GATE_FIELDS.email)?.trim() ?? '')
      if (!email.success) return say('email', [GATE_FIELDS.email])
      const given = await agreed(gate, answers)
      if (rule.confirm) return askToConfirm(gate, { ...given, email: email.data, to }, title, comer)
      const admitted = await db.transaction(tx => contacts.admit(tx, { gate, email: email.data, confirmed: false, given }))
      return { to: await onward(gate, to), cookie: cookieFor(gate, admitted.pass, admitted.contact!, comer) }
    },

    /** Asks whoever opens the link of a message to press a button: a program that looks at links confirms nothing by that. */
    async confirming(token: string): Promise<Entered> {
      const [row] = await db
        .select()
        .from(unconfirmed)
        .where(and(eq(unconfirmed.token, hashOf(token)), gt(unconfirmed.until, new Date(now()))))
      if (!row) throw linkGone()
      const speech = await site.speech()
      const title = speech.say('confirmTitle')
      const detail = speech.say('confirmDetail', { email: row.asked.email })
      return {
        status: 200,
        made: await page(title, () => askPageHtml({ title, detail, action: CONFIRM + token, button: speech.say('confirmGo') })),
      }
    },

    /** Takes an address for confirmed; once. @throws VisitorProblem 410 where that was done, or is too late */
    async confirm(token: string, comer: Comer): Promise<Entered> {
      const done = await db.transaction(async tx => {
        const [row] = await tx
          .delete(unconfirmed)
          .where(and(eq(unconfirmed.token, hashOf(token)), gt(unconfirmed.until, new Date(now()))))
          .returning()
        if (!row) return undefined
        const [gate] = await tx.select({ id: gateTable.id, name: gateTable.name }).from(gateTable).where(eq(gateTable.id, row.gateId))
        const { email, to, ...given } = row.asked
        return { ...(await contacts.admit(tx, { gate: gate!, email, confirmed: true, given })), to, gate: row.gateId }
      })
      if (!done) throw linkGone()
      const gate = await gateAt(done.gate)
      return { to: await onward(gate, done.to), cookie: cookieFor(gate, done.pass, done.contact!, comer) }
    },

    async askingNoMore(sealed: string): Promise<Entered> {
      const email = letters.addressIn(sealed)
      if (email === undefined) throw linkGone()
      const speech = await site.speech()
      const title = speech.say('noMoreTitle')
      const detail = speech.say('noMoreDetail', { email })
      return {
        status: 200,
        made: await page(title, () => askPageHtml({ title, detail, action: letters.noMorePath(sealed), button: speech.say('mailNoMore') })),
      }
    },

    /** One press, of a person or of a mail program (RFC 8058). */
    async noMore(sealed: string): Promise<Entered> {
      const email = letters.addressIn(sealed)
      if (email === undefined) throw linkGone()
      await contacts.unsubscribe(email)
      const speech = await site.speech()
      return { status: 200, made: await published.said({ title: speech.say('noMoreDoneTitle'), detail: speech.say('noMoreDoneDetail') }) }
    },

    /** Forgets who has not confirmed an address in time. */
    async tidy(): Promise<void> {
      await db.delete(unconfirmed).where(lt(unconfirmed.until, new Date(now())))
    },
  }

  /** The identity of the file or page at an address; undefined where it is something else. */
  async function pathWanted(to: string): Promise<string | undefined> {
    const [, of, name] = /^\/(files|see)\/([^?#/]+)/.exec(to) ?? []
    if (of) return (await library.all()).find(({ handle }) => filePath(handle) === `/files/${name}`)?.id
    return (await pages.live(to.slice(1).split(/[?#]/)[0]!))?.id
  }
}
export type Entering = ReturnType<typeof createEntering>
