import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** Takes back what a table brought in, all of it. */
export default defineEventHandler(async event => (await useTrough()).importing.undo(idOf(event)))
