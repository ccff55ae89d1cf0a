import { defineEventHandler } from 'h3'
import { accessOf } from '../../../utils/access'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Where a signpost is used: what changes when it is turned. */
export default defineEventHandler(async event => ({
  places: (await accessOf(event)).uses(await (await useTrough()).signposts.places(idOf(event))),
}))
