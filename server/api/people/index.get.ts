import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Everybody who works at the desk, and who was asked to. */
export default defineEventHandler(async () => ({ items: await (await useTrough()).people.list() }))
