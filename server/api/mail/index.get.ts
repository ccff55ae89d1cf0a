import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** How messages are sent, and how that stands. */
export default defineEventHandler(async () => (await useTrough()).outbox.state())
