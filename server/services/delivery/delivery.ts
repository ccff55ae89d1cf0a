import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import type { FileItem } from '../../../core/files/fileItem'
import { nameToSave } from '../../../core/files/fileName'
import { headerOf } from '../../../core/http/conditional'
import { contentDisposition } from '../../../core/http/disposition'
import { readyFields, respond, type Representation } from '../../../core/http/respond'
import { VisitorProblem } from '../../../core/language/visitorProblem'
import { asksForPrivacy, type Came } from '../../../core/tally/particulars'
import { isAhead } from '../../../core/tally/purpose'
import type { Store } from '../../store/store'
import type { Bundles } from '../bundles/bundles'
import type { LaidOut } from '../bundles/packing'
import type { Events } from '../events'
import type { Admission, Guard, Wanted } from '../gates/guard'
import type { TallyService } from '../tally/tally'
import type { Troubles } from '../trust/troubles'
import type { Visitors } from '../visitorAddress'
import { createBytes } from './bytes'
import type { DeliveryChecks } from './checks'
import { bundleDeliverable, ownedBy, type Deliverable } from './deliverable'
import type { Directory, Entry } from './directory'
import { createEncodings } from './encodings'
import { Damaged } from './filler'
import type { Front } from './front'
import { wantedAt } from './wanted'
import { send, sendAtOnce, type Sent } from './send'
import { Turns } from './turns'

/** The query of a delivery address. */
export interface DeliveryQuery {
  save: boolean
  edition: string | null
  at: string | null
  /** the campaign it is asked for by */
  from?: string | null
}

export interface DeliveryNeeds {
  directory: Directory
  bundles: Bundles
  store: Store
  checks: DeliveryChecks
  tally: TallyService
  /** sends stored bytes in our place, where there is one */
  front?: Front
  visitors: Pick<Visitors, 'addressOf'>
  /** whether a request comes from somebody who is signed in at the desk */
  isOwn: (request: IncomingMessage) => false | Promise<boolean>
  events: Events
  /** is told of bytes that turn out not to be what they were */
  troubles: Pick<Troubles, 'note'>
  /** says who may have what */
  guard: Guard
}

const NO_NAMES: ReadonlyMap<string, string> = new Map()
const boundary = () => randomBytes(18).toString('hex')
const gone = () => new VisitorProblem(410, 'gone')
const missing = () => new VisitorProblem(404, 'noFile')
const uncounted = async () => undefined

function givenOut(edition: Deliverable | 'withdrawn'): Deliverable {
  if (edition === 'withdrawn') throw new VisitorProblem(410, 'withdrawn')
  return edition
}

/**
 * Whether a request asks no more than that the tag it was given still holds, and it does: what browsers ask most. The
 * whole of RFC 9110, section 13.2.2, says the same, and takes longer.
 */
const isUnchanged = ({ headers }: IncomingMessage, { etag }: Representation): boolean =>
  headers['if-none-match'] === etag && headers['if-match'] === undefined && headers['if-unmodified-since'] === undefined

/** Delivers files and bundles to visitors by RFC 9110, and tells the tally what left. */
export function createDeliveryService({
  directory,
  bundles,
  store,
  checks,
  tally,
  front,
  visitors,
  isOwn,
  events,
  troubles,
  guard,
}: DeliveryNeeds) {
  const bytes = createBytes(store, events)
  const encodings = createEncodings(bytes, events)
  const turns = new Turns()

  /** What an address leads to, for somebody who may know of it. @throws VisitorProblem 404 for who may not */
  async function known(request: IncomingMessage, name: string, signpost: boolean): Promise<{ entry: Entry; wanted?: Wanted }> {
    const entry = await directory.find(name, signpost)
    const wanted = entry && (await wantedAt(entry, bundles))
    if (!entry || (wanted && !(await guard.mayKnow(request, wanted)))) throw missing()
    return { entry, wanted }
  }

  function choose(entry: Entry, edition: string | null): Deliverable | Promise<Deliverable> {
    if (entry.kind === 'bundle' && edition === null) return bundles.laidOut(entry.id).then(laid => bundleDeliverable(entry.id, laid))
    if (entry.kind === 'nowhere') throw new VisitorProblem(404, 'notNow')
    if (entry.kind === 'gone' || entry.kind === 'moved') throw gone()
    if (edition === null && entry.kind === 'file') return givenOut(entry.current)
    const pinned = entry.kind === 'file' && /^\d{1,9}$/.test(edition!) ? entry.edition(Number(edition)) : undefined
    if (!pinned) throw new VisitorProblem(404, 'noEdition')
    return givenOut(pinned)
  }

  /** The representation under the name its button chose, where it chose one. */
  function named(saved: Representation, fileName: string, chosen: string | undefined): Representation {
    if (chosen === undefined) return saved
    return {
      ...saved,
      headers: { ...saved.headers, 'Content-Disposition': contentDisposition('attachment', nameToSave(fileName, chosen)) },
    }
  }

  const { addressOf } = visitors

  /** @param signpost the name of the signpost it was asked for by */
  const cameOf = ({ headers }: IncomingMessage, campaign: string | null, signpost: string | null, known?: Admission): Came => ({
    referer: headers.referer,
    accepted: headers['accept-language'],
    host: headers.host,
    campaign,
    signpost,
    isPrivate: asksForPrivacy(headers),
    person: known?.person,
    link: known?.link,
  })

  /** What tells the tally what left for an address: nothing of what a browser fetches ahead, or whoever works at the desk tries. */
  function reporter(
    address: string,
    request: IncomingMessage,
    { file, edition, contents, members }: Deliverable,
    { etag, size }: Representation,
    at: string | null,
    came: Came,
  ): (sent: Sent) => void {
    const { headers } = request
    if (isAhead(headers)) return () => undefined
    const userAgent = headers['user-agent']
    const placement = at && /^[a-z0-9]{6,16}$/.test(at) ? at : undefined
    const began = performance.now()
    return ({ delivered, unsure }) => {
      const took = Math.max(1, Math.round(performance.now() - began))
      const observe = () =>
        tally.observe({
          file,
          edition,
          contents,
          members,
          placement,
          etag,
          size,
          delivered,
          unsure,
          took,
          at: Date.now(),
          address,
          userAgent,
          came,
        })
      const own = isOwn(request)
      if (own) void own.then(is => is || observe(), observe)
      else observe()
    }
  }

  /** The owner learns of what a visitor could not have, at once. */
  async function watched<T>(work: Promise<T>): Promise<T> {
    try {
      return await work
    } catch (error) {
      if (error instanceof Damaged) await troubles.note(error.sha256, error.trouble)
      throw error
    }
  }

  async function answer(
    request: IncomingMessage,
    response: ServerResponse,
    deliverable: Deliverable,
    { save, at }: Pick<DeliveryQuery, 'save' | 'at'>,
    came: Came,
    count: Admission['count'],
  ): Promise<void> {
    const packed = encodings.choose(deliverable, headerOf(request.headers, 'accept-encoding'))
    const { shown, saved } = packed ?? deliverable
    const representation = !save ? shown : at === null ? saved : named(saved, deliverable.fileName, (await directory.savedNames()).get(at))
    const reply = respond(request.method!, request.headers, representation, boundary)
    // HEAD, 304, 412 and 416 go out without a look at the store.
    if (!reply.body.length && (request.method !== 'GET' || reply.status > 206))
      return void response.writeHead(reply.status, readyFields(reply.headers)).end()
    await count()
    const address = addressOf(request)
    const report = reporter(address, request, deliverable, representation, at, came)

    if (await checks.isOn())
      await checks.check(
        deliverable,
        reply.body.filter(part => typeof part === 'object'),
      )
    const fromDisk = !packed && bytes.areStored(deliverable)
    if (front && fromDisk && 'sha256' in deliverable.bytes && front.canTake(request.headers, reply)) {
      return front.hand(response, reply, deliverable.bytes.sha256, (delivered, unsure) => report({ delivered, unsure }))
    }
    const giveTurn = fromDisk ? await turns.take(address) : undefined
    try {
      report(await send(response, reply, packed?.read ?? bytes.readerOf(deliverable)))
    } finally {
      giveTurn?.()
    }
  }

  async function show(request: IncomingMessage, response: ServerResponse, deliverable: Deliverable): Promise<void> {
    await watched(send(response, respond(request.method!, request.headers, deliverable.shown, boundary), bytes.readerOf(deliverable)))
  }

  return {
    /** Shows a file to its owner, the one in the bin too; the tally is told nothing. */
    async show(request: IncomingMessage, response: ServerResponse, fileId: string): Promise<void> {
      await show(request, response, (await directory.current(fileId)) ?? bundleDeliverable(fileId, await bundles.laidOut(fileId)))
    },

    /** Sends the owner a zip that was laid out for them. */
    showZip: (request: IncomingMessage, response: ServerResponse, zip: LaidOut): Promise<void> =>
      show(request, response, bundleDeliverable('', zip)),

    /**
     * Answers as {@link deliver} would, but without a turn of the loop, where all it takes is in memory: that a file is
     * unchanged, or a small file. That is what visitors ask most, and the turns would cost more than the rest of it.
     *
     * @returns whether it was answered
     */
    deliverAtOnce(
      request: IncomingMessage,
      response: ServerResponse,
      name: string,
      { save, edition, at, from = null }: DeliveryQuery,
      signpost: boolean,
    ): boolean {
      const entry = edition === null ? directory.known(name, signpost) : undefined
      // Texts have packed forms, with tags of their own.
      if (entry?.kind !== 'file' || entry.current === 'withdrawn' || entry.current.textLike) return false
      const admission = guard.admitNow(request, entry.wanted)
      if (!admission) return false
      const deliverable = admission.own ? ownedBy(entry.current) : entry.current
      const names = save && at !== null ? directory.knownNames() : NO_NAMES
      if (!names) return false
      const representation = save ? named(deliverable.saved, deliverable.fileName, names.get(at!)) : deliverable.shown
      if (isUnchanged(request, representation)) {
        response.writeHead(304, readyFields(representation.unchanged)).end()
        return true
      }
      const whole = bytes.inMemory(deliverable)
      if (!whole || checks.isOn() !== false) return false
      const reply = respond(request.method!, request.headers, representation, boundary)
      const [part] = reply.body
      if (reply.body.length !== 1 || typeof part !== 'object') return false
      sendAtOnce(
        response,
        reply,
        part,
        whole.subarray(part.start, part.end),
        reporter(addressOf(request), request, deliverable, representation, at, cameOf(request, from, signpost ? name : null, admission)),
      )
      return true
    },

    /**
     * Answers a GET or HEAD for a handle, or for the name of a signpost.
     *
     * @returns the path to redirect to, where this one is retired
     * @throws Problem 404 or 410
     */
    async deliver(
      request: IncomingMessage,
      response: ServerResponse,
      name: string,
      query: DeliveryQuery,
      signpost: boolean,
    ): Promise<string | undefined> {
      const { entry, wanted } = await known(request, name, signpost)
      if (entry.kind === 'moved') return entry.path
      // Asked before anything is told of it: which editions there are is told to nobody else either.
      const admission = wanted && entry.kind !== 'gone' ? await guard.admit(request, wanted, missing) : undefined
      const deliverable = await choose(entry, query.edition)
      const came = cameOf(request, query.from ?? null, signpost ? name : null, admission)
      await watched(
        answer(request, response, admission?.own ? ownedBy(deliverable) : deliverable, query, came, admission?.count ?? uncounted),
      )
      return undefined
    },

    /** Whether there is something at a handle, or at the name of a signpost, that somebody may know of. */
    async isAt(request: IncomingMessage, name: string, signpost: boolean): Promise<boolean> {
      const entry = await directory.find(name, signpost)
      const wanted = entry && (await wantedAt(entry, bundles))
      return entry !== undefined && (!wanted || (await guard.mayKnow(request, wanted)))
    },

    /** Answers a GET or HEAD for a zip of files picked from a shelf; each of them counts as downloaded from there. */
    async deliverPicked(
      request: IncomingMessage,
      response: ServerResponse,
      { zip, files, admissions }: { zip: LaidOut; files: FileItem[]; admissions: Admission[] },
      shelf: string,
    ): Promise<void> {
      const contents = files.map(({ id, edition, size }) => ({ file: id, edition, size }))
      const picked = { ...bundleDeliverable(`shelf ${shelf}`, zip), contents }
      const deliverable = admissions.some(({ own }) => own) ? ownedBy(picked) : picked
      await watched(
        answer(
          request,
          response,
          deliverable,
          { save: false, at: shelf },
          cameOf(
            request,
            null,
            null,
            admissions.find(({ person }) => person !== undefined),
          ),
          async () => {
            for (const { count } of admissions) await count()
          },
        ),
      )
    },
  }
}
