import { defineEventHandler } from 'h3'
import { useTrough } from '../utils/trough'

/** Where the space goes. */
export default defineEventHandler(async () => (await useTrough()).storageUse())
