import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import { LRUCache } from 'lru-cache'
import { cleanFileName, splitExtension } from '../../../core/files/fileName'
import { contentDisposition } from '../../../core/http/disposition'
import { respond, type Representation } from '../../../core/http/respond'
import { Problem } from '../../../core/problem'
import type { Store } from '../../store/store'
import type { Bundles, LaidOut } from '../bundles/bundles'
import type { TallyService } from '../tally/tally'
import { bundleDeliverable, type Deliverable, type Directory, type Entry } from './directory'
import { Filler } from './filler'
import { send, type ReadRange } from './send'

/** Files this small are kept in memory after their first delivery. */
const SMALL = 64 * 1024
const MEMORY = 32 * 1024 * 1024

/** The query of a delivery address. */
export interface DeliveryQuery { save: boolean, edition: string | null, at: string | null }

const boundary = () => randomBytes(18).toString('hex')
const gone = () => new Problem(410, 'This file is no longer here.', 'It was taken off this site. Look for a newer one on the site\'s pages.')
const missing = () => new Problem(404, 'There is no such file.', 'Check the address, or look for the file on the site\'s pages.')

/** The chosen name, with the file's own ending where the name lacks it: contents and name never disagree. */
export function nameToSave(fileName: string, chosen: string | undefined): string {
  if (!chosen?.trim()) return fileName
  const name = cleanFileName(chosen)
  const [, ending] = splitExtension(fileName)
  return name.toLowerCase().endsWith(ending.toLowerCase()) ? name : name + ending
}

/** Delivers files to visitors by RFC 9110, and tells the tally what left. */
export function createDeliveryService(directory: Directory, bundles: Bundles, store: Store, tally: TallyService) {
  const small = new LRUCache<string, Buffer>({ maxSize: MEMORY, sizeCalculation: bytes => bytes.length + 1 })

  async function remember(sha256: string, size: number): Promise<Buffer> {
    const bytes = Buffer.allocUnsafeSlow(size)
    const filler = new Filler(store, [{ source: sha256, start: 0, end: size }])
    try {
      await filler.fill(bytes)
    }
    finally {
      await filler.close()
    }
    small.set(sha256, bytes)
    return bytes
  }

  /** Small files come from memory, others are read as they are sent. */
  function reader({ bytes, saved: { size } }: Deliverable): ReadRange {
    if ('layout' in bytes) return range => new Filler(store, bytes.layout.stretches(range))
    const { sha256 } = bytes
    return ({ start, end }) => {
      const known = small.get(sha256)
      if (known) return known.subarray(start, end)
      if (size <= SMALL) return remember(sha256, size).then(whole => whole.subarray(start, end))
      return new Filler(store, [{ source: sha256, start, end }])
    }
  }

  function choose(entry: Entry | undefined, edition: string | null): Deliverable | Promise<Deliverable> {
    if (!entry) throw missing()
    if (entry.kind === 'bundle' && edition === null) return bundles.laidOut(entry.id).then(laid => bundleDeliverable(entry.id, laid))
    if (entry.kind === 'gone' || entry.kind === 'moved') throw gone()
    if (edition === null && entry.kind === 'file') return entry.current
    const pinned = entry.kind === 'file' && /^\d{1,9}$/.test(edition!) ? entry.edition(Number(edition)) : undefined
    if (!pinned) throw new Problem(404, 'There is no such edition.', 'Leave "edition" out of the address to get the current one.')
    return pinned
  }

  async function toSave({ fileName, saved }: Deliverable, placement: string | null): Promise<Representation> {
    const chosen = placement === null ? undefined : await directory.savedName(placement)
    if (chosen === undefined) return saved
    return { ...saved, headers: { ...saved.headers, 'Content-Disposition': contentDisposition('attachment', nameToSave(fileName, chosen)) } }
  }

  async function answer(request: IncomingMessage, response: ServerResponse, entry: Entry | undefined, query: DeliveryQuery): Promise<void> {
    const chosen = choose(entry, query.edition)
    const deliverable = chosen instanceof Promise ? await chosen : chosen
    const representation = query.save ? await toSave(deliverable, query.at) : deliverable.shown
    const reply = respond(request.method!, request.headers, representation, boundary)
    // A socket forgets its address when it closes.
    const address = request.socket.remoteAddress ?? ''
    const sent = await send(response, reply, reader(deliverable))

    if (request.method !== 'GET' || (reply.status !== 200 && reply.status !== 206)) return
    tally.observe({
      file: deliverable.file,
      edition: deliverable.edition,
      placement: query.at && /^[a-z0-9]{6,16}$/.test(query.at) ? query.at : undefined,
      etag: representation.etag,
      size: representation.size,
      ...sent,
      address,
      userAgent: request.headers['user-agent'],
    })
  }

  async function show(request: IncomingMessage, response: ServerResponse, deliverable: Deliverable): Promise<void> {
    await send(response, respond(request.method!, request.headers, deliverable.shown, boundary), reader(deliverable))
  }

  return {
    /** Shows a file to its owner, the one in the bin too; the tally is told nothing. */
    async show(request: IncomingMessage, response: ServerResponse, fileId: string): Promise<void> {
      const deliverable = await directory.current(fileId) ?? bundleDeliverable(fileId, await bundles.laidOut(fileId))
      await show(request, response, deliverable)
    },

    /** Sends the owner a zip that was laid out for them. */
    showZip: (request: IncomingMessage, response: ServerResponse, zip: LaidOut): Promise<void> => show(request, response, bundleDeliverable('', zip)),


    /**
     * Answers a GET or HEAD for a handle.
     *
     * @returns the handle to redirect to, where this one is retired
     * @throws Problem 404 or 410
     */
    async deliver(request: IncomingMessage, response: ServerResponse, handle: string, query: DeliveryQuery): Promise<string | undefined> {
      const found = directory.find(handle)
      const entry = found instanceof Promise ? await found : found
      if (entry?.kind === 'moved') return entry.handle
      await answer(request, response, entry, query)
      return undefined
    },
  }
}
