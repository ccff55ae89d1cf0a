import { and, eq, gt, lt } from 'drizzle-orm'
import type { Asked } from '../../../core/gate/admission'
import { GATE_FIELDS, askPageHtml } from '../../../core/gate/gatePage'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { pageHref } from '../../../core/page/href'
import type { Database } from '../../db/connection'
import { gates as gateTable, unconfirmed } from '../../db/schema'
import type { Contacts } from '../contacts/contacts'
import type { KnownGate } from '../gates/standing'
import type { Outbox } from '../outbox/outbox'
import type { PageService } from '../pages/pages'
import type { PublishedPages } from '../published/published'
import type { SiteService } from '../site/site'
import { emailIn, type Comer, type Coming, type Entered } from './coming'
import type { FormLimits } from './formLimits'
import type { GatePages } from './gatePages'
import type { GivePass } from './givePass'
import type { Letters } from './letters'
import { hashOf, newToken } from '../token'

/** How long an address can be confirmed, in milliseconds. */
const CONFIRM_WITHIN = 24 * 60 * 60 * 1000
const CONFIRM = '/pass/confirm/'

const linkGone = () => new VisitorProblem(410, 'linkGone')

interface Needs {
  db: Database
  limits: FormLimits
  contacts: Pick<Contacts, 'admit'>
  givePass: GivePass
  outbox: Pick<Outbox, 'add' | 'soon'>
  letters: Letters
  gatePages: GatePages
  published: Pick<PublishedPages, 'said'>
  pages: Pick<PageService, 'livePages'>
  site: SiteService
  now: () => number
}

/** Lets in whoever leaves an e-mail address: at once, or when they have shown that it is theirs (double opt-in). */
export function createByEmail({ db, limits, contacts, givePass, outbox, letters, gatePages, published, pages, site, now }: Needs) {
  /** Where somebody goes on to who has left an address. */
  async function onward({ rule: { thanks } }: KnownGate, to: string): Promise<string> {
    const led = thanks === null ? undefined : (await pages.livePages([thanks])).get(thanks)
    return led ? pageHref(led.slug) : to
  }

  async function askToConfirm(gate: KnownGate, asked: Asked, title: string, comer: Comer): Promise<Entered> {
    await limits.message(asked.email)
    const token = newToken()
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

  const holds = (token: string) => and(eq(unconfirmed.token, hashOf(token)), gt(unconfirmed.until, new Date(now())))

  return {
    async enter({ gate, form, comer, given, to, title, say }: Coming): Promise<Entered> {
      const email = emailIn(form)
      if (email === undefined) return say('email', [GATE_FIELDS.email])
      if (gate.rule.confirm) return askToConfirm(gate, { ...given, email, to }, title, comer)
      const admitted = await db.transaction(tx => contacts.admit(tx, { gate, email, confirmed: false, given }))
      return { to: await onward(gate, to), cookie: givePass(gate, admitted.pass, admitted.contact!, comer) }
    },

    /** Asks whoever opens the link of a message to press a button: a program that looks at links confirms nothing by that. */
    async confirming(token: string): Promise<Entered> {
      const [row] = await db.select().from(unconfirmed).where(holds(token))
      if (!row) throw linkGone()
      const speech = await site.speech()
      const title = speech.say('confirmTitle')
      const detail = speech.say('confirmDetail', { email: row.asked.email })
      return {
        status: 200,
        made: await gatePages.page(title, () => askPageHtml({ title, detail, action: CONFIRM + token, button: speech.say('confirmGo') })),
      }
    },

    /** Takes an address for confirmed; once. @throws VisitorProblem 410 where that was done, or is too late */
    async confirm(token: string, comer: Comer): Promise<Entered> {
      const done = await db.transaction(async tx => {
        const [row] = await tx.delete(unconfirmed).where(holds(token)).returning()
        if (!row) return undefined
        const [gate] = await tx.select({ id: gateTable.id, name: gateTable.name }).from(gateTable).where(eq(gateTable.id, row.gateId))
        const { email, to, ...given } = row.asked
        return { ...(await contacts.admit(tx, { gate: gate!, email, confirmed: true, given })), to, gate: row.gateId }
      })
      if (!done) throw linkGone()
      const gate = await gatePages.gateAt(done.gate)
      return { to: await onward(gate, done.to), cookie: givePass(gate, done.pass, done.contact!, comer) }
    },

    /** Forgets who has not confirmed an address in time. */
    async tidy(): Promise<void> {
      await db.delete(unconfirmed).where(lt(unconfirmed.until, new Date(now())))
    },
  }
}
