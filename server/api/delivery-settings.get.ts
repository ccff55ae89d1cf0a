import { defineEventHandler } from 'h3'
import { useTrough } from '../utils/trough'

export default defineEventHandler(async () => (await useTrough()).checks.get())
