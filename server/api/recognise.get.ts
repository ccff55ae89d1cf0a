import { defineEventHandler, getRequestHost } from 'h3'
import { z } from 'zod'
import { accessOf } from '../utils/access'
import { parseQuery } from '../utils/request'
import { useTrough } from '../utils/trough'

const querySchema = z.object({ text: z.string().max(3000) })

/** What an address that was typed or pasted leads to. */
export default defineEventHandler(async event => {
  const led = await (await useTrough()).recognising.recognise(parseQuery(event, querySchema).text, getRequestHost(event))
  if (led.target.kind === 'file') await (await accessOf(event)).mustFiles('see', [led.target.id])
  return led
})
