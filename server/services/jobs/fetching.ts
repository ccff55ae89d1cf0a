import type { IncomingMessage } from 'node:http'
import { parse as parseDisposition } from 'content-disposition'
import { eq } from 'drizzle-orm'
import mime from 'mime'
import type { Fetch } from '../../../core/files/fetchForm'
import { cleanFileName, splitExtension } from '../../../core/files/fileName'
import { formatSize } from '../../../core/files/size'
import type { JobItem } from '../../../core/jobs/jobItem'
import { newId } from '../../../core/id'
import { Problem } from '../../../core/problem'
import { settings } from '../../db/schema'
import { keep } from '../uploads/keep'
import { PrivateAddress } from './ssrfGuard'
import { hostsSchema } from '../../../core/files/fetchHosts'
import type { Arriving } from './arriving'
import { askOutside, hostOf } from './outsideRequest'

const KEY = 'fetchHosts'
const MOST_REDIRECTS = 5
const LARGEST = 5_000_000_000
const RESERVE = 64 * 1000 * 1000
/** Milliseconds without a byte. */
const SILENCE = 30_000

/** The name a web server gives a file: by its header (RFC 6266), else by its address and type. */
export function nameFromAnswer(url: URL, disposition: string | undefined, contentType: string | undefined): string {
  const given = disposition ? parseDisposition(disposition).parameters.filename : undefined
  const last = url.pathname.split('/').at(-1) ?? ''
  let fromPath = last
  try {
    fromPath = decodeURIComponent(last)
  } catch (error) {
    // A path that is not UTF-8 is used as it is written.
    if (!(error instanceof URIError)) throw error
  }
  const name = cleanFileName(given || fromPath || url.hostname)
  const ending = mime.getExtension(contentType ?? '')
  return splitExtension(name)[1] || !ending ? name : `${name}.${ending}`
}

/** Fetches files from web addresses: only public ones, unless the owner allows a host. */
export function createFetching({ db, library, store, jobs, incoming }: Arriving) {
  async function hosts(): Promise<string[]> {
    const [row] = await db.select().from(settings).where(eq(settings.key, KEY))
    return hostsSchema.parse({ hosts: row?.value ?? [] }).hosts
  }

  const ask = (url: URL, allowed: boolean, signal: AbortSignal): Promise<IncomingMessage> =>
    askOutside(url, { method: 'GET', allowed, signal, silence: SILENCE, agent: 'Trough (fetches a file for its owner)' })

  /** Follows redirects, each checked like the first address. */
  async function follow(first: URL, allowed: string[], signal: AbortSignal): Promise<{ url: URL; answer: IncomingMessage }> {
    let url = first
    for (let redirects = 0; ; redirects++) {
      const answer = await ask(url, allowed.includes(url.host) || allowed.includes(hostOf(url)), signal)
      const { location } = answer.headers
      if (![301, 302, 303, 307, 308].includes(answer.statusCode!) || !location) return { url, answer }
      answer.destroy()
      if (redirects === MOST_REDIRECTS)
        throw new Problem(
          508,
          'The address leads from one place to the next without end.',
          'Open it in a browser and copy where it arrives.',
        )
      const next = URL.canParse(location, url) ? new URL(location, url) : undefined
      if (!next || !/^https?:$/.test(next.protocol))
        throw new Problem(
          502,
          `The address leads on to ${location.slice(0, 100)}, which is no web address.`,
          'Download the file yourself and put it in.',
        )
      if (url.protocol === 'https:' && next.protocol === 'http:')
        throw new Problem(
          502,
          `The address leads from https to ${next.href.slice(0, 100)}, where anybody on the way could change the file.`,
          'Give that address itself if you trust it.',
        )
      url = next
    }
  }

  function refuse(error: unknown): never {
    if (error instanceof Problem) throw error
    const { code, message } = error as NodeJS.ErrnoException
    if (error instanceof PrivateAddress) {
      throw new Problem(403, message, 'Trough fetches from such hosts only where you allow it.', { host: error.host })
    }
    if (code === 'ENOTFOUND' || code === 'EAI_AGAIN') throw new Problem(502, 'There is no host of that name.', 'Check the address.')
    if (code === 'ECONNREFUSED' || code === 'EHOSTUNREACH' || code === 'ENETUNREACH')
      throw new Problem(502, 'The host does not answer.', 'Check the address, or try again later.')
    throw new Problem(502, `The file did not arrive whole (${message}).`, 'Try again.')
  }

  async function fetchFile({ address, folder }: Fetch, job: JobItem, signal: AbortSignal): Promise<void> {
    try {
      const { url, answer } = await follow(new URL(address), await hosts(), signal)
      if (answer.statusCode !== 200) {
        answer.destroy()
        throw new Problem(
          502,
          `The host answers ${answer.statusCode}${answer.statusMessage ? ` (${answer.statusMessage})` : ''}.`,
          'Open the address in a browser to see why.',
        )
      }
      const length = answer.headers['content-length'] === undefined ? null : Number(answer.headers['content-length'])
      const room = Math.min(LARGEST, (await store.free()) - RESERVE)
      const tooLarge = () =>
        new Problem(413, `The file is larger than ${formatSize(room)}.`, 'Download it yourself and put in what you need.')
      if ((length ?? 0) > room) {
        answer.destroy()
        throw tooLarge()
      }
      job.total = length
      const fileName = nameFromAnswer(url, answer.headers['content-disposition'], answer.headers['content-type'])
      answer.setTimeout(SILENCE, () => answer.destroy(new Problem(504, `${url.host} went silent.`, 'Try again later.')))
      signal.addEventListener('abort', () => answer.destroy(), { once: true })
      const kept = await keep(answer, incoming(newId()), count => {
        job.done += count
        if (job.done > room) answer.destroy(tooLarge())
      })
      const file = await library.ingest({ ...kept, fileName, folder, by: job.by })
      job.files.push(file.id)
    } catch (error) {
      signal.throwIfAborted()
      refuse(error)
    }
  }

  return {
    hosts,
    async setHosts(allowed: string[]): Promise<string[]> {
      await db
        .insert(settings)
        .values({ key: KEY, value: allowed })
        .onConflictDoUpdate({ target: settings.key, set: { value: allowed } })
      return allowed
    },
    fetch: (order: Fetch, by = ''): JobItem =>
      jobs.start({ kind: 'fetch', name: order.address, unit: 'bytes', by }, (job, signal) => fetchFile(order, job, signal)),
  }
}
export type Fetching = ReturnType<typeof createFetching>
