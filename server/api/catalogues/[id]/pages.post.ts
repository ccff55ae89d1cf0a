import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Makes a page that lists the entries, and what each is laid out in, as drafts. */
export default defineEventHandler(async event => (await useTrough()).layingOut.both(idOf(event)))
