import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** What the site keeps of its visitors, as its pages say. */
export default defineEventHandler(async () => (await useTrough()).published.kept())
