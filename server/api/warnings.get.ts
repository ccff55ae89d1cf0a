import { defineEventHandler } from 'h3'
import { useTrough } from '../utils/trough'

/** What the owner should know of how this Trough stands. */
export default defineEventHandler(async () => {
  const { visitors } = await useTrough()
  return { unnamedFront: visitors.unnamedFront() ?? null }
})
