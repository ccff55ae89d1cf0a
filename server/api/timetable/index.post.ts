import { defineEventHandler } from 'h3'
import { newTimedSchema } from '../../../core/timetable/timedItem'
import { accessOf } from '../../utils/access'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { act, at } = await parseBody(event, newTimedSchema)
  await (await accessOf(event)).mustTime(act)
  return (await useTrough()).timetable.set(act, at)
})
