import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Every page outside the bin, and those in it. */
export default defineEventHandler(async () => {
  const { pages } = await useTrough()
  return { items: await pages.list(), binned: await pages.binned() }
})
