import { randomBytes } from 'node:crypto'
import type { IncomingMessage, ServerResponse } from 'node:http'
import { LRUCache } from 'lru-cache'
import { cleanFileName, splitExtension } from '../../../core/files/fileName'
import { contentDisposition } from '../../../core/http/disposition'
import { respond, type Representation } from '../../../core/http/respond'
import { Problem } from '../../../core/problem'
import type { Store } from '../../store/store'
import type { TallyService } from '../tally/tally'
import type { Deliverable, Directory, Entry } from './directory'
import { Filler } from './filler'
import { send, type ReadRange } from './send'

/** Files this small are kept in memory after their first delivery. */
const SMALL = 64 * 1024
const MEMORY = 32 * 1024 * 1024

/** The query of a delivery address. */
export interface DeliveryQuery { save: boolean, edition: string | null, at: string | null }

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
export function createDeliveryService(directory: Directory, store: Store, tally: TallyService) {
  const small = new LRUCache<string, Buffer>({ maxSize: MEMORY, sizeCalculation: bytes => bytes.length + 1 })

  async function remember({ sha256, saved: { size } }: Deliverable): Promise<Buffer> {
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
  function reader(deliverable: Deliverable): ReadRange {
    const { sha256, saved: { size } } = deliverable
    return ({ start, end }) => {
      const known = small.get(sha256)
      if (known) return known.subarray(start, end)
      if (size <= SMALL) return remember(deliverable).then(bytes => bytes.subarray(start, end))
      return new Filler(store, [{ source: sha256, start, end }])
    }
  }

  function choose(entry: Entry | undefined, edition: string | null): Deliverable {
    if (!entry) throw missing()
    if (entry.kind !== 'file') throw gone()
    if (edition === null) return entry.current
    const pinned = /^\d{1,9}$/.test(edition) ? entry.edition(Number(edition)) : undefined
    if (!pinned) throw new Problem(404, 'There is no such edition.', 'Leave "edition" out of the address to get the current one.')
    return pinned
  }

  async function toSave({ fileName, saved }: Deliverable, placement: string | null): Promise<Representation> {
    const chosen = placement === null ? undefined : await directory.savedName(placement)
    if (chosen === undefined) return saved
    return { ...saved, headers: { ...saved.headers, 'Content-Disposition': contentDisposition('attachment', nameToSave(fileName, chosen)) } }
  }

  async function answer(request: IncomingMessage, response: ServerResponse, entry: Entry | undefined, query: DeliveryQuery): Promise<void> {
    const deliverable = choose(entry, query.edition)
    const representation = query.save ? await toSave(deliverable, query.at) : deliverable.shown
    const reply = respond(request.method!, request.headers, representation, () => randomBytes(18).toString('hex'))
    // A socket forgets its address when it closes.
    const address = request.socket.remoteAddress ?? ''
    const sent = await send(response, reply, reader(deliverable))

    if (request.method !== 'GET' || (reply.status !== 200 && reply.status !== 206)) return
    tally.observe({
      file: deliverable.file,
      edition: deliverable.edition,
      placement: query.at && /^[a-z0-9]{6,16}$/.test(query.at) ? query.at : undefined,
      size: representation.size,
      ...sent,
      address,
      userAgent: request.headers['user-agent'],
    })
  }

  return {
    /** Shows a file to its owner, the one in the bin too; the tally is told nothing. */
    async show(request: IncomingMessage, response: ServerResponse, fileId: string): Promise<void> {
      const deliverable = await directory.current(fileId)
      if (!deliverable) throw missing()
      await send(response, respond(request.method!, request.headers, deliverable.shown, () => randomBytes(18).toString('hex')), reader(deliverable))
    },

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
