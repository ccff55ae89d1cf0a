import { defineEventHandler, sendNoContent } from 'h3'
import { accessOf } from '../../utils/access'
import { idOf } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { timetable } = await useTrough()
  const item = (await timetable.list()).find(({ id }) => id === idOf(event))
  if (item) await (await accessOf(event)).mustTime(item.act)
  await timetable.drop(idOf(event))
  return sendNoContent(event)
})
