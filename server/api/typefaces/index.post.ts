import { defineEventHandler } from 'h3'
import { z } from 'zod'
import { ownTypefaceSchema } from '../../../core/look/ownTypeface'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

const bodySchema = z.object({ file: z.string(), beside: ownTypefaceSchema.optional() })

export default defineEventHandler(async event => {
  const { file, beside } = await parseBody(event, bodySchema)
  await (await accessOf(event)).mustFiles('see', [file])
  return (await useTrough()).typefaces.take(file, beside)
})
