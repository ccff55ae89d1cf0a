import type { IncomingMessage, ServerResponse } from 'node:http'
import { VisitorProblem } from '../../core/language/visitorProblem'
import { handInPath, receiptPath } from '../../core/letterbox/letterbox'
import type { Trough } from '../trough'
import { comerOf, sendEntered } from './pass'
import { decodedName } from './file'

const HAND_IN = handInPath('')
const RECEIPT = receiptPath('')

/** Whether a path is that of a letterbox's form, or of a receipt. */
export const isHandInPath = (path: string): boolean => path.startsWith(HAND_IN)

/** Bytes of a refused form that are read all the same, and the milliseconds that may take. */
const READ_AWAY = 100_000_000
const WITHIN = 60_000

/** Reads what is left of a request and drops it. @returns whether all of it has come */
async function readAway(request: IncomingMessage): Promise<boolean> {
  if (request.complete || request.destroyed) return request.complete
  if (!(Number(request.headers['content-length'] ?? Infinity) <= READ_AWAY)) return false
  return new Promise(resolve => {
    const end = () => {
      clearTimeout(timer)
      resolve(request.complete)
    }
    const timer = setTimeout(end, WITHIN)
    request.on('error', () => undefined)
    request.once('close', end)
    request.once('end', end)
    request.resume()
  })
}

/** `/hand-in/<placement>` takes what visitors send; `/hand-in/receipt/…` says what has arrived. */
export async function answerHandIn(trough: Trough, request: IncomingMessage, response: ServerResponse, path: string): Promise<void> {
  if (path.startsWith(RECEIPT)) {
    if (request.method === 'POST') throw new VisitorProblem(404, 'nowhere')
    return sendEntered(request, response, await trough.letterbox.receipt(decodedName(path.slice(RECEIPT.length))))
  }
  const placement = path.slice(HAND_IN.length)
  if (request.method !== 'POST') return sendEntered(request, response, await trough.letterbox.place(placement, request))
  try {
    const entered = await trough.letterbox.handIn(placement, request, comerOf(trough, request))
    await sendEntered(request, response, entered)
  } catch (error) {
    // A browser that is still sending reads no answer: what is not too much is taken off its hands first.
    if (!(await readAway(request))) response.setHeader('Connection', 'close')
    throw error
  }
}
