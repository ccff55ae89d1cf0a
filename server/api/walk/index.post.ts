import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Walks everything anew. */
export default defineEventHandler(async () => {
  const { walk } = await useTrough()
  await walk.run()
  return walk.state()
})
