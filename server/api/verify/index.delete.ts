import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Stops verifying; what was found so far is kept. */
export default defineEventHandler(async () => {
  const { verifying } = await useTrough()
  await verifying.stop()
  return verifying.state()
})
