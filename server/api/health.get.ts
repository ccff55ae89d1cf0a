import { defineEventHandler } from 'h3'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async () => {
  const trough = await useTrough()
  await trough.check()
  return { ok: true, database: true, store: true }
})
