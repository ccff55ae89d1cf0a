import { defineEventHandler } from 'h3'
import { seenBundle } from '../../../utils/bundle'
import { idOf } from '../../../utils/request'

/** What is in a bundle: as its owner composed it, and as it would be sent now. */
export default defineEventHandler(event => seenBundle(event, idOf(event)))
