import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** How far verifying is, or what it found last. */
export default defineEventHandler(async () => (await useTrough()).verifying.state())
