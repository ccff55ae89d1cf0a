import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** All catalogues with their fields. */
export default defineEventHandler(async () => ({ items: await (await useTrough()).catalogues.list() }))
