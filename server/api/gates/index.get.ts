import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** All gates, by their names. */
export default defineEventHandler(async () => ({ items: await (await useTrough()).gates.list() }))
