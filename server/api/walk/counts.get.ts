import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Findings by what they cost, as known last. */
export default defineEventHandler(async () => ({ counts: await (await useTrough()).walk.counts() }))
