import { defineEventHandler } from 'h3'
import { useTrough } from '../utils/trough'

/** Says 200 while the database and the store answer. */
export default defineEventHandler(async () => {
  const trough = await useTrough()
  await trough.check()
  return { ok: true, database: true, store: true, seconds: Math.round(process.uptime()) }
})
