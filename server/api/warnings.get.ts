import { defineEventHandler } from 'h3'
import { LEAST_FREE } from '../store/reserve'
import { accessOf } from '../utils/access'
import { useTrough } from '../utils/trough'

/** What the owner should know of how this Trough stands. */
export default defineEventHandler(async event => {
  const { visitors, free, outbox } = await useTrough()
  const access = await accessOf(event)
  return {
    // Messages are an owner's.
    failedMail: access.owner ? await outbox.failedLately() : 0,
    unnamedFront: visitors.unnamedFront() ?? null,
    diskFull: (await free()) < LEAST_FREE,
  }
})
