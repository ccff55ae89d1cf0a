import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Tables that were brought in. */
export default defineEventHandler(async event => ({ items: await (await useTrough()).importing.list(idOf(event)) }))
