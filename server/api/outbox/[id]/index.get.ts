import { defineEventHandler } from 'h3'
import { idOf } from '../../../utils/request'
import { useTrough } from '../../../utils/trough'

/** A message as its receiver reads it. */
export default defineEventHandler(async event => (await useTrough()).outbox.get(idOf(event)))
