import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { accessOf } from '../../utils/access'
import { parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

const querySchema = z.object({ sha256: z.string().regex(/^[0-9a-f]{64}$/, 'Give the SHA-256 as 64 hex digits in small letters.') })

/** The files of some bytes. */
export default defineEventHandler(async event => ({
  items: (await accessOf(event)).shown(await (await useTrough()).library.withBytes(parseQuery(event, querySchema).sha256)),
}))
