import { defineEventHandler, getRouterParam, sendNoContent } from 'h3'
import { z } from 'zod'
import { parse } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

const personSchema = z.string().regex(/^[cg]-[\w-]{1,40}$/, 'Give a person as the board of downloads does.')

/** Takes out of all downloads that somebody had them. */
export default defineEventHandler(async event => {
  await (await useTrough()).downloads.forget(parse(personSchema, getRouterParam(event, 'person')))
  return sendNoContent(event)
})
