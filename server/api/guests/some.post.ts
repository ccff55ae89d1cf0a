import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

const someSchema = z.object({ guests: z.array(z.string().max(40)).max(10_000) })

/** Guests by identity. */
export default defineEventHandler(async event => ({
  items: await (await useTrough()).guests.some((await parseBody(event, someSchema)).guests),
}))
