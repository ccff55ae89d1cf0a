import { defineEventHandler } from 'h3'
import { LEAST_FREE } from '../store/reserve'
import { useTrough } from '../utils/trough'

/** What the owner should know of how this Trough stands. */
export default defineEventHandler(async () => {
  const { visitors, free } = await useTrough()
  return { unnamedFront: visitors.unnamedFront() ?? null, diskFull: (await free()) < LEAST_FREE }
})
