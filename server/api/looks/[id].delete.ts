import { defineEventHandler, sendNoContent } from 'h3'
import { z } from 'zod'
import { lookIdSchema } from '../../../core/look/look'
import { idOf, parseQuery } from '../../utils/request'
import { useTrough } from '../../utils/trough'

const querySchema = z.object({ instead: lookIdSchema.optional() })

export default defineEventHandler(async event => {
  await (await useTrough()).looks.remove(idOf(event), parseQuery(event, querySchema).instead)
  return sendNoContent(event)
})
