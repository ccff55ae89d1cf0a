import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** The rules by which the old is cleaned away. */
export default defineEventHandler(async () => (await useTrough()).cleaner.rules())
