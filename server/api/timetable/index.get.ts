import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** What is set to happen, and what could not. */
export default defineEventHandler(async () => ({ items: await (await useTrough()).timetable.list() }))
