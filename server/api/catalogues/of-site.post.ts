import { defineEventHandler } from 'h3'
import { useTrough } from '../../utils/trough'

/** The catalogue with the values of the whole site; made where there is none yet. */
export default defineEventHandler(async () => (await useTrough()).catalogues.ofSite())
