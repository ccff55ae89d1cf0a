import type { IncomingMessage } from 'node:http'
import { GateClosed, type Why } from '../../../core/gate/closed'
import { OWN_GIVER, passHolds, type Pass } from '../../../core/gate/pass'
import type { Gated } from '../../../core/gate/standing'
import { isLimited, timeOf } from '../../../core/gate/times'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import type { Problem } from '../../../core/problem'
import type { BasicPasses } from './basic'
import { linkHolds, linkOfGate, type KnownLinks, type LinkRow } from './links'
import type { Passes } from './passes'
import type { KeptStanding, KnownGate, Standing } from './standing'
import type { Takes } from './takes'

/** What somebody wants: a file, bundle or page, with what is said of it and of where it lies. */
export type Wanted = Gated & { id: string }

/** Who wants it. */
type Asker = Pick<IncomingMessage, 'headers'> & { socket?: IncomingMessage['socket'] }

interface Needs {
  standing: KeptStanding
  passes: Passes
  links: KnownLinks
  takes: Takes
  basic: BasicPasses
  now?: () => number
}

/** Somebody may have something. */
export interface Admission {
  /** it stands behind a gate: it is theirs alone */
  own: boolean
  /** whom they are known as: what the downloads of a contact or guest are counted by */
  person?: string
  /** identity of the personal link they came by */
  link?: string
  /** Counts that they get bytes of it. @throws GateClosed where a limit of its gates is reached */
  count: () => Promise<void>
}
const uncounted = async () => undefined
const FREE: Admission = { own: false, count: uncounted }

/** How somebody stands before the gates of a thing. */
interface Way {
  /** gates that they have not passed */
  closed: KnownGate[]
  /** those they have passed, each with its pass */
  open: { gate: KnownGate; pass: Pass }[]
  /** a personal link to this very thing, which leads past all its gates */
  link?: { row: LinkRow; pass: Pass }
}

/** The one check of who may have what; asked before anything is told of it. */
export function createGuard({ standing, passes, links, takes, basic, now = Date.now }: Needs) {
  const linkIn = (carried: ReadonlyMap<string, Pass>, wanted: Wanted, rowOf: (id: string) => LinkRow | undefined): Way['link'] => {
    for (const [name, pass] of carried) {
      const id = linkOfGate(name)
      const row = id === undefined ? undefined : rowOf(id)
      if (row?.fileId === wanted.id && pass.until > now() && linkHolds(row, now())) return { row, pass }
    }
    return undefined
  }

  /** @param shown the pass that a program shows with each request, where it shows one */
  function wayOf(
    { gates, of }: Standing,
    wanted: Wanted,
    carried: ReadonlyMap<string, Pass>,
    link: Way['link'],
    shown: (gate: KnownGate) => Pass | undefined,
  ): Way {
    const way: Way = { closed: [], open: [], link }
    for (const id of of(wanted)) {
      const gate = gates.get(id)!
      const pass = carried.get(id)
      const good = pass && passHolds(pass, gate, now()) ? pass : shown(gate)
      // Before its time and after it no pass is any good.
      if (good && timeOf(gate.rule, now()) === 'open') way.open.push({ gate, pass: good })
      else way.closed.push(gate)
    }
    return way
  }

  async function lookUp(request: Asker, wanted: Wanted): Promise<Way> {
    const stands = await standing.get()
    const carried = passes.of(request)
    const ids = [...carried.keys()].flatMap(name => linkOfGate(name) ?? [])
    const rows = new Map<string, LinkRow>()
    for (const id of ids) {
      const row = await links.find(id)
      if (row) rows.set(id, row)
    }
    const shown = new Map<string, Pass>()
    if (request.headers.authorization !== undefined)
      for (const id of stands.of(wanted)) {
        const pass = await basic.find(request, stands.gates.get(id)!)
        if (pass) shown.set(id, pass)
      }
    return wayOf(
      stands,
      wanted,
      carried,
      linkIn(carried, wanted, id => rows.get(id)),
      ({ id }) => shown.get(id),
    )
  }

  const whyOf = (gate: KnownGate): Why => {
    const time = timeOf(gate.rule, now())
    return time === 'open' ? 'asked' : time
  }

  async function takeAll({ open, link }: Way, wanted: Wanted): Promise<void> {
    if (link) {
      const { id, most } = link.row
      const room = await takes.take({ gate: id, pass: link.pass.id, file: wanted.id }, { most, mostEach: null, mostADay: null }, 'link')
      if (!room) throw new VisitorProblem(410, 'linkGone')
      return
    }
    for (const { gate, pass } of open) {
      if (pass.by === OWN_GIVER || !isCounted(gate)) continue
      const take = { gate: gate.id, pass: pass.id, file: wanted.id }
      if (!takes.goesOn(take) && !(await takes.take(take, gate.rule, 'gate'))) throw new GateClosed(gate.id, 'usedUp', wanted.id)
    }
  }

  /** Whom somebody is known as by how they came. */
  const knownBy = ({ open, link }: Way): Pick<Admission, 'person' | 'link'> => ({
    link: link?.row.id,
    person: open.find(({ gate: { rule } }) => rule.kind === 'email' || rule.kind === 'people')?.pass.id,
  })

  const showsLink = ({ headers: { cookie } }: Asker) => cookie?.includes('pass-link') ?? false

  /** Who left an address, or came by name, is known by what they took, too. */
  const isCounted = ({ rule }: KnownGate) => rule.kind === 'email' || rule.kind === 'people' || isLimited(rule)

  return {
    /** The gates something stands behind; none where it is open. */
    gatesOf: async (thing: Gated): Promise<readonly string[]> => (await standing.get()).of(thing),

    /** What holds of all gates now. */
    standing: () => standing.get(),

    /** Lets somebody have something where nothing is left to be counted, and all that says so is in memory. */
    admitNow(request: Asker, wanted: Wanted): Admission | undefined {
      const stands = standing.now()
      if (!stands || showsLink(request)) return undefined
      if (!stands.of(wanted).length) return FREE
      const way = wayOf(stands, wanted, passes.of(request), undefined, gate => basic.known(request, gate))
      const goesOn = ({ gate, pass }: Way['open'][number]) =>
        pass.by === OWN_GIVER || !isCounted(gate) || takes.goesOn({ gate: gate.id, pass: pass.id, file: wanted.id })
      return !way.closed.length && way.open.every(goesOn) ? { own: true, ...knownBy(way), count: uncounted } : undefined
    },

    /**
     * Lets somebody have something, or says why not.
     *
     * @param missing what is said where nobody shall know that there is anything
     * @throws GateClosed, or what `missing` gives
     */
    async admit(request: Asker, wanted: Wanted, missing: () => Problem): Promise<Admission> {
      const behind = (standing.now() ?? (await standing.get())).of(wanted).length > 0
      if (!behind && !showsLink(request)) return FREE
      const way = await lookUp(request, wanted)
      if (!way.link && way.closed.length) {
        if (way.closed.some(({ rule }) => rule.hidden)) throw missing()
        const gate = way.closed.find(each => whyOf(each) !== 'asked') ?? way.closed[0]!
        throw new GateClosed(gate.id, whyOf(gate), wanted.id)
      }
      // What a personal link leads to is counted for it, be it open to everybody.
      return { own: behind, ...knownBy(way), count: () => takeAll(way, wanted) }
    },

    /** Whether somebody may know that there is such a thing. */
    async mayKnow(request: Asker, wanted: Wanted): Promise<boolean> {
      const stands = standing.now() ?? (await standing.get())
      if (!stands.of(wanted).some(id => stands.gates.get(id)!.rule.hidden)) return true
      const way = await lookUp(request, wanted)
      return !!way.link || !way.closed.some(({ rule }) => rule.hidden)
    },

    /** Whether somebody may have something; nothing is counted. */
    async mayHave(request: Asker, wanted: Wanted): Promise<boolean> {
      const way = await lookUp(request, wanted)
      return !!way.link || !way.closed.length
    },

    /** The gates that somebody has passed and that open now. */
    async passed(request: Asker): Promise<Set<string>> {
      const { gates } = await standing.get()
      const found = new Set<string>()
      for (const [id, pass] of passes.of(request)) {
        const gate = gates.get(id)
        if (gate && passHolds(pass, gate, now()) && timeOf(gate.rule, now()) === 'open') found.add(id)
      }
      return found
    },

    /** Cookies by which the site gets through its own gates when it looks at itself. */
    async ownCookies(wanted: readonly string[]): Promise<string> {
      const { gates } = await standing.get()
      return wanted
        .flatMap(id => gates.get(id) ?? [])
        .map(({ id, epoch }) => `pass-${id}=${passes.sealed(passes.give({ gate: id, epoch, by: OWN_GIVER, until: now() + OWN_PASS }))}`)
        .join('; ')
    },
  }
}
export type Guard = ReturnType<typeof createGuard>

/** How long a pass of the site's own holds, in milliseconds. */
const OWN_PASS = 5 * 60 * 1000
