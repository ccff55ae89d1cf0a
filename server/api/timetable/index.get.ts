import { defineEventHandler } from 'h3'
import { accessOf } from '../../utils/access'
import { useTrough } from '../../utils/trough'

/** What is set to happen, and what could not. */
export default defineEventHandler(async event => {
  const access = await accessOf(event)
  return {
    items: await access.seen(await (await useTrough()).timetable.list(), ({ act }) => (act.kind === 'entry' ? undefined : act.file)),
  }
})
