import type { IncomingMessage, ServerResponse } from 'node:http'
import { respond } from '../../core/http/respond'
import { ownFontHref } from '../../core/look/ownTypeface'
import { send } from '../services/delivery/send'
import type { Trough } from '../trough'

const [FONTS, WOFF2] = ownFontHref('|').split('|') as [string, string]

export const isFontPath = (path: string): boolean => path.startsWith(FONTS) && path.endsWith(WOFF2)

/** `/_typefaces/<name>.woff2`: a font of the site's own. The address is that of its bytes, and never gives others. */
export async function answerFont({ typefaces }: Trough, request: IncomingMessage, response: ServerResponse, path: string): Promise<void> {
  const { bytes, representation } = await typefaces.find(path.slice(FONTS.length, -WOFF2.length))
  const answer = respond(request.method!, request.headers, representation, () => representation.etag.replace(/\W/g, ''))
  await send(response, answer, ({ start, end }) => bytes.subarray(start, end))
}
