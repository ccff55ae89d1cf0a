import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** How long contacts are kept. */
export default defineEventHandler(async () => (await useTrough()).contacts.rules())
