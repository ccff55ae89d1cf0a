import type { Admitted } from '../../../core/gate/admission'
import type { GateClosed } from '../../../core/gate/closed'
import { readAnswers } from '../../../core/gate/fields'
import type { GateKind, GateRule } from '../../../core/gate/gate'
import { GATE_FIELDS, TRAP, askPageHtml, type GateFault } from '../../../core/gate/gatePage'
import { timeOf } from '../../../core/gate/times'
import { wayBack } from '../../../core/gate/wayBack'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { filePath } from '../../../core/page/href'
import type { Database } from '../../db/connection'
import type { Contacts } from '../contacts/contacts'
import type { Passes } from '../gates/passes'
import type { Passwords } from '../gates/passwords'
import type { KeptStanding, KnownGate } from '../gates/standing'
import type { LibraryService } from '../library/library'
import type { Outbox } from '../outbox/outbox'
import type { PageService } from '../pages/pages'
import type { Made } from '../published/packed'
import type { PublishedPages } from '../published/published'
import type { SiteService } from '../site/site'
import { createByEmail } from './byEmail'
import { createByName } from './byName'
import { createByPassword } from './byPassword'
import { createByTerms } from './byTerms'
import type { Comer, Coming, Entered } from './coming'
import type { FormLimits } from './formLimits'
import { createFormSeal } from './formSeal'
import { createGatePages } from './gatePages'
import { createGivePass } from './givePass'
import type { Letters } from './letters'

interface Needs {
  db: Database
  secret: string
  standing: KeptStanding
  passes: Passes
  passwords: Pick<Passwords, 'check' | 'hash'>
  contacts: Contacts
  outbox: Pick<Outbox, 'add' | 'behind' | 'soon'>
  letters: Letters
  limits: FormLimits
  published: PublishedPages
  library: LibraryService
  pages: PageService
  site: SiteService
  now?: () => number
}

/** What is sent by forms of each kind, as it is limited; a password is limited by how often it is wrong. */
const LIMITED = { password: undefined, email: 'left', people: 'left', terms: 'accepted' } as const

/** What everybody has to give at a gate and did not. */
function missingIn({ terms, kind, consent }: GateRule, form: URLSearchParams): string[] {
  return [
    ...(terms && form.get(GATE_FIELDS.terms) !== 'yes' ? [GATE_FIELDS.terms] : []),
    ...(kind === 'email' && consent && form.get(GATE_FIELDS.consent) !== 'yes' ? [GATE_FIELDS.consent] : []),
  ]
}

/** How visitors get through gates. */
export function createEntering(needs: Needs) {
  const { secret, standing, published, library, pages, site, contacts, letters, passes, limits, now = Date.now } = needs
  const forms = createFormSeal(secret, now)
  const gatePages = createGatePages({ standing, published, library, pages, forms })
  const { gateAt, titleOf, sight, termsFileOf } = gatePages
  const shared = { ...needs, now, gatePages, givePass: createGivePass(passes, now) }
  const [byEmail, byName] = [createByEmail(shared), createByName(shared)]
  const BY_KIND: Record<GateKind, (coming: Coming) => Promise<Entered>> = {
    password: createByPassword(shared),
    email: byEmail.enter,
    people: byName.enter,
    terms: createByTerms(shared),
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

  /** The identity of the file or page at an address; undefined where it is something else. */
  async function pathWanted(to: string): Promise<string | undefined> {
    const [, of, name] = /^\/(files|see)\/([^?#/]+)/.exec(to) ?? []
    if (of) return (await library.all()).find(({ handle }) => filePath(handle) === `/files/${name}`)?.id
    return (await pages.live(to.slice(1).split(/[?#]/)[0]!))?.id
  }

  const linkGone = () => new VisitorProblem(410, 'linkGone')

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
      const title = await titleOf(gate, await pathWanted(to))
      const time = timeOf(rule, now())
      if (time !== 'open') return sight(gate, time, to, title)
      const say = (fault: GateFault, wrong: readonly string[] = []) => sight(gate, 'asked', to, title, { fault, wrong, form })
      // A robot is told what a visitor is told whose form is too old: nothing to learn from.
      const hasty = rule.kind === 'email' || rule.kind === 'people'
      if (form.get(TRAP) || !forms.isGood(id, form.get(GATE_FIELDS.seal) ?? '', hasty)) return say('again')
      const limit = LIMITED[rule.kind]
      if (limit) await limits.form(limit, comer.address)
      const { answers, wrong } =
        rule.kind === 'email' ? readAnswers(rule.fields, field => form.get(`field-${field}`)) : { answers: [], wrong: [] }
      const missing = [...wrong, ...missingIn(rule, form)]
      if (missing.length) return say('missing', missing)
      return BY_KIND[rule.kind]({ gate, comer, form, given: await agreed(gate, answers), to, title, say })
    },

    confirming: byEmail.confirming,
    confirm: byEmail.confirm,
    comingIn: byName.comingIn,
    comeIn: byName.comeIn,

    async askingNoMore(sealed: string): Promise<Entered> {
      const email = letters.addressIn(sealed)
      if (email === undefined) throw linkGone()
      const speech = await site.speech()
      const title = speech.say('noMoreTitle')
      const detail = speech.say('noMoreDetail', { email })
      return {
        status: 200,
        made: await gatePages.page(title, () =>
          askPageHtml({ title, detail, action: letters.noMorePath(sealed), button: speech.say('mailNoMore') }),
        ),
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

    /** Forgets what was begun and not ended in time. */
    async tidy(): Promise<void> {
      await byEmail.tidy()
      await byName.tidy()
    },
  }
}
export type Entering = ReturnType<typeof createEntering>
