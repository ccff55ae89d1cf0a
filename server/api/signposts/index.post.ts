import { defineEventHandler } from 'h3'
import { newSignpostSchema } from '../../../core/signposts/signpostItem'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const signpost = await parseBody(event, newSignpostSchema)
  await (await accessOf(event)).mustFiles('see', signpost.file ? [signpost.file] : [])
  return (await useTrough()).signposts.create(signpost)
})
