import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async () => ({ items: await (await useTrough()).guests.groups() }))
