import { defineEventHandler } from 'h3'
import { fileChangeSchema } from '../../../../core/files/fileItem'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  const change = await parseBody(event, fileChangeSchema)
  const access = await accessOf(event)
  if (change.gate !== undefined) access.must('gates')
  // Whether visitors may look is a matter of what is public.
  if (change.see !== undefined) access.must('publish')
  if (change.picture) await access.mustFiles('see', [change.picture])
  return access.shown([await (await useTrough()).library.change(idOf(event), change)])[0]
})
