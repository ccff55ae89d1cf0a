import { defineEventHandler } from 'h3'
import { binned } from '../../utils/binned'
import { useTrough } from '../../utils/trough'

/** Deletes files of the bin for good, some or all; says how many, and what that freed. */
export default defineEventHandler(async event => (await useTrough()).cleaner.emptyBin(await binned(event)))
