import { defineEventHandler } from 'h3'
import { binned } from '../../utils/binned'
import { useTrough } from '../../utils/trough'

/** What deleting files of the bin for good would free. */
export default defineEventHandler(async event => (await useTrough()).cleaner.wouldFree(await binned(event)))
