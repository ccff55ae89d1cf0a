import type { IncomingMessage, ServerResponse } from 'node:http'
import { picksOf } from '../../core/shelf/shelf'
import type { Trough } from '../trough'
import { formOf } from '../utils/request'

/** Bytes of a form with every file of a shelf ticked, and room. */
const MOST = 64_000

/**
 * `/shelves/<placement>`: files of a shelf as one zip, those its form asks for: in the address, or, where they are many, in what it sends.
 *
 * @throws Problem 413 where the form is longer than any of a shelf can be
 */
export async function answerShelf(
  { delivery, shelves, guard, site }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  placement: string,
  search: string,
): Promise<void> {
  const asked = request.method === 'POST' ? await formOf(request, MOST) : new URLSearchParams(search)
  const admit: Parameters<typeof shelves.zip>[2] = (wanted, missing) => guard.admit(request, wanted, missing)
  await delivery.deliverPicked(request, response, await shelves.zip(placement, picksOf(asked), admit, await site.speech()), placement)
}
