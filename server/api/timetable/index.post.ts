import { defineEventHandler } from 'h3'
import { newTimedSchema } from '../../../core/timetable/timedItem'
import { parseBody } from '../../utils/request'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async event => {
  const { act, at } = await parseBody(event, newTimedSchema)
  return (await useTrough()).timetable.set(act, at)
})
