import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** How far the reading of files has come. */
export default defineEventHandler(async () => (await useTrough()).reading.progress())
