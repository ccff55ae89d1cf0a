import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Where a signpost is used: what changes when it is turned. */
export default defineEventHandler(async event => ({ places: await (await useTrough()).signposts.places(idOf(event)) }))
