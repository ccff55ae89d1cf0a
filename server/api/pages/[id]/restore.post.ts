import { defineEventHandler } from 'h3'
import { accessOf } from '../../../utils/access'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

export default defineEventHandler(async event => {
  const { pages } = await useTrough()
  // What was live is live again.
  if ((await pages.binned()).some(({ id, live }) => live && id === idOf(event))) (await accessOf(event)).must('publish')
  return pages.restore(idOf(event))
})
