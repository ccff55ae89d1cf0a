import { defineEventHandler } from 'h3'
import { pageSettingsSchema } from '../../../../core/page/pageItem'
import { accessOf } from '../../../utils/access'
import { idOf, parseBody } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  const { pages } = await useTrough()
  const change = await parseBody(event, pageSettingsSchema)
  const access = await accessOf(event)
  if (change.gate !== undefined) access.must('gates')
  if (change.picture) await access.mustFiles('see', [change.picture])
  // They hold at once for what visitors read.
  if ((await pages.get(idOf(event))).published) access.must('publish')
  return pages.change(idOf(event), change)
})
