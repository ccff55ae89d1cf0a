import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** Takes all suggestions that are all but sure. */
export default defineEventHandler(async () => ({ paths: await (await useTrough()).oldAddresses.takeSuggestions() }))
