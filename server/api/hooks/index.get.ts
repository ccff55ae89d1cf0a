import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Other services that are told what happens. */
export default defineEventHandler(async () => ({ items: await (await useTrough()).hooks.list() }))
