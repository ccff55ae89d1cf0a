import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

export default defineEventHandler(async () => ({ items: (await useTrough()).jobs.list() }))
