import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** What the walk finds now. */
export default defineEventHandler(async () => (await useTrough()).walk.state())
