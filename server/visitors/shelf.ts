import type { IncomingMessage, ServerResponse } from 'node:http'
import { picksOf } from '../../core/page/shelf'
import type { Trough } from '../trough'

/** `/shelves/<placement>`: files of a shelf as one zip, those its form asks for. */
export async function answerShelf(
  { delivery, shelves }: Trough,
  request: IncomingMessage,
  response: ServerResponse,
  placement: string,
  search: string,
): Promise<void> {
  const picked = await shelves.zip(placement, picksOf(new URLSearchParams(search)))
  await delivery.deliverPicked(request, response, picked, placement)
}
