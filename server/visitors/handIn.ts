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

/** `/hand-in/<placement>` takes what visitors send; `/hand-in/receipt/…` says what has arrived. */
export async function answerHandIn(trough: Trough, request: IncomingMessage, response: ServerResponse, path: string): Promise<void> {
  if (path.startsWith(RECEIPT)) {
    if (request.method === 'POST') throw new VisitorProblem(404, 'nowhere')
    return sendEntered(request, response, await trough.letterbox.receipt(decodedName(path.slice(RECEIPT.length))))
  }
  // Nothing is to be seen where a form is sent.
  if (request.method !== 'POST') throw new VisitorProblem(404, 'nowhere')
  try {
    const entered = await trough.letterbox.handIn(path.slice(HAND_IN.length), request, comerOf(trough, request))
    await sendEntered(request, response, entered)
  } catch (error) {
    // What is still on its way is not waited for.
    if (!request.complete) response.setHeader('Connection', 'close')
    throw error
  }
}
