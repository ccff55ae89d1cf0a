import { defineEventHandler } from 'h3'
import { useTrough } from '../../../utils/trough'

/** How often, and to whom, it is told what was taken. */
export default defineEventHandler(async () => (await useTrough()).summaries.get())
