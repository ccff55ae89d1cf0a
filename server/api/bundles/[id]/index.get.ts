import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** What is in a bundle: as its owner composed it, and as it would be sent now. */
export default defineEventHandler(async event => (await useTrough()).bundles.details(idOf(event)))
